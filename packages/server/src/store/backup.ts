import { copyFileSync, existsSync, mkdirSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { dirname, join } from 'node:path';
import Database from 'better-sqlite3';

export const DATABASE_FILE = 'roof-chart.sqlite';
const KEPT_BACKUPS = 7;
const DAY_MS = 24 * 60 * 60 * 1000;

const stamp = (now: Date): string => now.toISOString().replace(/[:.]/g, '-');
const backupFolder = (dataFolder: string): string => join(dataFolder, 'backups');

/** Whether a file is a whole database of ours. */
export function isSound(file: string): boolean {
  let database: Database.Database | undefined;
  try {
    database = new Database(file, { readonly: true, fileMustExist: true });
    const rows = database.pragma('quick_check') as { quick_check: string }[];
    const plans = database.prepare("SELECT count(*) AS n FROM sqlite_master WHERE name = 'plans'").get() as { n: number };
    return rows[0]?.quick_check === 'ok' && plans.n === 1;
  } catch {
    return false;
  } finally {
    database?.close();
  }
}

/** Writes a complete copy of a database that may be in use.
 *  @throws Error when the target exists (a backup never overwrites one) or cannot be written */
export function writeBackup(databaseFile: string, target: string): void {
  if (existsSync(target)) throw Object.assign(new Error(`${target} exists already`), { code: 'EEXIST', path: target });
  mkdirSync(dirname(target), { recursive: true });
  const database = new Database(databaseFile, { readonly: true, fileMustExist: true });
  try {
    database.prepare('VACUUM INTO ?').run(target);
  } finally {
    database.close();
  }
}

/** The backups of a data folder that are whole, newest first. */
export function soundBackups(dataFolder: string): readonly string[] {
  const folder = backupFolder(dataFolder);
  if (!existsSync(folder)) return [];
  const files = readdirSync(folder).filter((name) => name.endsWith('.sqlite'));
  return files
    .map((name) => join(folder, name))
    .sort((a, b) => statSync(b).mtimeMs - statSync(a).mtimeMs)
    .filter(isSound);
}

/** A backup a day, made at the start of the server; the last seven are kept. */
export function dailyBackup(dataFolder: string, now: Date): void {
  const [newest, ...older] = soundBackups(dataFolder);
  if (newest && now.getTime() - statSync(newest).mtimeMs < DAY_MS) return;
  writeBackup(join(dataFolder, DATABASE_FILE), join(backupFolder(dataFolder), `${stamp(now)}.sqlite`));
  for (const file of [newest, ...older].slice(KEPT_BACKUPS - 1)) if (file) rmSync(file);
}

/** Moves a database and its write-ahead files out of the way. @returns where it is now */
export function setAside(dataFolder: string, why: string, now: Date): string {
  const file = join(dataFolder, DATABASE_FILE);
  const aside = join(dataFolder, `${why}-${stamp(now)}.sqlite`);
  // The write-ahead log belongs to the database: apart from it, the newest writes would be lost.
  for (const tail of ['', '-wal', '-shm']) if (existsSync(file + tail)) renameSync(file + tail, aside + tail);
  return aside;
}

/** Puts a backup in the place of the database; the present one is set aside, never overwritten.
 *  @returns where the former database is, if there was one
 *  @throws Error when the backup is not a whole database of ours */
export function restoreBackup(dataFolder: string, backup: string, now: Date): string | undefined {
  if (!isSound(backup)) throw new Error(`${backup} is not a whole backup; nothing was changed.`);
  mkdirSync(dataFolder, { recursive: true });
  const aside = existsSync(join(dataFolder, DATABASE_FILE)) ? setAside(dataFolder, 'before-restore', now) : undefined;
  copyFileSync(backup, join(dataFolder, DATABASE_FILE));
  return aside;
}

/** A database that was found damaged, and what can be done. */
export class DamagedDatabase extends Error {
  constructor(
    readonly aside: string,
    readonly backup: string | undefined,
  ) {
    super(`damaged database set aside as ${aside}`);
  }
}

/** Sets a damaged database aside before anything writes to it.
 *  @throws DamagedDatabase where it was */
export function refuseDamaged(dataFolder: string, now: Date): void {
  const file = join(dataFolder, DATABASE_FILE);
  if (!existsSync(file) || isSound(file) || statSync(file).size === 0) return;
  throw new DamagedDatabase(setAside(dataFolder, 'damaged', now), soundBackups(dataFolder)[0]);
}
