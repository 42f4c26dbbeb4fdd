import { EntitySchema } from 'typeorm';

/** A plan as stored: the document, and beside it what lists need without opening it. */
export interface PlanRow {
  id: string;
  name: string;
  board: string;
  parts: number;
  revision: number;
  document: string;
  thumbnail: string;
  createdAt: string;
  updatedAt: string;
  deletedAt: string | null;
}

/** One acknowledged batch of edits: what was done, and what takes it back. */
export interface BatchRow {
  id: number;
  planId: string;
  /** Chosen by the client, so that a batch sent twice is done once. */
  batch: string;
  revision: number;
  edits: string;
  inverse: string;
  at: string;
}

/** A named version of a plan that the builder keeps. */
export interface CheckpointRow {
  id: string;
  planId: string;
  name: string;
  revision: number;
  document: string;
  at: string;
}

/** One version of a sheet of the builder's own. */
export interface SheetRow {
  /** `id@version` */
  key: string;
  id: string;
  version: number;
  document: string;
  at: string;
}

export const SheetEntity = new EntitySchema<SheetRow>({
  name: 'sheet',
  tableName: 'sheets',
  columns: {
    key: { type: 'text', primary: true },
    id: { type: 'text' },
    version: { type: 'integer' },
    document: { type: 'text' },
    at: { type: 'text' },
  },
});

export const CheckpointEntity = new EntitySchema<CheckpointRow>({
  name: 'checkpoint',
  tableName: 'checkpoints',
  columns: {
    id: { type: 'text', primary: true },
    planId: { type: 'text', name: 'plan_id' },
    name: { type: 'text' },
    revision: { type: 'integer' },
    document: { type: 'text' },
    at: { type: 'text' },
  },
});

export const PlanEntity = new EntitySchema<PlanRow>({
  name: 'plan',
  tableName: 'plans',
  columns: {
    id: { type: 'text', primary: true },
    name: { type: 'text' },
    board: { type: 'text' },
    parts: { type: 'integer' },
    revision: { type: 'integer' },
    document: { type: 'text' },
    thumbnail: { type: 'text' },
    createdAt: { type: 'text', name: 'created_at' },
    updatedAt: { type: 'text', name: 'updated_at' },
    deletedAt: { type: 'text', name: 'deleted_at', nullable: true },
  },
});

export const BatchEntity = new EntitySchema<BatchRow>({
  name: 'batch',
  tableName: 'batches',
  columns: {
    id: { type: 'integer', primary: true, generated: 'increment' },
    planId: { type: 'text', name: 'plan_id' },
    batch: { type: 'text' },
    revision: { type: 'integer' },
    edits: { type: 'text' },
    inverse: { type: 'text' },
    at: { type: 'text' },
  },
});
