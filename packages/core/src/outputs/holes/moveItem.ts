import { atOrThrow } from '../../collections/orThrow';
import type { Edit } from '../../plan/edit';
import type { HolePlace, Plan } from '../../plan/plan';
import type { Sheets } from '../../sheets/sheetIndex';
import { alongLane, laneRows } from './breadboard';
import { holePlan, type HolePlan, type PlacedItem } from './holePlan';
import type { SideOption } from './variants';

/** How an item is moved: to a row of its lane, by rows, to the next half that it can lie in, or to one that is chosen; what lies across the gap
 *  is turned half round instead. */
export type ItemMove = { readonly to: number } | { readonly by: number } | 'across' | { readonly as: SideOption };

/** How an item lies now, of the ways that it can. */
export function sideOptionOf({ breadboard }: HolePlan, { side, row, sideOptions }: PlacedItem): number {
  return sideOptions.findIndex((one) => one.side === side && one.rowOffset === row - alongLane(breadboard, row));
}

/** The row that a move leads to from another one of the lane, which may be beyond its ends. */
function rowAfter(along: number, move: ItemMove): number {
  if (move === 'across' || 'as' in move) return along;
  return 'to' in move ? move.to : along + move.by;
}

function movedTo(holes: HolePlan, item: PlacedItem, move: ItemMove): Pick<HolePlace, 'side' | 'row'> {
  const { breadboard } = holes;
  const { row, sideOptions } = item;
  const now = sideOptionOf(holes, item);
  const next =
    move !== 'across' && 'as' in move ? move.as : atOrThrow(sideOptions, move === 'across' ? (now + 1) % sideOptions.length : now);
  const along = Math.min(laneRows(breadboard), Math.max(1, rowAfter(alongLane(breadboard, row), move)));
  return { side: next.side, row: next.rowOffset + along };
}

/** The edit that puts an item elsewhere on the breadboard and locks it there. Undefined for what has no place. */
export function moveItem(plan: Plan, sheets: Sheets, item: string, move: ItemMove): Edit | undefined {
  const holes = holePlan(plan, sheets);
  const placed = holes?.items.find(({ id }) => id === item);
  return holes && placed && { kind: 'place', item, place: { ...movedTo(holes, placed, move), locked: true } };
}
