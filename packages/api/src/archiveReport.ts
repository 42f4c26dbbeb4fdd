import Joi from 'joi';
import { strictObject } from '@roof-chart/core/sheets/strictObject';
import { textSchema, wholeSchema } from './schemaParts';

/** What was not imported, with its place and reason. */
export interface SkippedEntry {
  readonly path: string;
  readonly fault: string;
}

/** The result of importing an archive. */
export interface ArchiveReport {
  readonly plans: number;
  readonly versions: number;
  readonly sheets: number;
  /** Plans that were there already, the same. */
  readonly same: number;
  readonly skipped: readonly SkippedEntry[];
}

const skippedSchema = strictObject<SkippedEntry>({ path: textSchema, fault: Joi.string() });

export const archiveReportSchema = strictObject<ArchiveReport>({
  plans: wholeSchema,
  versions: wholeSchema,
  sheets: wholeSchema,
  same: wholeSchema,
  skipped: Joi.array().items(skippedSchema),
});
