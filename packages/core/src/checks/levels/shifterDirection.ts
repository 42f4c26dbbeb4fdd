import { isFedBackwards } from '../../electrics/reports/levelSides';
import { flowsThrough } from '../../nets/passThrough';
import type { Edit } from '../../plan/edit';
import { terminalKey } from '../../plan/plan';
import type { Check, CheckContext, FindingDraft, Remedy } from '../engine/check';
import { type ShifterLines, shifterLines } from './shifterLines';
import { repacked } from '../fixes/levelTranslation';

function against(context: CheckContext, { placement, part, items }: ShifterLines): readonly FindingDraft[] {
  const wrong = items.filter(({ wire, terminal }) => wire.end.to === 'terminal' && !flowsThrough(part, wire.end.terminal, terminal));
  if (wrong.length === 0) return [];
  const keys = wrong.map((item) => item.key);
  return [
    {
      level: 'clash',
      message: 'against',
      place: { placements: [placement.id], view: 'levels' },
      data: { shifter: { is: 'placement', id: placement.id }, terminals: { is: 'terminals', keys } },
      source: part.levelShifter.source,
      remedies: () => {
        const found = repacked(context, placement.id, keys);
        return found ? [{ label: 'other', data: { modules: found.modules }, grade: 'offered', edits: found.edits }] : [];
      },
    },
  ];
}

/** The two supplies of a shifter changed with each other. */
function exchanged({ plan }: CheckContext, { placement, part }: ShifterLines): readonly Remedy[] {
  const { low, high } = part.levelShifter;
  const [a, b] = [low, high].map((t) => plan.wires[terminalKey(placement.id, t)]);
  if (!a || !b || a.locked || b.locked) return [];
  const wire = (terminal: string, end: typeof a.end): Edit => ({ kind: 'wire', placement: placement.id, terminal, end });
  return [{ label: 'exchange', data: {}, grade: 'offered', edits: [wire(low, b.end), wire(high, a.end)] }];
}

function backwards(context: CheckContext, lines: ShifterLines): readonly FindingDraft[] {
  const { placement, part } = lines;
  const { plan, sheets, board } = context;
  if (!isFedBackwards(plan, sheets, board, placement)) return [];
  const label = (id: string) => ({ is: 'labels' as const, keys: [terminalKey(placement.id, id)] });
  return [
    {
      level: 'clash',
      message: 'backwards',
      place: { placements: [placement.id], view: 'levels' },
      data: { shifter: { is: 'placement', id: placement.id }, low: label(part.levelShifter.low), high: label(part.levelShifter.high) },
      source: part.levelShifter.source,
      remedies: () => exchanged(context, lines),
    },
  ];
}

export const shifterDirection: Check = {
  code: 'shifter-direction',
  question: 'Does every signal pass its level shifter in the right direction?',
  messages: {
    against: {
      title: '{shifter}: wrong direction for {terminals}',
      text: 'This buffer is unidirectional.',
      why: 'A logic buffer has inputs on one side and outputs on the other. A part that drives its output causes contention; bidirectional lines need a MOSFET or auto-direction shifter.',
    },
    backwards: {
      title: '{shifter}: supplies exchanged ({low} has the higher voltage)',
      text: 'Connect the lower supply to {low} and the higher one to {high}.',
      why: 'The MOSFETs block in one direction only. With the higher supply on the low side their body diodes conduct, and both sides reach the higher voltage.',
    },
  },
  remedies: { other: 'Use {modules} for these lines', exchange: 'Exchange the two supplies' },
  examine: (context) => shifterLines(context).flatMap((lines) => [...against(context, lines), ...backwards(context, lines)]),
};
