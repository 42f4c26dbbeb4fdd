import { accessSync, constants, existsSync, statSync } from 'node:fs';
import Database from 'better-sqlite3';
import { MIGRATIONS } from '../store/migrations';

/** What a file is that should be a database of ours. */
export type DatabaseState =
  | { readonly kind: 'sound'; readonly plans: number; readonly pendingMigrations: boolean }
  /** Nothing was ever kept in it: it was created and not set up yet. */
  | { readonly kind: 'empty' }
  | { readonly kind: 'missing' }
  | { readonly kind: 'damaged'; readonly reason: string }
  | { readonly kind: 'unreadable'; readonly reason: string }
  | { readonly kind: 'locked' }
  /** Of a later version of Roof Chart. */
  | { readonly kind: 'newer' }
  /** A database of something else. */
  | { readonly kind: 'foreign' };

const KNOWN = new Set(MIGRATIONS.map((migration) => migration.name));

/** Only these say that the contents are damaged; everything else is about reaching them. */
const isCorruption = (code: string): boolean => code === 'SQLITE_NOTADB' || code.startsWith('SQLITE_CORRUPT');

function ofError(error: unknown): DatabaseState {
  const { code = '', message = '' } = error as { code?: string; message?: string };
  if (isCorruption(code)) return { kind: 'damaged', reason: message };
  if (code.startsWith('SQLITE_BUSY') || code.startsWith('SQLITE_LOCKED')) return { kind: 'locked' };
  return { kind: 'unreadable', reason: `${message} (${code})` };
}

function ofOpen(database: Database.Database, thorough: boolean): DatabaseState {
  const pragma = thorough ? 'integrity_check' : 'quick_check';
  const [first] = database.pragma(pragma) as { [name: string]: string }[];
  if (first?.[pragma] !== 'ok') return { kind: 'damaged', reason: first?.[pragma] ?? 'the integrity check returned nothing' };
  const tables = database.prepare("SELECT name FROM sqlite_master WHERE type = 'table'").pluck().all() as string[];
  if (tables.length === 0) return { kind: 'empty' };
  if (!tables.includes('migrations')) return { kind: 'foreign' };
  const done = database.prepare('SELECT name FROM migrations').pluck().all() as string[];
  if (done.length === 0) return { kind: 'empty' };
  if (done.some((name) => !KNOWN.has(name))) return done.some((name) => KNOWN.has(name)) ? { kind: 'newer' } : { kind: 'foreign' };
  if (!tables.includes('plans')) return { kind: 'damaged', reason: 'the table of plans is missing' };
  const plans = database.prepare('SELECT count(*) FROM plans WHERE deleted_at IS NULL').pluck().get() as number;
  return { kind: 'sound', plans, pendingMigrations: done.length < MIGRATIONS.length };
}

/** Checks a file without changing it.
 *  @param thorough also checks indexes against tables, which takes longer */
export function databaseState(file: string, thorough = false): DatabaseState {
  try {
    if (!existsSync(file)) return { kind: 'missing' };
    // An absent database with a log beside it is not empty: SQLite would throw the log away.
    if (statSync(file).size === 0)
      return existsSync(`${file}-wal`) && statSync(`${file}-wal`).size > 0
        ? { kind: 'damaged', reason: 'the file is empty but its log is not' }
        : { kind: 'empty' };
    accessSync(file, constants.R_OK);
  } catch (error) {
    return { kind: 'unreadable', reason: (error as Error).message };
  }
  let database: Database.Database | undefined;
  try {
    database = new Database(file, { readonly: true, fileMustExist: true, timeout: 2000 });
    return ofOpen(database, thorough);
  } catch (error) {
    return ofError(error);
  } finally {
    database?.close();
  }
}
