import { findNets } from '../src/nets/nets';
import type { Plan } from '../src/plan/plan';
import type { Sheets } from '../src/sheets/sheetIndex';

/** Whether every wire ends at its pin: those that go through a transistor or a divider end at that. */
export const isPlain = (plan: Plan): boolean =>
  Object.keys(plan.drivers).length === 0 && Object.values(plan.wires).every(({ end }) => end.to !== 'trimmer' && end.to !== 'divider');

/** Nets that were read back from a picture, without terminals that the nets leave out: those without a wire that have a component. */
export function knownNets(plan: Plan, sheets: Sheets, read: readonly string[]): readonly string[] {
  const { byTerminal } = findNets(plan, sheets);
  return read
    .map((keys) =>
      keys
        .split(' ')
        .filter((key) => byTerminal.has(key))
        .join(' '),
    )
    .filter((keys) => keys !== '')
    .toSorted();
}
