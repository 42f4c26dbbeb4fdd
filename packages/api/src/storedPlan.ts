import Joi from 'joi';
import { strictObject } from '@roof-chart/core/sheets/strictObject';
import type { Plan } from '@roof-chart/core/plan/plan';
import { planSchema } from '@roof-chart/core/plan/planSchema';
import { named, wholeSchema } from './schemaParts';
import { problemSchema, type Refusal } from './problem';

/** A plan as the server holds it. */
export interface StoredPlan {
  readonly plan: Plan;
  readonly revision: number;
  /** The life of the server's database that the revision counts in: another one after a backup is restored. */
  readonly epoch: string;
  /** Ids of the latest batches, newest first: a client that lost an answer learns that its batch is in. */
  readonly recent: readonly string[];
}

export const publishedPlanSchema = named('Plan', planSchema);

export const storedPlanFields = {
  plan: publishedPlanSchema,
  revision: wholeSchema,
  epoch: Joi.string(),
  recent: Joi.array().items(Joi.string()),
} as const;

export const storedPlanSchema = named('StoredPlan', strictObject<StoredPlan>(storedPlanFields));

/** The plan has changed since: what it is now. */
export type StalePlan = StoredPlan & Refusal;

export const stalePlanSchema = strictObject<StalePlan>({ ...storedPlanFields, error: problemSchema });
