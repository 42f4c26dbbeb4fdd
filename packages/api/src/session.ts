import Joi from 'joi';
import { strictObject } from '@roof-chart/core/sheets/strictObject';

/** Whether a passphrase is required. */
export interface SessionState {
  readonly required: boolean;
}

/** Signs in; the response sets a cookie. */
export interface SignIn {
  readonly passphrase: string;
}

/** The longest passphrase, in characters. */
export const MAX_PASSPHRASE = 1000;

export const sessionStateSchema = strictObject<SessionState>({ required: Joi.boolean() });
export const signInSchema = strictObject<SignIn>({ passphrase: Joi.string().min(1).max(MAX_PASSPHRASE) });
