import { firstOrThrow } from '../../collections/orThrow';
import { endLimit, isAnode, plannedDigitAmps, transistorFor } from '../../electrics/reports/transistorFor';
import { terminalsOf } from '../../nets/terminals';
import type { Edit } from '../../plan/edit';
import type { Check, CheckContext, FindingDraft, Remedy } from '../engine/check';
import { ledPlace } from '../fixes/ledFixes';
import { TRANSISTOR_WORDS } from '../fixes/transistors';

function transistors(
  context: CheckContext,
  keys: readonly { readonly placement: string; readonly terminal: string }[],
  amps: number,
  limit: number,
): readonly Remedy[] {
  const driver = transistorFor(context, amps, limit, isAnode(context, firstOrThrow(keys).placement) ? 'supply' : 'ground');
  if (!driver) return [];
  return [
    {
      label: 'put',
      data: {
        transistor: { is: 'words', text: TRANSISTOR_WORDS[driver.kind] },
        ohms: { is: 'quantity', value: driver.ohms, unit: 'Ω' },
        count: { is: 'count', value: keys.length, noun: 'digit' },
      },
      grade: 'offered',
      edits: keys.map((key): Edit => ({ kind: 'driver', ...key, driver })),
    },
  ];
}

function examine(context: CheckContext, id: string): readonly FindingDraft[] {
  const { plan, sheets, board } = context;
  const bare = terminalsOf(plan, { id }, sheets).filter((t) => t.terminal.digit && t.wire && !plan.drivers[t.key]);
  const limits = bare.flatMap((t) => endLimit(context, t) ?? []);
  if (limits.length === 0) return [];
  const amps = plannedDigitAmps(context, id);
  const limit = Math.min(...limits);
  if (amps <= limit) return [];
  return [
    {
      level: 'clash',
      message: bare.some((t) => context.nets.byTerminal.get(t.key)?.pins[0] !== undefined) ? 'bare' : 'output',
      place: ledPlace(id),
      data: {
        placement: { is: 'placement', id },
        amps: { is: 'quantity', value: amps, unit: 'A' },
        limit: { is: 'quantity', value: limit, unit: 'A' },
      },
      source: board.sheet.electrical.source,
      remedies: () =>
        transistors(
          context,
          bare.map((t) => ({ placement: id, terminal: t.terminal.id })),
          amps,
          limit,
        ),
    },
  ];
}

const why =
  'Idigit = Σ Isegment, because every segment has its own resistor and one digit is lit at a time. A common anode needs a PNP transistor or P-MOSFET from the supply, a common cathode an NPN transistor or N-MOSFET to ground.';

export const digitDriverMissing: Check = {
  code: 'digit-driver-missing',
  question: 'Does every digit have a transistor where a pin or output cannot drive all segments?',
  missing: 'resistor',
  messages: {
    bare: {
      title: '{placement}: a digit draws {amps}, a pin drives {limit}; a transistor is needed',
      text: 'The common terminal carries the current of all lit segments.',
      why,
    },
    output: {
      title: '{placement}: a digit draws {amps}, an output drives {limit}; a transistor is needed',
      text: 'The common terminal carries the current of all lit segments.',
      why,
    },
  },
  remedies: { put: 'Add a transistor ({transistor}, {ohms}) at {count}' },
  examine: (context) => context.plan.placements.flatMap((placement) => examine(context, placement.id)),
};
