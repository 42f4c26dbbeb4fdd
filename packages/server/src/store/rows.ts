import { EntitySchema } from 'typeorm';

/** A plan as stored: the document, and beside it what lists need without opening it. */
export interface PlanRow {
  id: string;
  name: string;
  board: string;
  parts: number;
  revision: number;
  document: string;
  /** SHA-256 of the document. */
  checksum: string;
  thumbnail: string;
  createdAt: string;
  updatedAt: string;
  deletedAt: string | null;
  archivedAt: string | null;
}

/** One acknowledged batch of edits with its inverse. */
export interface BatchRow {
  id: number;
  planId: string;
  /** Chosen by the client, so that a batch sent twice is done once. */
  batch: string;
  revision: number;
  /** Empty once the log was compacted: the base has taken these edits in. */
  edits: string;
  inverse: string;
  /** SHA-256 of the edits, so that a batch id with other content is noticed. */
  digest: string;
  /** What the user did, in words. */
  label: string | null;
  /** The browser and the tab it came from. */
  device: string | null;
  tab: string | null;
  at: string;
}

/** The plan that the log of a plan begins with: replaying the log on it gives the stored document. */
export interface BaseRow {
  planId: string;
  revision: number;
  document: string;
  checksum: string;
}

/** A fact about the database itself, such as its epoch. */
export interface SettingRow {
  key: string;
  value: string;
}

/** A saved version of a plan. */
export interface CheckpointRow {
  id: string;
  planId: string;
  name: string;
  revision: number;
  document: string;
  checksum: string;
  at: string;
}

/** One version of an own sheet. */
export interface SheetRow {
  /** `id@version` */
  key: string;
  id: string;
  version: number;
  document: string;
  checksum: string;
  at: string;
  /** A removed sheet stays on the disk: its version numbers are never given to another. */
  removedAt: string | null;
}

export const SheetEntity = new EntitySchema<SheetRow>({
  name: 'sheet',
  tableName: 'sheets',
  columns: {
    key: { type: 'text', primary: true },
    id: { type: 'text' },
    version: { type: 'integer' },
    document: { type: 'text' },
    checksum: { type: 'text' },
    at: { type: 'text' },
    removedAt: { type: 'text', name: 'removed_at', nullable: true },
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
    checksum: { type: 'text' },
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
    checksum: { type: 'text' },
    thumbnail: { type: 'text' },
    createdAt: { type: 'text', name: 'created_at' },
    updatedAt: { type: 'text', name: 'updated_at' },
    deletedAt: { type: 'text', name: 'deleted_at', nullable: true },
    archivedAt: { type: 'text', name: 'archived_at', nullable: true },
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
    digest: { type: 'text' },
    label: { type: 'text', nullable: true },
    device: { type: 'text', nullable: true },
    tab: { type: 'text', nullable: true },
    at: { type: 'text' },
  },
});

export const BaseEntity = new EntitySchema<BaseRow>({
  name: 'base',
  tableName: 'bases',
  columns: {
    planId: { type: 'text', name: 'plan_id', primary: true },
    revision: { type: 'integer' },
    document: { type: 'text' },
    checksum: { type: 'text' },
  },
});

export const SettingEntity = new EntitySchema<SettingRow>({
  name: 'setting',
  tableName: 'settings',
  columns: { key: { type: 'text', primary: true }, value: { type: 'text' } },
});
