import Joi from 'joi';
import { optional, strictObject } from '@roof-chart/core/sheets/strictObject';
import { named, textSchema } from './schemaParts';

/** What went wrong with a request, for people and programs. */
export interface ApiProblem {
  readonly code: string;
  readonly message: string;
  /** The place in the request. */
  readonly path?: string;
  readonly expected?: string;
  readonly got?: string;
}

/** The body of every refusal. */
export interface Refusal {
  readonly error: ApiProblem;
}

export const problemSchema = strictObject<ApiProblem>({
  code: Joi.string(),
  message: Joi.string(),
  path: optional(textSchema),
  expected: optional(textSchema),
  got: optional(textSchema),
});

export const refusalSchema = named('Problem', strictObject<Refusal>({ error: problemSchema }));
