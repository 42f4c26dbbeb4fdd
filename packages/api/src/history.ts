import Joi from 'joi';
import type { Edit } from '@roof-chart/core/plan/edit';
import { editSchema } from '@roof-chart/core/plan/editSchema';
import { message, named, timeSchema, wholeSchema } from './message';

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

export const historySchema = message<History>({ entries: Joi.array().items(named('HistoryEntry', message<HistoryEntry>(entry))) });
export const historyStepSchema = message<HistoryStep>({ ...entry, edits, inverse: edits });
