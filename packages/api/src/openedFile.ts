import Joi from 'joi';
import { strictObject } from '@roof-chart/core/sheets/strictObject';
import { type KeptSheet, keptSheetSchema } from './keptSheets';
import { type StoredPlan, storedPlanFields } from './storedPlan';

/** A plan made of a plan file, with what became of the sheets in it. */
export interface OpenedFile extends StoredPlan {
  readonly kept: readonly KeptSheet[];
}

export const openedFileSchema = strictObject<OpenedFile>({
  ...storedPlanFields,
  kept: Joi.array().items(keptSheetSchema),
});
