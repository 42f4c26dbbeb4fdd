import Joi from 'joi';
import { strictObject } from '@roof-chart/core/sheets/strictObject';
import type { BoardSheet } from '@roof-chart/core/sheets/boardSheet';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import { named } from './schemaParts';

/** Every version of every sheet, and the ids of the user's own. */
export interface Catalogue {
  readonly sheets: readonly (BoardSheet | PartSheet)[];
  readonly own: readonly string[];
}

/** A sheet on its way: its own schema, which is published with the sheets, is applied where sheets are read. */
export const anySheetSchema = named('Sheet', Joi.object().unknown());

export const catalogueSchema = strictObject<Catalogue>({ sheets: Joi.array().items(anySheetSchema), own: Joi.array().items(Joi.string()) });
