import { copyFileSync, existsSync, mkdirSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { newEpoch } from '../store/epoch';
import { COMPANIONS, databaseFile, syncToDisk, timestamp } from './dataFolder';
import { databaseState, type DatabaseState } from './databaseState';

/** Moves a database and its log out of the way. @returns where it is now */
export function setAside(dataFolder: string, why: string, now: Date): string {
  const file = databaseFile(dataFolder);
  const aside = join(dataFolder, `${why}-${timestamp(now)}.sqlite`);
  for (const tail of ['', ...COMPANIONS]) if (existsSync(file + tail)) renameSync(file + tail, aside + tail);
  return aside;
}

/** Moves what was set aside back. */
function putBack(dataFolder: string, aside: string): void {
  const file = databaseFile(dataFolder);
  for (const tail of ['', ...COMPANIONS]) if (existsSync(aside + tail)) renameSync(aside + tail, file + tail);
}

/** Why a file is no backup that can be restored. */
function refusal(backup: string, state: DatabaseState): string {
  switch (state.kind) {
    case 'missing':
      return `File not found: ${backup}`;
    case 'newer':
      return `${backup} was written by a later version of Roof Chart`;
    case 'foreign':
    case 'empty':
      return `${backup} is not a Roof Chart database`;
    case 'damaged':
      return `${backup} is damaged (${state.reason})`;
    case 'locked':
      return `${backup} is in use by another program`;
    case 'unreadable':
      return `${backup} cannot be read: ${state.reason}`;
    case 'sound':
      throw new RangeError('a valid backup is not refused');
  }
}

/** A complete copy of a database in one file on disk, with its log merged. */
function copyWhole(from: string, to: string): void {
  copyFileSync(from, to);
  if (existsSync(`${from}-wal`)) copyFileSync(`${from}-wal`, `${to}-wal`);
  const database = new Database(to);
  try {
    database.pragma('journal_mode = DELETE');
    // Revisions count on from another point: open tabs must notice.
    const hasSettings = database.prepare("SELECT 1 FROM sqlite_master WHERE name = 'settings'").get() !== undefined;
    if (hasSettings) database.prepare("UPDATE settings SET value = ? WHERE key = 'epoch'").run(newEpoch());
  } finally {
    database.close();
  }
  syncToDisk(to);
}

const removeWhole = (file: string): void => {
  for (const tail of ['', ...COMPANIONS, '-journal']) rmSync(file + tail, { force: true, recursive: true });
};

export interface Restored {
  /** Where the former database is, if there was one. */
  readonly aside: string | undefined;
  readonly plans: number;
}

/** Puts a backup in the place of the database; the present one is set aside, never overwritten. The folder must be locked.
 *  @throws Error when the backup cannot be restored; the present database is then in its place as it was */
export function restoreBackup(dataFolder: string, backup: string, now: Date): Restored {
  mkdirSync(dataFolder, { recursive: true });
  const given = databaseState(backup);
  // Damage is reported before anything is copied.
  if (given.kind !== 'sound') throw new Error(`${refusal(backup, given)}. The current database is unchanged.`);
  const copy = join(dataFolder, `restoring-${timestamp(now)}.sqlite.unfinished`);
  try {
    copyWhole(backup, copy);
    const state = databaseState(copy, true);
    if (state.kind !== 'sound') throw new Error(refusal(backup, state));
    return { aside: swapIn(dataFolder, copy, now), plans: state.plans };
  } catch (error) {
    removeWhole(copy);
    throw new Error(`Not restored: ${(error as Error).message}. The current database is unchanged.`, { cause: error });
  }
}

/** @returns where the former database is */
function swapIn(dataFolder: string, copy: string, now: Date): string | undefined {
  const file = databaseFile(dataFolder);
  const isThere = ['', ...COMPANIONS].some((tail) => existsSync(file + tail));
  const aside = isThere ? setAside(dataFolder, 'before-restore', now) : undefined;
  try {
    renameSync(copy, file);
  } catch (error) {
    if (aside) putBack(dataFolder, aside);
    throw error;
  }
  syncToDisk(dataFolder);
  return aside;
}
