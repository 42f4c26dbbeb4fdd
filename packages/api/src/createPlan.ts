import { strictObject } from '@roof-chart/core/sheets/strictObject';
import { idSchema, nameSchema } from '@roof-chart/core/plan/planSchema';

/** A new plan on a board. */
export interface CreatePlan {
  readonly name: string;
  /** The board's sheet. */
  readonly board: string;
}

export const createPlanSchema = strictObject<CreatePlan>({ name: nameSchema, board: idSchema });
