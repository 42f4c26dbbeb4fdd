import Joi from 'joi';
import { strictObject } from '@roof-chart/core/sheets/strictObject';
import { anySheetSchema } from './catalogue';
import { wholeSchema } from './schemaParts';

/** Saves own sheets, all or none, each as the next version of its id. */
export interface KeepSheets {
  readonly sheets: readonly unknown[];
}

/** What became of a sheet. */
export interface KeptSheet {
  readonly id: string;
  readonly version: number;
  /** `same`: identical to the stored version. */
  readonly how: 'new' | 'changed' | 'same';
}

export interface KeptSheets {
  readonly sheets: readonly KeptSheet[];
}

export const keepSheetsSchema = strictObject<KeepSheets>({ sheets: Joi.array().items(anySheetSchema).min(1).max(50) });
export const keptSheetSchema = strictObject<KeptSheet>({
  id: Joi.string(),
  version: wholeSchema,
  how: Joi.valid('new', 'changed', 'same'),
});
export const keptSheetsSchema = strictObject<KeptSheets>({ sheets: Joi.array().items(keptSheetSchema) });
