import type { Edit } from '../../plan/edit';
import type { Plan } from '../../plan/plan';
import { PITCH_MM } from '../../sheets/shape';

/** Distances of two rows of pins that a breadboard has holes for, in millimetres. */
export const ROW_DISTANCES_MM: readonly number[] = [3, 4, 5, 6, 7, 8, 9, 10].map((pitches) => Math.round(pitches * PITCH_MM * 100) / 100);

/** The edit that states how far the two rows of a module are apart, as measured. Undefined for what is no part of the plan.
 *  @param date as 2026-12-01 */
export function rowDistanceEdit(plan: Plan, item: string, mm: number, date: string): Edit | undefined {
  const placement = plan.placements.find(({ id }) => id === item);
  const note = { value: mm, words: 'measured from row to row', date };
  return placement && { kind: 'bench-note', sheet: placement.sheet.id, fact: 'shape/rowsMm', note };
}
