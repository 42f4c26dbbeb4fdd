import Joi from 'joi';
import { strictObject } from '@roof-chart/core/sheets/strictObject';
import { wholeSchema } from './schemaParts';

/** Data of the event `revision`: what a plan is at now. */
export interface RevisionEvent {
  readonly revision: number;
  readonly epoch: string;
}

/** Data of the event `gone`: there is no such plan. */
export interface GoneEvent {
  readonly epoch: string;
}

export const revisionEventSchema = strictObject<RevisionEvent>({ revision: wholeSchema, epoch: Joi.string() });
export const goneEventSchema = strictObject<GoneEvent>({ epoch: Joi.string() });
