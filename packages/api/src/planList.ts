import Joi from 'joi';
import type { PlanState } from '@roof-chart/core/outputs/planState';
import { optional, strictObject } from '@roof-chart/core/sheets/strictObject';
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
  /** Not at work: listed after all others. */
  readonly archived?: true;
  /** Absent until the server has worked it out, and for a plan that misses a sheet. */
  readonly state?: PlanState;
}

/** A page of the plans, last changed first, archived ones after all others. */
export interface PlanList {
  readonly plans: readonly PlanSummary[];
  /** Of all pages. */
  readonly total: number;
}

const columnsSchema = Joi.array().items(wholeSchema);
const thumbnailSchema = strictObject<Thumbnail>({ columns: wholeSchema, rows: Joi.array().items(columnsSchema), clashes: columnsSchema });

const planStateSchema = strictObject<PlanState>({ wires: wholeSchema, ticked: wholeSchema, errors: wholeSchema, warnings: wholeSchema });

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
    archived: optional(Joi.valid(true)),
    state: optional(planStateSchema),
  }),
);

export const planListSchema = strictObject<PlanList>({ plans: Joi.array().items(planSummarySchema), total: wholeSchema });
