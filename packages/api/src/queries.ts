import Joi from 'joi';
import { optional, strictObject } from '@roof-chart/core/sheets/strictObject';

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

export const pageQuerySchema = strictObject<PageQuery>({ limit: optional(wholeNumber(3)), offset: optional(wholeNumber(6)) });
export const historyQuerySchema = strictObject<HistoryQuery>({ before: optional(wholeNumber(9)) });
