import Joi from 'joi';
import { strictObject } from '@roof-chart/core/sheets/strictObject';
import type { Thumbnail } from '@roof-chart/core/outputs/thumbnail';
import { named, timeSchema, wholeSchema } from './schemaParts';

/** A plan in the list of plans. */
export interface PlanSummary {
  readonly id: string;
  readonly name: string;
  /** Its board's sheet. */
  readonly board: string;
  /** Number of its parts. */
  readonly parts: number;
  readonly revision: number;
  readonly updatedAt: string;
  readonly thumbnail: Thumbnail;
}

/** A page of the plans, last changed first. */
export interface PlanList {
  readonly plans: readonly PlanSummary[];
  /** Of all pages. */
  readonly total: number;
}

const columnsSchema = Joi.array().items(wholeSchema);
const thumbnailSchema = strictObject<Thumbnail>({ columns: wholeSchema, rows: Joi.array().items(columnsSchema), clashes: columnsSchema });

const planSummarySchema = named(
  'PlanSummary',
  strictObject<PlanSummary>({
    id: Joi.string(),
    name: Joi.string(),
    board: Joi.string(),
    parts: wholeSchema,
    revision: wholeSchema,
    updatedAt: timeSchema,
    thumbnail: thumbnailSchema,
  }),
);

export const planListSchema = strictObject<PlanList>({ plans: Joi.array().items(planSummarySchema), total: wholeSchema });
