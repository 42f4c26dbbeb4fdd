import type { IndexedBoard, Sheets } from '../sheets/sheetIndex';
import type { PartSheet } from '../sheets/partSheet';
import type { Placement, Plan } from './plan';

/** A plan with what its reports are worked out from: its sheets, and its board with the rails and buses that the plan adds to it. */
export interface PlanContext {
  readonly plan: Plan;
  readonly sheets: Sheets;
  readonly board: IndexedBoard;
}

/** A plan and its board: what is decided without the sheets of other parts. */
export type PlanOnBoard = Omit<PlanContext, 'sheets'>;

/** A part in its place in the plan, with its sheet. */
export interface PlacedPart {
  readonly placement: Placement;
  readonly part: PartSheet;
}
