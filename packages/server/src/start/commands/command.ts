import { existsSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { readCatalogue } from '@roof-chart/catalogue/readCatalogue';
import { databaseFile } from '../../safety/dataFolder';
import { databaseState } from '../../safety/databaseState';
import { FolderHeld, type FolderLock, lockFolder } from '../../safety/folderLock';
import { openDatabase, type OpenDatabase } from '../../store/database';
import { CommandFault } from './commandFault';

/** One command of the server's program. */
export interface Command {
  readonly name: string;
  /** How it is called, and what it does, in one line each. */
  readonly usage: string;
  readonly summary: string;
  run(args: string[]): Promise<void>;
}

export const root = resolve(dirname(fileURLToPath(import.meta.url)), '../../..');

export const DATA_OPTION = { data: { type: 'string', default: join(root, 'data') } } as const;
export const catalogue = () => readCatalogue(join(root, 'packages/catalogue'));

/** @throws CommandFault when a folder has no database */
export function requireDatabase(dataFolder: string): void {
  if (!existsSync(databaseFile(dataFolder)))
    throw new CommandFault(`There is no database in ${dataFolder}. Choose another folder with --data.`);
}

/** Locks the folder, or reports that a running server holds it and continues; for read-only commands.
 *  @returns releases the folder */
export function lockForReading(dataFolder: string, program: string): () => void {
  let lock: FolderLock | undefined;
  try {
    lock = lockFolder(dataFolder, program, new Date());
  } catch (error) {
    if (!(error instanceof FolderHeld)) throw error;
    console.log(`${error.message} It keeps running.`);
  }
  return () => lock?.release();
}

/** The database of a folder, opened as it is: one that is absent, damaged or of another version is refused.
 *  @throws CommandFault saying which */
export async function openForReading(dataFolder: string): Promise<OpenDatabase> {
  const file = databaseFile(dataFolder);
  const state = databaseState(file);
  if (state.kind !== 'sound')
    throw new CommandFault(`The database ${file} is ${state.kind}${'reason' in state ? `: ${state.reason}` : ''}.`);
  if (state.pendingMigrations)
    throw new CommandFault(
      `The database ${file} is from an earlier version: start the server once; it makes a backup and upgrades the database.`,
    );
  return openDatabase(file);
}
