import { closeSync, fsyncSync, openSync } from 'node:fs';
import { join } from 'node:path';

export const DATABASE_FILE = 'roof-chart.sqlite';

/** What SQLite keeps beside a database; apart from it, the newest writes would be lost. */
export const COMPANIONS = ['-wal', '-shm'] as const;

export const databaseFile = (dataFolder: string): string => join(dataFolder, DATABASE_FILE);
export const backupFolder = (dataFolder: string): string => join(dataFolder, 'backups');

/** A time as a part of a file name, sorting as the times do.
 *  @example timestamp(new Date(0)) // '1970-01-01T00-00-00-000Z' */
export const timestamp = (time: Date): string => time.toISOString().replace(/[:.]/g, '-');

const STAMP = /(\d{4}-\d{2}-\d{2})T(\d{2})-(\d{2})-(\d{2})-(\d{3})Z/;

/** The time in a file name; undefined where there is none. */
export function timeInName(name: string): Date | undefined {
  const [, day, hours, minutes, seconds, milliseconds] = STAMP.exec(name) ?? [];
  return day === undefined ? undefined : new Date(`${day}T${hours}:${minutes}:${seconds}.${milliseconds}Z`);
}

/** Brings a file or folder onto the disk. Folders cannot be synced everywhere: there the system does it in time. */
export function syncToDisk(path: string): void {
  let handle: number | undefined;
  try {
    handle = openSync(path, 'r');
    fsyncSync(handle);
  } catch (error) {
    if (!['EPERM', 'EISDIR', 'EINVAL', 'EACCES'].includes((error as { code?: string }).code ?? '')) throw error;
  } finally {
    if (handle !== undefined) closeSync(handle);
  }
}
