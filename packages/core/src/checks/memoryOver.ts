import { applyEdits } from '../plan/applyEdits';
import { type Edit, partOf } from '../plan/edit';
import { memoryLedger, type MemoryLine } from '../readout/memory';
import type { Check, CheckContext, Remedy } from './check';
import { memoryFinding } from './memoryFinding';

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
  whole: true,
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
    return ledger ? memoryFinding(context, { ...ledger, total: ledger.ramBytes }, (most) => lessOf(context, ledger.lines, most)) : [];
  },
};
