import { has } from '../../collections/has';
import { entryOrThrow } from '../../collections/orThrow';
import type { Edit } from '../../plan/edit';
import type { Readout } from '../../plan/plan';
import { type FlashLedger, flashLedger } from '../../displays/flash';
import type { Check, CheckContext, Remedy } from '../engine/check';
import { memoryFinding } from './memoryFinding';

/** The largest picture left out, where that is enough. */
function without({ plan }: CheckContext, { lines, usedBytes }: FlashLedger, most: number): readonly Remedy[] {
  const top = lines.filter(has('name')).toSorted((a, b) => b.bytes - a.bytes)[0];
  if (!top || usedBytes - top.bytes > most) return [];
  const readout = entryOrThrow(plan.readouts, top.placement);
  const pictures = (readout.pictures ?? []).filter((one) => one.name !== top.name || one.bytes !== top.bytes);
  const { pictures: _all, ...rest } = readout;
  const kept: Readout = pictures.length > 0 ? { ...rest, pictures } : rest;
  const edits: readonly Edit[] = [{ kind: 'readout', placement: top.placement, readout: Object.keys(kept).length > 0 ? kept : null }];
  return [{ label: 'leave-out', data: { picture: { is: 'words', text: top.name } }, grade: 'offered', edits }];
}

const why =
  'Size = width · height · bits per pixel / 8. Pictures, fonts and tables share the flash with the program and the boot loader. Fewer bits per pixel or a smaller picture need less.';

export const flashOver: Check = {
  code: 'flash-over',
  question: 'Is there enough flash for pictures and fonts?',
  planWide: true,
  missing: 'setting',
  messages: {
    over: { title: 'Pictures use {used} of {free} flash', text: 'Largest: {top}, {most}. The program does not fit.', why },
    little: { title: 'Pictures use {used} of {free} flash', text: 'Largest: {top}, {most}. Little is left for the program.', why },
  },
  remedies: { 'leave-out': 'Remove the picture {picture}' },
  examine: (context) => {
    const ledger = flashLedger(context.plan, context.sheets);
    // Boards with an operating system have none: their programs are stored on a card.
    return ledger ? memoryFinding(context, { ...ledger, total: ledger.flashBytes }, (most) => without(context, ledger, most)) : [];
  },
};
