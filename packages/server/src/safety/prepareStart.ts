import { existsSync, readdirSync } from 'node:fs';
import { type Backup, backUpBeforeMigration, newestBackup } from './backups';
import { databaseFile } from './dataFolder';
import { databaseState } from './databaseState';
import { setAside } from './restore';

/** Why a server does not start on a data folder, with what can be done. */
export class StartRefused extends Error {
  constructor(
    readonly kind: 'damaged' | 'unreadable' | 'locked' | 'newer' | 'foreign' | 'empty',
    readonly facts: { readonly file: string; readonly aside?: string; readonly reason?: string; readonly backup?: Backup | undefined },
  ) {
    super(kind);
  }
}

export interface StartPolicy {
  readonly now: Date;
  /** Folders of backups besides the one in the data folder. */
  readonly backupFolders: readonly string[];
  /** Begin without plans although there are backups, or a database that was set aside. */
  readonly startEmpty: boolean;
}

/** Whether a data folder contains evidence of earlier plans. */
const hasSetAside = (dataFolder: string): boolean =>
  existsSync(dataFolder) && readdirSync(dataFolder).some((name) => /^(damaged|before-restore)-.*\.sqlite$/.test(name));

/** Judges the database before anything writes to it: a damaged one is set aside, one that is about to change its schema
 *  is backed up, and nothing begins empty unasked where there were plans. The folder must be locked.
 *  @returns what went wrong on the way and does not hinder the start
 *  @throws StartRefused when the database cannot be used */
export async function prepareStart(dataFolder: string, { now, backupFolders, startEmpty }: StartPolicy): Promise<readonly string[]> {
  const file = databaseFile(dataFolder);
  const state = databaseState(file);
  switch (state.kind) {
    case 'sound':
      if (!state.pendingMigrations) return [];
      return backUpBeforeMigration(dataFolder, now).then(
        () => [],
        (error: Error) => {
          throw new StartRefused('unreadable', { file, reason: `no backup could be written before the schema upgrade: ${error.message}` });
        },
      );
    case 'missing':
    case 'empty': {
      const backup = newestBackup(dataFolder, backupFolders);
      if (!startEmpty && (backup || hasSetAside(dataFolder))) throw new StartRefused('empty', { file, backup });
      return [];
    }
    case 'damaged':
      throw new StartRefused('damaged', {
        file,
        reason: state.reason,
        aside: setAside(dataFolder, 'damaged', now),
        backup: newestBackup(dataFolder, backupFolders),
      });
    case 'unreadable':
      throw new StartRefused('unreadable', { file, reason: state.reason });
    default:
      throw new StartRefused(state.kind, { file });
  }
}
