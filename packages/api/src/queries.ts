import Joi from 'joi';
import { message } from './message';

/** A page of the list of plans. */
export interface PageQuery {
  readonly limit?: string;
  readonly offset?: string;
}

/** A page of a history: only revisions below this one. */
export interface HistoryQuery {
  readonly before?: string;
}

/** A whole number in a URL. @param digits at most */
export const wholeNumber = (digits: number): Joi.StringSchema =>
  Joi.string().pattern(new RegExp(`^\\d{1,${digits}}$`), `${digits}-digit whole number`);

export const pageQuerySchema = message<PageQuery>({}, { limit: wholeNumber(3), offset: wholeNumber(6) });
export const historyQuerySchema = message<HistoryQuery>({}, { before: wholeNumber(9) });
