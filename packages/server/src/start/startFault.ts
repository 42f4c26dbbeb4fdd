/** Why the server did not start, as one plain sentence. */
export function startFault(error: unknown): string {
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
    case 'SQLITE_NOTADB':
    case 'SQLITE_CORRUPT':
      return 'The database file is damaged and was left as it is. Move it away, or choose another folder with --data.';
    default:
      return `The server did not start: ${message ?? String(error)}`;
  }
}
