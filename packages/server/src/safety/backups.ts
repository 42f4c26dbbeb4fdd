import { existsSync, mkdirSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { basename, dirname, join } from 'node:path';
import Database from 'better-sqlite3';
import { backupFolder, databaseFile, syncToDisk, timeInName, timestamp } from './dataFolder';
import { databaseState } from './databaseState';

/** A backup that can be restored. */
export interface Backup {
  readonly file: string;
  readonly at: Date;
  readonly plans: number;
}

/** Backups made by themselves that are kept; those made by hand or before a migration are never removed. */
const KEPT_DAILY = 7;
const DAY_MS = 24 * 60 * 60 * 1000;
const DAILY = /^daily-\d{4}-\d{2}-\d{2}T\d{2}-\d{2}-\d{2}-\d{3}Z\.sqlite$/;
const PAGES_AT_ONCE = 200;

/** Writes a complete copy of an open database, which may be written to meanwhile: to a temporary file first, so that
 *  a copy is whole or not there.
 *  @throws Error when the target exists (a backup never overwrites one) or cannot be written */
async function writeBackup(connection: Database.Database, target: string): Promise<void> {
  if (existsSync(target)) throw Object.assign(new Error(`${target} already exists`), { code: 'EEXIST', path: target });
  mkdirSync(dirname(target), { recursive: true });
  const unfinished = `${target}.unfinished`;
  try {
    rmSync(unfinished, { force: true });
    await connection.backup(unfinished, { progress: () => PAGES_AT_ONCE });
    // A backup is one file: without a log beside it that could be left behind.
    const copy = new Database(unfinished);
    try {
      copy.pragma('journal_mode = DELETE');
    } finally {
      copy.close();
    }
    syncToDisk(unfinished);
    renameSync(unfinished, target);
    syncToDisk(dirname(target));
  } catch (error) {
    rmSync(unfinished, { force: true });
    throw error;
  }
}

/** Writes a backup of a database file, also while a server uses it. */
export async function backUpFile(file: string, target: string): Promise<void> {
  const connection = new Database(file, { fileMustExist: true, timeout: 2000 });
  try {
    await writeBackup(connection, target);
  } finally {
    connection.close();
  }
}

const timeOf = (file: string): Date => timeInName(basename(file)) ?? statSync(file).mtime;

/** The files in a backup folder, newest first, valid or not. */
function backupFiles(folder: string): readonly string[] {
  if (!statSync(folder, { throwIfNoEntry: false })?.isDirectory()) return [];
  const files = readdirSync(folder).filter((name) => name.endsWith('.sqlite'));
  return files.map((name) => join(folder, name)).sort((a, b) => timeOf(b).getTime() - timeOf(a).getTime());
}

/** Backups that are whole, newest first, looked for one after another.
 *  @param others folders besides that of the data folder */
export function* soundBackups(dataFolder: string, others: readonly string[] = []): Generator<Backup> {
  const files = [backupFolder(dataFolder), ...others].flatMap(backupFiles).sort((a, b) => timeOf(b).getTime() - timeOf(a).getTime());
  for (const file of files) {
    const state = databaseState(file);
    if (state.kind === 'sound') yield { file, at: timeOf(file), plans: state.plans };
  }
}

export function newestBackup(dataFolder: string, others: readonly string[] = []): Backup | undefined {
  const [newest] = soundBackups(dataFolder, others);
  return newest;
}

/** Whether the last automatic backup is a day old. Times in the future (wrong clock) do not count. */
function isDailyDue(folder: string, now: Date): boolean {
  const times = dailyFiles(folder).map((file) => timeOf(file).getTime());
  return !times.some((time) => time <= now.getTime() && now.getTime() - time < DAY_MS);
}

const dailyFiles = (folder: string): readonly string[] => backupFiles(folder).filter((file) => DAILY.test(basename(file)));

/** Removes the oldest automatic backups beyond the number kept; no other file is touched. */
function rotate(folder: string): void {
  for (const file of dailyFiles(folder).slice(KEPT_DAILY)) rmSync(file, { force: true });
}

/** A backup a day in each folder; the last seven are kept. A folder that cannot be written does not stop the others.
 *  @returns why a folder has no backup, one sentence each */
export async function dailyBackups(connection: Database.Database, folders: readonly string[], now: Date): Promise<readonly string[]> {
  const failed: string[] = [];
  for (const folder of folders) {
    try {
      if (!isDailyDue(folder, now)) continue;
      await writeBackup(connection, join(folder, `daily-${timestamp(now)}.sqlite`));
      rotate(folder);
    } catch (error) {
      failed.push(`No backup could be written to ${folder}: ${(error as Error).message}. Plans are not affected.`);
    }
  }
  return failed;
}

/** A copy of a database before its schema changes. @returns where it is */
export async function backUpBeforeMigration(dataFolder: string, now: Date): Promise<string> {
  const target = join(backupFolder(dataFolder), `before-migration-${timestamp(now)}.sqlite`);
  await backUpFile(databaseFile(dataFolder), target);
  return target;
}
