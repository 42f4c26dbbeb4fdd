import type { IndexedBoard, Sheets } from '../sheets/sheetIndex';
import type { Plan } from './plan';

/** A plan with what its reports are worked out from: its sheets, and its board with the rails and buses that the plan adds to it. */
export interface PlanContext {
  readonly plan: Plan;
  readonly sheets: Sheets;
  readonly board: IndexedBoard;
}
