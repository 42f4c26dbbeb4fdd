import type { Backup } from '../safety/backups';
import { FolderHeld } from '../safety/folderLock';
import { StartRefused } from '../safety/prepareStart';
import { CommandFault } from './commands/commandFault';

/** @example backupText(backup) // '/data/backups/daily-….sqlite of 2026-11-26 10:00 UTC with 4 plans' */
export const backupText = ({ file, at, plans }: Backup): string =>
  `${file} of ${at.toISOString().slice(0, 16).replace('T', ' ')} UTC with ${plans} ${plans === 1 ? 'plan' : 'plans'}`;

const restoreText = (backup: Backup | undefined): string =>
  backup ? `The newest valid backup is ${backupText(backup)}: npm run restore -- ${backup.file}` : 'There is no valid backup.';

const EMPTY_HINT = 'To start without plans, use --start-empty.';

function refusedText({ kind, facts }: StartRefused): string {
  const { file, aside, reason, backup } = facts;
  switch (kind) {
    case 'damaged':
      return `The database is damaged (${reason}); it was set aside unchanged as ${aside}. ${restoreText(backup)} ${EMPTY_HINT}`;
    case 'empty':
      return `The database ${file} is missing although plans were stored before. ${restoreText(backup)} ${EMPTY_HINT}`;
    case 'unreadable':
      return `The database ${file} cannot be used: ${reason}. It was not touched.`;
    case 'locked':
      return `The database ${file} is in use by another program. It was not touched.`;
    case 'newer':
      return `The database ${file} was written by a later version of Roof Chart. It was not touched: start that version, or choose another folder with --data.`;
    case 'foreign':
      return `The file ${file} is not a Roof Chart database. It was not touched: choose another folder with --data.`;
  }
}

/** The reason of a failed command in one sentence. */
export function startFault(error: unknown): string {
  if (error instanceof StartRefused) return refusedText(error);
  if (error instanceof CommandFault) return error.message;
  if (error instanceof FolderHeld) return `${error.message} Stop it first, or choose another folder with --data.`;
  const { code, message, port, path } = error as { code?: string; message?: string; port?: number; path?: string };
  switch (code) {
    case 'EADDRINUSE':
      return `Port ${port} is in use. Stop the program that uses it, or choose another with --port.`;
    case 'EADDRNOTAVAIL':
      return 'The --host address does not belong to this machine.';
    case 'EACCES':
      return port === undefined
        ? `No permission to use ${path ?? 'the data folder'}. Choose another folder with --data.`
        : `No permission to open port ${port}. Choose one above 1023 with --port.`;
    case 'EEXIST':
      return `${path ?? 'The file'} already exists and is not overwritten. Choose another name.`;
    case 'EROFS':
    case 'EPERM':
    case 'ENOTDIR':
    case 'ENOENT':
      return `The folder or file ${path ?? ''} cannot be used (${code}). Choose another one.`;
    case 'SQLITE_CANTOPEN':
    case 'SQLITE_READONLY':
    case 'SQLITE_READONLY_DIRECTORY':
      return 'The data folder cannot be written. Choose another folder with --data.';
    case 'SQLITE_FULL':
    case 'ENOSPC':
      return 'The disk is full. Nothing was changed; free some space and start again.';
    default:
      return `Not done: ${message ?? String(error)}`;
  }
}
