import Joi from 'joi';
import type { Plan } from '@roof-chart/core/plan/plan';
import { nameSchema } from '@roof-chart/core/plan/planSchema';
import { message, named, timeSchema, wholeSchema } from './message';
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

export const checkpointSchema = named('Checkpoint', message<Checkpoint>(fields));
export const checkpointListSchema = message<CheckpointList>({ checkpoints: Joi.array().items(checkpointSchema) });
export const checkpointPlanSchema = message<CheckpointPlan>({ ...fields, plan: publishedPlanSchema });
export const keepCheckpointSchema = message<KeepCheckpoint>({ name: nameSchema });
