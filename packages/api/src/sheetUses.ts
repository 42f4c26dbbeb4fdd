import Joi from 'joi';
import { message, wholeSchema } from './message';

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

const sheetUseSchema = message<SheetUse>({
  plan: Joi.string(),
  name: Joi.string(),
  versions: Joi.array().items(wholeSchema),
  where: Joi.valid('plan', 'deleted plan', 'saved version'),
});

export const sheetUsesSchema = message<SheetUses>({ plans: Joi.array().items(sheetUseSchema) });
