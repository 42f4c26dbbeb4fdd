import Joi from 'joi';
import { message, textSchema, wholeSchema } from './message';

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

const skippedSchema = message<SkippedEntry>({ path: textSchema, fault: Joi.string() });

export const archiveReportSchema = message<ArchiveReport>({
  plans: wholeSchema,
  versions: wholeSchema,
  sheets: wholeSchema,
  same: wholeSchema,
  skipped: Joi.array().items(skippedSchema),
});
