import Joi from 'joi';
import { type KeptSheet, keptSheetSchema } from './keptSheets';
import { message, wholeSchema } from './message';
import { publishedPlanSchema, type StoredPlan } from './storedPlan';

/** A plan made of a plan file, with what became of the sheets in it. */
export interface OpenedFile extends StoredPlan {
  readonly kept: readonly KeptSheet[];
}

export const openedFileSchema = message<OpenedFile>({
  plan: publishedPlanSchema,
  revision: wholeSchema,
  epoch: Joi.string(),
  recent: Joi.array().items(Joi.string()),
  kept: Joi.array().items(keptSheetSchema),
});
