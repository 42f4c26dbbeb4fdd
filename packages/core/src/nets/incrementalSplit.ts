import { endPlacement } from '../plan/planRails';
import { incrementOf } from '../plan/increment';
import { type Placement, type Plan, terminalKey } from '../plan/plan';
import { partSheet, type Sheets } from '../sheets/sheetIndex';
import { memoizeByPair } from '../memo/memoizeByPair';

/** A plan that gained one part wired only to the board: the wires and roles of all other parts are unchanged. */
export interface IncrementalSplit {
  readonly base: Plan;
  readonly placement: Placement;
}

/** What a plan has grown from, if the part that came is wired to no other part. */
export const incrementalSplit = memoizeByPair((plan: Plan, sheets: Sheets): IncrementalSplit | undefined => {
  const increment = incrementOf(plan);
  const placement = plan.placements.at(-1);
  if (!increment || placement?.id !== increment.placement) return undefined;
  const part = partSheet(sheets, placement.sheet)?.sheet;
  const isApart =
    !part?.supplies &&
    part?.terminals.list.every((t) => {
      const end = plan.wires[terminalKey(placement.id, t.id)]?.end;
      return end === undefined || endPlacement(end) === undefined;
    });
  return isApart ? { base: increment.base, placement } : undefined;
});
