import Joi from 'joi';
import { message, wholeSchema } from './message';

/** Data of the event `revision`: what a plan is at now. */
export interface RevisionEvent {
  readonly revision: number;
  readonly epoch: string;
}

/** Data of the event `gone`: there is no such plan. */
export interface GoneEvent {
  readonly epoch: string;
}

export const revisionEventSchema = message<RevisionEvent>({ revision: wholeSchema, epoch: Joi.string() });
export const goneEventSchema = message<GoneEvent>({ epoch: Joi.string() });
