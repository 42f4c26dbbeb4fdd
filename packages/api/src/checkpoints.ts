import Joi from 'joi';
import { strictObject } from '@roof-chart/core/sheets/strictObject';
import type { Plan } from '@roof-chart/core/plan/plan';
import { nameSchema } from '@roof-chart/core/plan/planSchema';
import { named, timeSchema, wholeSchema } from './schemaParts';
import { publishedPlanSchema } from './storedPlan';

/** A saved version of a plan. */
export interface Checkpoint {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  readonly at: string;
}

/** The saved versions of a plan, newest first. */
export interface CheckpointList {
  readonly checkpoints: readonly Checkpoint[];
}

/** One saved version with its plan. */
export interface CheckpointPlan extends Checkpoint {
  readonly plan: Plan;
}

/** Saves the current plan as a version of this name. */
export interface KeepCheckpoint {
  readonly name: string;
}

const fields = { id: Joi.string(), name: Joi.string(), revision: wholeSchema, at: timeSchema } as const;

export const checkpointSchema = named('Checkpoint', strictObject<Checkpoint>(fields));
export const checkpointListSchema = strictObject<CheckpointList>({ checkpoints: Joi.array().items(checkpointSchema) });
export const checkpointPlanSchema = strictObject<CheckpointPlan>({ ...fields, plan: publishedPlanSchema });
export const keepCheckpointSchema = strictObject<KeepCheckpoint>({ name: nameSchema });
