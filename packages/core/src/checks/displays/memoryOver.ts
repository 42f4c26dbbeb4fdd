import { orThrow } from '../../collections/orThrow';
import { applyEdits } from '../../plan/applyEdits';
import { type Edit, partOf } from '../../plan/edit';
import { memoryLedger, type MemoryLine } from '../../displays/memory';
import type { Check, CheckContext, Remedy } from '../engine/check';
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
      if (!after.ok || orThrow(memoryLedger(after.plan, sheets), 'board sheet').usedBytes > most) return [];
      return [{ label: 'part', data: { display: { is: 'placement', id: line.placement } }, grade: 'offered', edits }];
    })
    .slice(0, 2);
}

const why =
  'Frame buffer = width · height · bits per pixel / 8. The runtime, its stack and the radio are subtracted first; the program needs RAM as well.';

export const memoryOver: Check = {
  code: 'memory-over',
  question: 'Is there enough RAM for all frame buffers?',
  planWide: true,
  missing: 'setting',
  messages: {
    over: {
      title: 'Frame buffers use {used} of {free} RAM',
      text: 'Largest: {top}, {most}. The program fails to start or resets.',
      why,
    },
    little: { title: 'Frame buffers use {used} of {free} RAM', text: 'Largest: {top}, {most}. Little is left for the program.', why },
  },
  remedies: { part: 'Use a partial frame buffer for {display}' },
  examine: (context) => {
    const ledger = memoryLedger(context.plan, context.sheets);
    return ledger ? memoryFinding(context, { ...ledger, total: ledger.ramBytes }, (most) => lessOf(context, ledger.lines, most)) : [];
  },
};
