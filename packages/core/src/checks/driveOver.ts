import { type Lamp, lampsOf, loadsOf, pinLimit } from '../electrics/lamps';
import { partOf } from '../plan/edit';
import { applyEdits } from '../plan/applyEdits';
import { type Plan, splitKey, type TerminalKey } from '../plan/plan';
import type { IndexedBoard, Sheets } from '../sheets/sheetIndex';
import type { Check, CheckContext, FindingDraft, Remedy } from './check';
import { FIT_REMEDIES, fitResistors } from './lampParts';
import { TRANSISTOR_WORDS, transistorFor } from './transistors';

/** A transistor for a load that is no lamp. */
function transistor(context: CheckContext, key: TerminalKey, limit: number): readonly Remedy[] {
  const { placement, terminal } = splitKey(key);
  const load = partOf(context.plan, placement, context.sheets)?.terminals.get(terminal)?.loadMilliamps;
  const driver = load === undefined || context.plan.drivers[key] ? undefined : transistorFor(context, load / 1000, limit, 'ground');
  if (!driver) return [];
  return [
    {
      label: 'transistor',
      data: { transistor: { is: 'words', text: TRANSISTOR_WORDS[driver.kind] }, ohms: { is: 'quantity', value: driver.ohms, unit: 'Ω' } },
      grade: 'offered',
      edits: [{ kind: 'driver', placement, terminal, driver }],
    },
  ];
}

function finding(context: CheckContext, pin: string, keys: readonly TerminalKey[], amps: number): FindingDraft {
  const limit = pinLimit(context.board, pin);
  const lamps = lampsOf(context.plan, context.sheets).filter((lamp) => keys.includes(lamp.key));
  return {
    level: 'clash',
    message: 'over',
    place: { pins: [pin], terminals: keys },
    data: {
      pin: { is: 'pin', pin },
      amps: { is: 'quantity', value: amps, unit: 'A' },
      limit: { is: 'quantity', value: limit, unit: 'A' },
      terminals: { is: 'terminals', keys },
    },
    source: context.board.sheet.electrical.source,
    remedies: () => {
      const fitted = lamps.length === keys.length ? fitResistors(lamps as [Lamp, ...Lamp[]], 'fit', 'offered') : [];
      // Several lamps on one pin may be too much for it with the right resistor in each.
      return [...fitted, ...(keys.length === 1 && fitted.length === 0 ? transistor(context, keys[0]!, limit) : [])].filter(({ edits }) => {
        const after = applyEdits(context.plan, edits, context.sheets);
        return after.ok && !isOver(context.board, pin, carried(after.plan, context.sheets).get(pin)?.amps ?? 0);
      });
    },
  };
}

/** What a pin has to carry, and for whom. */
interface Carried {
  readonly keys: readonly TerminalKey[];
  readonly amps: number;
}

/** What pins have to carry in a plan, by pin. */
function carried(plan: Plan, sheets: Sheets): ReadonlyMap<string, Carried> {
  const byPin = new Map<string, Carried>();
  for (const { driver, key, amps } of loadsOf(plan, sheets)) {
    // What nothing limits is told as such, and digits without a transistor, too.
    const { placement, terminal } = splitKey(key);
    const bare = partOf(plan, placement, sheets)?.terminals.get(terminal)?.digit && !plan.drivers[key];
    if (driver.by !== 'pin' || !Number.isFinite(amps) || bare) continue;
    const before = byPin.get(driver.pin) ?? { keys: [], amps: 0 };
    byPin.set(driver.pin, { keys: [...before.keys, key], amps: before.amps + amps });
  }
  return byPin;
}

const isOver = (board: IndexedBoard, pin: string, amps: number): boolean => amps > pinLimit(board, pin) * (1 + 1e-9);

export const driveOver: Check = {
  code: 'drive-over',
  question: 'Does no pin give or take more current than it can?',
  lacks: 'resistor',
  messages: {
    over: {
      title: '{pin} has to carry {amps} and can {limit}',
      text: 'For {terminals}.',
      why: 'The output of a pin is specified up to a current; above it, its level is no level any more, and the chip heats. A larger resistor, or a transistor that carries the load while the pin only switches it.',
    },
  },
  remedies: { ...FIT_REMEDIES, transistor: 'Put a transistor between ({transistor}, {ohms})' },
  examine: (context) =>
    [...carried(context.plan, context.sheets)].flatMap(([pin, { keys, amps }]) =>
      isOver(context.board, pin, amps) ? [finding(context, pin, keys, amps)] : [],
    ),
};
