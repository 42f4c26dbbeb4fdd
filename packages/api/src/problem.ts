import Joi from 'joi';
import { message, named, textSchema } from './message';

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

const problemSchema = message<ApiProblem>(
  { code: Joi.string(), message: Joi.string() },
  { path: textSchema, expected: textSchema, got: textSchema },
);

export const refusalSchema = named('Problem', message<Refusal>({ error: problemSchema }));
