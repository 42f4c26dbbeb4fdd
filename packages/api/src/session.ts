import Joi from 'joi';
import { strictObject } from '@roof-chart/core/sheets/strictObject';

export interface SessionState {
  /** Whether a passphrase is required. */
  readonly required: boolean;
  /** Where another device in the network reaches this server, the likeliest first: `http://192.168.1.20:4310`. None on loopback. */
  readonly addresses: readonly string[];
}

/** Signs in; the response sets a cookie. */
export interface SignIn {
  readonly passphrase: string;
}

/** The longest passphrase, in characters. */
export const MAX_PASSPHRASE = 1000;

export const sessionStateSchema = strictObject<SessionState>({
  required: Joi.boolean(),
  addresses: Joi.array().items(Joi.string().uri({ scheme: ['http'] })),
});
export const signInSchema = strictObject<SignIn>({ passphrase: Joi.string().min(1).max(MAX_PASSPHRASE) });
