import Joi from 'joi';
import { strictObject } from '@roof-chart/core/sheets/strictObject';
import { wholeSchema } from './schemaParts';

/** A plan that uses a sheet. */
export interface SheetUse {
  readonly plan: string;
  readonly name: string;
  /** Versions of the sheet that the plan was made with. */
  readonly versions: readonly number[];
  /** Deleted plans and saved versions can be restored. */
  readonly where: 'plan' | 'deleted plan' | 'saved version';
}

export interface SheetUses {
  readonly plans: readonly SheetUse[];
}

const sheetUseSchema = strictObject<SheetUse>({
  plan: Joi.string(),
  name: Joi.string(),
  versions: Joi.array().items(wholeSchema),
  where: Joi.valid('plan', 'deleted plan', 'saved version'),
});

export const sheetUsesSchema = strictObject<SheetUses>({ plans: Joi.array().items(sheetUseSchema) });
