import Joi from 'joi';
import { anySheetSchema } from './catalogue';
import { message, wholeSchema } from './message';

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

export const keepSheetsSchema = message<KeepSheets>({ sheets: Joi.array().items(anySheetSchema).min(1).max(50) });
export const keptSheetSchema = message<KeptSheet>({
  id: Joi.string(),
  version: wholeSchema,
  how: Joi.valid('new', 'changed', 'same'),
});
export const keptSheetsSchema = message<KeptSheets>({ sheets: Joi.array().items(keptSheetSchema) });
