import { idSchema, nameSchema } from '@roof-chart/core/plan/planSchema';
import { message } from './message';

/** A new plan on a board. */
export interface CreatePlan {
  readonly name: string;
  /** The board's sheet. */
  readonly board: string;
}

export const createPlanSchema = message<CreatePlan>({ name: nameSchema, board: idSchema });
