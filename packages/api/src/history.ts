import Joi from 'joi';
import { strictObject } from '@roof-chart/core/sheets/strictObject';
import type { Edit } from '@roof-chart/core/plan/edit';
import { editSchema } from '@roof-chart/core/plan/editSchema';
import { named, timeSchema, wholeSchema } from './schemaParts';

/** One line of a plan's history. */
export interface HistoryEntry {
  readonly revision: number;
  readonly at: string;
  readonly label: string | null;
  readonly device: string | null;
  readonly tab: string | null;
  /** Whether the log still contains its edits, so that they can be reverted. */
  readonly kept: boolean;
}

/** A page of a plan's history, newest first. */
export interface History {
  readonly entries: readonly HistoryEntry[];
}

/** One step of the history with its edits and their inverse. */
export interface HistoryStep extends HistoryEntry {
  readonly edits: readonly Edit[];
  readonly inverse: readonly Edit[];
}

const entry = {
  revision: wholeSchema,
  at: timeSchema,
  label: Joi.string().allow(null),
  device: Joi.string().allow(null),
  tab: Joi.string().allow(null),
  kept: Joi.boolean(),
} as const;
const edits = Joi.array().items(named('Edit', editSchema));

export const historySchema = strictObject<History>({
  entries: Joi.array().items(named('HistoryEntry', strictObject<HistoryEntry>(entry))),
});
export const historyStepSchema = strictObject<HistoryStep>({ ...entry, edits, inverse: edits });
