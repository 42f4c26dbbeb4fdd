import { applyEdits } from '../plan/applyEdits';
import { type Edit, partOf } from '../plan/edit';
import { memoryLedger, type MemoryLine } from '../readout/memory';
import type { Check, CheckContext, Remedy } from './check';

/** Of what the runtime leaves, pictures may take so much before a program of any size gets into trouble. */
const CROWDED = 2 / 3;

/** Less of a picture kept at a time, where that helps. */
function lessOf({ plan, sheets }: CheckContext, lines: readonly MemoryLine[], most: number): readonly Remedy[] {
  return lines
    .filter((line) => line.picture === 'whole' && !partOf(plan, line.placement, sheets)?.sheet.memory?.required)
    .toSorted((a, b) => b.bytes - a.bytes)
    .flatMap((line): Remedy[] => {
      const readout = { ...plan.readouts[line.placement], picture: 'part' as const };
      const edits: readonly Edit[] = [{ kind: 'readout', placement: line.placement, readout }];
      const after = applyEdits(plan, edits, sheets);
      if (!after.ok || memoryLedger(after.plan, sheets)!.usedBytes > most) return [];
      return [{ label: 'part', data: { display: { is: 'placement', id: line.placement } }, grade: 'offered', edits }];
    })
    .slice(0, 2);
}

const why =
  'A picture that is worked out in memory takes its pixels times the bits of each, whatever it shows. What the runtime, its stack and the radio take comes off first; the rest of the program needs room, too.';

export const memoryOver: Check = {
  code: 'memory-over',
  question: 'Is there RAM for the pictures of all displays?',
  lacks: 'setting',
  messages: {
    over: {
      title: 'Pictures take {used} of {free} RAM',
      text: '{top} takes most: {most}. The program does not start, or starts anew.',
      why,
    },
    little: { title: 'Pictures take {used} of {free} RAM', text: '{top} takes most: {most}. Little is left for the program.', why },
  },
  remedies: { part: 'Work the picture of {display} out in parts' },
  examine: (context) => {
    const ledger = memoryLedger(context.plan, context.sheets);
    const free = ledger ? ledger.ramBytes - ledger.runtimeBytes : 0;
    // A sheet that does not say how much there is has none.
    if (!ledger || ledger.ramBytes === 0 || ledger.usedBytes <= free * CROWDED) return [];
    const over = ledger.usedBytes > free;
    const top = ledger.lines.reduce((a, b) => (b.bytes > a.bytes ? b : a));
    return [
      {
        level: over ? 'clash' : 'risk',
        message: over ? 'over' : 'little',
        place: { view: 'readout' },
        data: {
          used: { is: 'quantity', value: ledger.usedBytes, unit: 'B' },
          free: { is: 'quantity', value: free, unit: 'B' },
          top: { is: 'placement', id: top.placement },
          most: { is: 'quantity', value: top.bytes, unit: 'B' },
        },
        source: context.board.sheet.memory.source,
        remedies: () => lessOf(context, ledger.lines, over ? free : free * CROWDED),
      },
    ];
  },
};
