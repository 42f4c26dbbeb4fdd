import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';

/** Who works on a data folder. */
export interface Holder {
  /** `server`, `restore`, and so on. */
  readonly program: string;
  readonly process: number;
  readonly since: string;
  readonly address?: string;
}

/** The data folder is in use by another program. */
export class FolderHeld extends Error {
  constructor(
    readonly dataFolder: string,
    readonly holder: Holder | undefined,
  ) {
    super(`The data folder ${dataFolder} is in use by ${holderText(holder)}.`);
  }
}

function holderText(holder: Holder | undefined): string {
  if (!holder) return 'another Roof Chart program';
  const where = holder.address ? ` at ${holder.address}` : '';
  return `Roof Chart ${holder.program}${where} (process ${holder.process}, since ${holder.since.slice(0, 16).replace('T', ' ')} UTC)`;
}

const holderFile = (dataFolder: string): string => join(dataFolder, 'in-use.json');

function readHolder(dataFolder: string): Holder | undefined {
  try {
    return JSON.parse(readFileSync(holderFile(dataFolder), 'utf8')) as Holder;
  } catch {
    // Being written at this moment, or the disk was full: the folder is locked all the same.
    return undefined;
  }
}

export interface FolderLock {
  /** Adds details of the holder, such as its address. */
  describe(more: Partial<Holder>): void;
  release(): void;
}

const isBusy = (error: unknown): boolean => ((error as { code?: string }).code ?? '').startsWith('SQLITE_BUSY');

/** Locks a data folder for this process. The operating system releases the lock when the process ends.
 *  @throws FolderHeld if another program holds it */
export function lockFolder(dataFolder: string, program: string, now: Date): FolderLock {
  mkdirSync(dataFolder, { recursive: true });
  // An exclusive transaction that is never committed: SQLite locks portably on every system.
  const lock = new Database(join(dataFolder, 'in-use.lock'), { timeout: 0 });
  try {
    lock.exec('BEGIN EXCLUSIVE');
  } catch (error) {
    lock.close();
    if (isBusy(error)) throw new FolderHeld(dataFolder, readHolder(dataFolder));
    throw error;
  }
  let holder: Holder = { program, process: process.pid, since: now.toISOString() };
  const describe = (more: Partial<Holder>) => {
    holder = { ...holder, ...more };
    try {
      writeFileSync(holderFile(dataFolder), JSON.stringify(holder));
    } catch {
      // A full disk: the lock holds all the same, only its holder is not named.
    }
  };
  describe({});
  return { describe, release: () => void lock.close() };
}
