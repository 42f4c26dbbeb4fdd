import Joi from 'joi';
import { optional, strictObject } from '@roof-chart/core/sheets/strictObject';
import type { Edit } from '@roof-chart/core/plan/edit';
import { editsSchema } from '@roof-chart/core/plan/editSchema';
import { idSchema, nameSchema } from '@roof-chart/core/plan/planSchema';
import { named, wholeSchema } from './schemaParts';
import { problemSchema, type Refusal } from './problem';

/** One thing the user did, under an id that the client chose: sent twice, it is done once. */
export interface SentBatch {
  readonly batch: string;
  readonly edits: readonly Edit[];
  /** What the user did, in words; without it what differs afterwards. */
  readonly label?: string;
}

/** The browser and the tab that edits come from, as the history shows them. */
export interface Client {
  readonly device: string;
  readonly tab: string;
}

/** Batches of edits, applied in order, each whole or not at all. */
export interface EditRequest {
  readonly batches: readonly SentBatch[];
  readonly client?: Client;
}

/** The revision after edits. */
export interface EditAnswer {
  readonly revision: number;
}

/** An edit cannot be applied: so many batches before it are done, at this revision. */
export interface RefusedEdits extends Refusal {
  readonly done: number;
  readonly revision: number;
}

/** The longest label of a batch, in characters. */
export const LABEL_LENGTH = 300;

const sentBatchSchema = named(
  'Batch',
  strictObject<SentBatch>({ batch: Joi.string().guid(), edits: editsSchema, label: optional(nameSchema.max(LABEL_LENGTH)) }),
);
const clientSchema = strictObject<Client>({ device: nameSchema, tab: idSchema });

export const editRequestSchema = strictObject<EditRequest>({
  batches: Joi.array().items(sentBatchSchema).unique('batch').min(1).max(500),
  client: optional(clientSchema),
});

export const editAnswerSchema = strictObject<EditAnswer>({ revision: wholeSchema });

export const refusedEditsSchema = strictObject<RefusedEdits>({
  error: problemSchema,
  done: wholeSchema,
  revision: wholeSchema,
});
