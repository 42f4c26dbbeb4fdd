import { resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { newestBackup } from '../../safety/backups';
import { lockFolder } from '../../safety/folderLock';
import { restoreBackup } from '../../safety/restore';
import { backupText } from '../startFault';
import { type Command, DATA_OPTION } from './command';
import { CommandFault } from './commandFault';

export const restoreCommand: Command = {
  name: 'restore',
  usage: 'restore FILE [--data FOLDER]',
  summary: 'replaces the database by a backup and sets the old one aside; the server must be stopped',
  run(args) {
    const { values, positionals } = parseArgs({ args, options: DATA_OPTION, allowPositionals: true });
    const dataFolder = resolve(values.data);
    const file = positionals[0];
    if (!file) {
      const newest = newestBackup(dataFolder);
      throw new CommandFault(
        `No backup given. ${newest ? `The newest is ${backupText(newest)}.` : `There is no backup in ${dataFolder}.`}`,
      );
    }
    const lock = lockFolder(dataFolder, 'restore', new Date());
    try {
      const { aside, plans } = restoreBackup(dataFolder, resolve(file), new Date());
      console.log(`Restored from ${file}: ${plans} plans.${aside ? ` The previous database is kept as ${aside}.` : ''}`);
    } finally {
      lock.release();
    }
    return Promise.resolve();
  },
};
