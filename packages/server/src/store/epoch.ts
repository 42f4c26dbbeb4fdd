import { randomBytes } from 'node:crypto';
import type Database from 'better-sqlite3';

/** A name for one life of a database: another one after a restore or a reset, so that an open tab notices.
 *  @returns 16 hexadecimal digits */
export const newEpoch = (): string => randomBytes(8).toString('hex');

/** @throws Error where the database has none */
export function readEpoch(connection: Database.Database): string {
  const row = connection.prepare("SELECT value FROM settings WHERE key = 'epoch'").get() as { value: string } | undefined;
  if (!row) throw new Error('The database has no epoch.');
  return row.value;
}
