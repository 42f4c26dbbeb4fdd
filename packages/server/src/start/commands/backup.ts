import { join, resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { backUpFile } from '../../safety/backups';
import { backupFolder, databaseFile, timestamp } from '../../safety/dataFolder';
import { databaseState } from '../../safety/databaseState';
import { type Command, DATA_OPTION, lockForReading, requireDatabase } from './command';
import { CommandFault } from './commandFault';

export const backupCommand: Command = {
  name: 'backup',
  usage: 'backup [FILE] [--data FOLDER]',
  summary: 'writes a complete copy of the database; works while the server runs',
  async run(args) {
    const { values, positionals } = parseArgs({ args, options: DATA_OPTION, allowPositionals: true });
    const dataFolder = resolve(values.data);
    const target = resolve(positionals[0] ?? join(backupFolder(dataFolder), `by-hand-${timestamp(new Date())}.sqlite`));
    requireDatabase(dataFolder);
    const release = lockForReading(dataFolder, 'backup');
    try {
      await backUpFile(databaseFile(dataFolder), target);
      const state = databaseState(target, true);
      if (state.kind !== 'sound') throw new CommandFault(`The backup ${target} is ${state.kind} and must not be relied on; run verify.`);
      console.log(`Backup written to ${target} (${state.plans} plans).`);
    } finally {
      release();
    }
  },
};
