import { endPlacement } from '../plan/planRails';
import { growthOf } from '../plan/grown';
import { type Placement, type Plan, terminalKey } from '../plan/plan';
import { partSheet, type Sheets } from '../sheets/sheetIndex';
import { derived } from './derived';

/** A plan that gained one part wired only to the board: the wires and roles of all other parts are unchanged. */
export interface GrownApart {
  readonly base: Plan;
  readonly placement: Placement;
}

/** What a plan has grown from, if the part that came is wired to no other part. */
export const grownApart = derived((plan: Plan, sheets: Sheets): GrownApart | undefined => {
  const growth = growthOf(plan);
  const placement = plan.placements.at(-1);
  if (!growth || placement?.id !== growth.placement) return undefined;
  const part = partSheet(sheets, placement.sheet)?.sheet;
  const isApart =
    !part?.supplies &&
    part?.terminals.list.every((t) => {
      const end = plan.wires[terminalKey(placement.id, t.id)]?.end;
      return end === undefined || endPlacement(end) === undefined;
    });
  return isApart ? { base: growth.base, placement } : undefined;
});
