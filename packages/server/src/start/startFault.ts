import { DamagedDatabase } from '../store/backup';

/** Why the server did not start, as one plain sentence. */
export function startFault(error: unknown): string {
  if (error instanceof DamagedDatabase) {
    const way = error.backup ? `The last good backup is ${error.backup}: npm run restore -- ${error.backup}` : 'There is no backup.';
    return `The database was damaged and is set aside, unchanged, as ${error.aside}. ${way} Started again as it is, the server begins empty.`;
  }
  const { code, message, port, path } = error as { code?: string; message?: string; port?: number; path?: string };
  switch (code) {
    case 'EADDRINUSE':
      return `Port ${port} is in use. Stop the program that holds it, or choose another with --port.`;
    case 'EACCES':
      return port === undefined
        ? `No permission to write ${path ?? 'the data folder'}. Choose another folder with --data.`
        : `No permission to open port ${port}. Choose one above 1023 with --port.`;
    case 'EROFS':
    case 'EPERM':
    case 'ENOTDIR':
    case 'EEXIST':
    case 'ENOENT':
      return `The data folder ${path ?? ''} cannot be used (${code}). Choose another folder with --data.`;
    case 'SQLITE_CANTOPEN':
    case 'SQLITE_READONLY':
    case 'SQLITE_READONLY_DIRECTORY':
      return 'The data folder cannot be written. Choose another folder with --data.';
    case 'SQLITE_FULL':
    case 'ENOSPC':
      return 'The disk is full. Nothing was changed; make room, then start again.';
    default:
      return `The server did not start: ${message ?? String(error)}`;
  }
}
