import Joi from 'joi';
import { strictObject } from '@roof-chart/core/sheets/strictObject';

/** Batches that a client has and does not know about. */
export interface TakenRequest {
  readonly batches: readonly string[];
}

/** Those of them that are stored. */
export interface TakenAnswer {
  readonly taken: readonly string[];
}

export const takenRequestSchema = strictObject<TakenRequest>({ batches: Joi.array().items(Joi.string().guid()).max(5000) });
export const takenAnswerSchema = strictObject<TakenAnswer>({ taken: Joi.array().items(Joi.string()) });
