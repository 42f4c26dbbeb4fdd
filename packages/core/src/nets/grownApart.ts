import { growthOf } from '../plan/grown';
import { type Placement, type Plan, terminalKey } from '../plan/plan';
import { partSheet, type Sheets } from '../sheets/sheetIndex';
import { derived } from './derived';

/** That a plan has grown by one part that is wired to the board alone: of all other parts nothing has changed then, neither what they are
 *  wired to nor what their terminals stand for. */
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
  const isApart = part?.terminals.list.every((t) => plan.wires[terminalKey(placement.id, t.id)]?.end.to !== 'terminal');
  return isApart ? { base: growth.base, placement } : undefined;
});
