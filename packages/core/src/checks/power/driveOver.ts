import { firstOrThrow, getOrThrow } from '../../collections/orThrow';
import { ledReports, loadsOf, pinLimit } from '../../electrics/reports/ledReport';
import { partOf } from '../../plan/edit';
import { splitKey, type TerminalKey } from '../../plan/plan';
import type { Check, CheckContext, FindingDraft } from '../engine/check';
import { FIT_REMEDIES, fitResistors } from '../fixes/ledFixes';
import { TRANSISTOR_REMEDY, transistorRemedy } from '../fixes/transistors';

/** What a pin drives: at most, and with nominal values, in amperes. */
interface Driven {
  readonly keys: TerminalKey[];
  amps: number;
  nominal: number;
}

function finding(context: CheckContext, pin: string, { keys, amps, nominal }: Driven): FindingDraft {
  const limit = pinLimit(context.board, pin);
  const leds = ledReports(context.plan, context.sheets).filter((led) => keys.includes(led.key));
  return {
    level: nominal > limit * (1 + 1e-9) ? 'clash' : 'risk',
    message: 'over',
    place: { pins: [pin], terminals: keys },
    data: {
      pin: { is: 'pin', pin },
      amps: { is: 'quantity', value: amps, unit: 'A' },
      limit: { is: 'quantity', value: limit, unit: 'A' },
      terminals: { is: 'terminals', keys },
    },
    source: context.board.sheet.electrical.source,
    remedies: () =>
      leds.length === keys.length
        ? fitResistors(leds, 'fit', 'offered')
        : keys.length === 1
          ? transistorRemedy(context, firstOrThrow(keys), limit)
          : [],
  };
}

export const driveOver: Check = {
  code: 'drive-over',
  harm: true,
  question: 'Is the current of every pin within its limit?',
  missing: 'resistor',
  messages: {
    over: {
      title: '{pin}: {amps} exceeds the pin’s {limit}',
      text: 'Load: {terminals}.',
      why: 'IOH and IOL are specified up to this current. Above it VOH and VOL leave their limits and the driver overheats. Use a larger resistor, or a transistor that switches the load.',
    },
  },
  remedies: { ...FIT_REMEDIES, ...TRANSISTOR_REMEDY },
  examine(context) {
    const { plan, sheets, board } = context;
    const byPin = new Map<string, Driven>();
    for (const { driver, key, amps, nominalAmps } of loadsOf(plan, sheets)) {
      // Unlimited currents and digits without a transistor have their own checks.
      const { placement, terminal } = splitKey(key);
      const bare = partOf(plan, placement, sheets)?.terminals.get(terminal)?.digit && !plan.drivers[key];
      if (driver.by !== 'pin' || !Number.isFinite(amps) || bare) continue;
      const found = byPin.get(driver.pin) ?? { keys: [], amps: 0, nominal: 0 };
      found.keys.push(key);
      found.amps += amps;
      found.nominal += nominalAmps;
      byPin.set(driver.pin, found);
    }
    const order = new Map(context.terminals.map(({ key }, at) => [key, at]));
    // In the order of the plan: the finding is the same wherever it was looked for.
    for (const { keys } of byPin.values()) keys.sort((a, b) => getOrThrow(order, a) - getOrThrow(order, b));
    return [...byPin].flatMap(([pin, driven]) => (driven.amps > pinLimit(board, pin) * (1 + 1e-9) ? [finding(context, pin, driven)] : []));
  },
};
