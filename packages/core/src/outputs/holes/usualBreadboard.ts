import { boardOf } from '../../plan/edit';
import type { Breadboard, Plan } from '../../plan/plan';
import type { Sheets } from '../../sheets/sheetIndex';
import { boardFootprint } from './footprint';

/** The breadboard that most people have, with 63 rows; two of them side by side for a microcontroller board that is too wide for one. */
export function usualBreadboard(plan: Plan, sheets: Sheets): Breadboard {
  const board = boardOf(plan, sheets);
  const plugged = board && boardFootprint(board.sheet);
  const usual: Breadboard = { rows: 63, boards: 1, rails: 'whole' };
  return plugged && !plugged.ok && plugged.overTwo ? { ...usual, boards: 2, arrangement: 'side by side' } : usual;
}
