import type { Edit } from '../../plan/edit';
import type { HolePlace, Plan } from '../../plan/plan';
import type { Sheets } from '../../sheets/sheetIndex';
import { rowsOf } from './breadboard';
import { holePlan, type PlacedItem } from './holePlan';

/** How an item is moved: to a row, by rows, or to the other half; what lies across the gap is turned half round instead. */
export type ItemMove = { readonly to: number } | { readonly by: number } | 'across';

const OTHER_SIDE: { readonly [S in PlacedItem['side']]: PlacedItem['side'] } = { ae: 'fj', fj: 'ae', across: 'turned', turned: 'across' };

/** The edit that puts an item elsewhere on the breadboard and locks it there. Undefined for what has no place. */
export function moveItem(plan: Plan, sheets: Sheets, item: string, move: ItemMove): Edit | undefined {
  const holes = holePlan(plan, sheets);
  const placed = holes?.items.find(({ id }) => id === item);
  if (!holes || !placed) return undefined;
  const wanted = move === 'across' ? placed.row : 'to' in move ? move.to : placed.row + move.by;
  const row = Math.min(rowsOf(holes.breadboard), Math.max(1, wanted));
  const place: HolePlace = { side: move === 'across' ? OTHER_SIDE[placed.side] : placed.side, row, locked: true };
  return { kind: 'place', item, place };
}
