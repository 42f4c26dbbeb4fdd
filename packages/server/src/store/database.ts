import { mkdirSync } from 'node:fs';
import { dirname } from 'node:path';
import { DataSource } from 'typeorm';
import { MIGRATIONS } from './migrations';
import { BatchEntity, CheckpointEntity, PlanEntity, SheetEntity } from './rows';

interface Pragmas {
  pragma(text: string): unknown;
}

/** Opens the SQLite file, creating it and its folder, and brings it to the newest schema.
 *  WAL with full sync: what was acknowledged survives a kill and a power cut.
 *  @throws the file system's or SQLite's error when the place cannot be written */
export async function openDatabase(file: string): Promise<DataSource> {
  mkdirSync(dirname(file), { recursive: true });
  const source = new DataSource({
    type: 'better-sqlite3',
    database: file,
    entities: [PlanEntity, BatchEntity, CheckpointEntity, SheetEntity],
    migrations: MIGRATIONS,
    migrationsTransactionMode: 'each',
    prepareDatabase: (database: Pragmas) => {
      database.pragma('journal_mode = WAL');
      database.pragma('synchronous = FULL');
      database.pragma('foreign_keys = ON');
      database.pragma('busy_timeout = 3000');
    },
  });
  await source.initialize();
  await source.runMigrations();
  return source;
}
