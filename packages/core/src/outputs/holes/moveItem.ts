import type { Edit } from '../../plan/edit';
import type { HolePlace, Plan } from '../../plan/plan';
import type { Sheets } from '../../sheets/sheetIndex';
import { isSideBySide, rowOnBoard, rowsOf } from './breadboard';
import { holePlan, type HolePlan, type PlacedItem } from './holePlan';
import type { Lying } from './variants';

/** How an item is moved: to a row, by rows, to the next half that it can lie in, or as it is chosen; what lies across the gap is turned half
 *  round instead. */
export type ItemMove = { readonly to: number } | { readonly by: number } | 'across' | { readonly as: Lying };

/** Where an item goes on lying another way, in the same row of the board. */
function laid({ breadboard }: HolePlan, { row }: PlacedItem, { side, rowOffset }: Lying): Pick<HolePlace, 'side' | 'row'> {
  const local = isSideBySide(breadboard) ? rowOnBoard(breadboard, row)[1] : row;
  return { side, row: local + rowOffset };
}

/** How an item lies now, of the ways that it can. */
export function lyingOf({ breadboard }: HolePlan, { side, row, lyings }: PlacedItem): number {
  const rowOffset = isSideBySide(breadboard) ? breadboard.rows * rowOnBoard(breadboard, row)[0] : 0;
  return lyings.findIndex((one) => one.side === side && one.rowOffset === rowOffset);
}

function movedTo(holes: HolePlan, item: PlacedItem, move: ItemMove): Pick<HolePlace, 'side' | 'row'> {
  if (move === 'across') return laid(holes, item, item.lyings[(lyingOf(holes, item) + 1) % item.lyings.length]!);
  if ('as' in move) return laid(holes, item, move.as);
  const wanted = 'to' in move ? move.to : item.row + move.by;
  return { side: item.side, row: Math.min(rowsOf(holes.breadboard), Math.max(1, wanted)) };
}

/** The edit that puts an item elsewhere on the breadboard and locks it there. Undefined for what has no place. */
export function moveItem(plan: Plan, sheets: Sheets, item: string, move: ItemMove): Edit | undefined {
  const holes = holePlan(plan, sheets);
  const placed = holes?.items.find(({ id }) => id === item);
  return holes && placed && { kind: 'place', item, place: { ...movedTo(holes, placed, move), locked: true } };
}
