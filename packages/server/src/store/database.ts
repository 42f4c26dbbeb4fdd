import { orThrow } from '@roof-chart/core/collections/orThrow';
import { mkdirSync } from 'node:fs';
import { dirname } from 'node:path';
import type Database from 'better-sqlite3';
import { DataSource } from 'typeorm';
import { MIGRATIONS } from './migrations';
import { BaseEntity, BatchEntity, CheckpointEntity, PlanEntity, SettingEntity, SheetEntity } from './rows';

/** An open database: the mapper for entities, migrations and queries, and the driver's own connection under it. */
export interface OpenDatabase {
  readonly source: DataSource;
  /** Statements on it run at once, so nothing of ours can come between those of a transaction. */
  readonly connection: Database.Database;
}

/** How long a statement waits for another program that holds the file, in milliseconds. */
const BUSY_TIMEOUT_MS = 500;

/** Pages of the write-ahead log before it is taken into the database, 4 KiB each: a small log leaves room on a small disk. */
const LOG_PAGES = 250;

/** Opens the SQLite file, creating it and its folder, and brings it to the newest schema.
 *  WAL with full sync: what was acknowledged survives a kill and a power cut.
 *  @throws the file system's or SQLite's error when the place cannot be written */
export async function openDatabase(file: string): Promise<OpenDatabase> {
  mkdirSync(dirname(file), { recursive: true });
  let connection: Database.Database | undefined;
  const source = new DataSource({
    type: 'better-sqlite3',
    database: file,
    entities: [PlanEntity, BaseEntity, BatchEntity, CheckpointEntity, SheetEntity, SettingEntity],
    migrations: MIGRATIONS,
    migrationsTransactionMode: 'each',
    prepareDatabase: (database: Database.Database) => {
      connection = database;
      database.pragma('journal_mode = WAL');
      database.pragma('synchronous = FULL');
      database.pragma('foreign_keys = ON');
      database.pragma(`busy_timeout = ${BUSY_TIMEOUT_MS}`);
      database.pragma(`wal_autocheckpoint = ${LOG_PAGES}`);
    },
  });
  try {
    await source.initialize();
    await source.runMigrations();
    const opened = orThrow(connection, 'connection');
    opened.pragma('wal_checkpoint(TRUNCATE)');
    return { source, connection: opened };
  } catch (error) {
    connection?.close();
    throw error;
  }
}
