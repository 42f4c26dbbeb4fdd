import { chainsOf } from '../nets/chains';
import { memoizeByPair } from '../memo/memoizeByPair';
import type { Placement, Plan } from '../plan/plan';
import type { PartSheet } from '../sheets/partSheet';
import { partSheet, type Sheets } from '../sheets/sheetIndex';

/** A display as it is seen: one part, or equal parts of a chain side by side. */
export interface SeenDisplay {
  /** The part that keeps what is shown: the first of a chain. */
  readonly placement: Placement;
  /** The sheet of the part; of a chain with the columns of all. */
  readonly part: PartSheet;
  /** In the order of the chain, which is the order from left to right. */
  readonly members: readonly Placement[];
}

/** One display from the parts of a chain; undefined where they differ, or where a further one shows something of its own. */
function chained(plan: Plan, sheets: Sheets, members: readonly Placement[]): SeenDisplay | undefined {
  const [first, ...others] = members;
  const part = first && partSheet(sheets, first.sheet)?.sheet;
  if (!first || !part?.readout || others.length === 0) return undefined;
  if (others.some(({ id, sheet }) => sheet.id !== part.id || plan.readouts[id] !== undefined)) return undefined;
  const { readout } = part;
  const columns = readout.columns * members.length;
  const colons = readout.colons && members.flatMap((_, at) => readout.colons?.map((digit) => digit + at * readout.columns) ?? []);
  return { placement: first, part: { ...part, readout: { ...readout, columns, ...(colons ? { colons } : {}) } }, members };
}

/** Every display of a plan as it is seen, in the order of the plan: modules of a chain, as long as the further ones show nothing of their
 *  own, are one. */
export const seenDisplays = memoizeByPair((plan: Plan, sheets: Sheets): readonly SeenDisplay[] => {
  const chains = chainsOf(plan, sheets).flatMap(({ members, circle }) => (circle ? [] : (chained(plan, sheets, members) ?? [])));
  const behind = new Set(chains.flatMap(({ members }) => members.slice(1).map(({ id }) => id)));
  return plan.placements.flatMap((placement): SeenDisplay[] => {
    const part = partSheet(sheets, placement.sheet)?.sheet;
    if (!part?.readout || behind.has(placement.id)) return [];
    return [chains.find((one) => one.placement.id === placement.id) ?? { placement, part, members: [placement] }];
  });
});
