import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { counted } from '@roof-chart/core/quantity/format';
import { backUpFile } from '../../safety/backups';
import { databaseFile } from '../../safety/dataFolder';
import { databaseState } from '../../safety/databaseState';
import { type Verification, verifyDatabase } from '../../safety/verify';
import { openDatabase } from '../../store/database';
import { catalogue, type Command, DATA_OPTION, lockForReading, requireDatabase } from './command';
import { CommandFault } from './commandFault';

/** A copy is looked through, so that the database itself, or a backup, is not touched. */
async function verifyCopy(file: string): Promise<Verification> {
  const folder = mkdtempSync(join(tmpdir(), 'roof-chart-verify-'));
  try {
    const copy = join(folder, 'copy.sqlite');
    await backUpFile(file, copy);
    const database = await openDatabase(copy);
    try {
      return await verifyDatabase(copy, database, catalogue());
    } finally {
      await database.source.destroy();
    }
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

export const verifyCommand: Command = {
  name: 'verify',
  usage: 'verify [FILE] [--data FOLDER]',
  summary: 'checks integrity, schema, checksums, and every plan against the replay of its log; FILE is a backup',
  async run(args) {
    const { values, positionals } = parseArgs({ args, options: DATA_OPTION, allowPositionals: true });
    const dataFolder = resolve(values.data);
    const file = positionals[0] ? resolve(positionals[0]) : databaseFile(dataFolder);
    if (!positionals[0]) requireDatabase(dataFolder);
    const release = positionals[0] ? () => undefined : lockForReading(dataFolder, 'verify');
    try {
      const state = databaseState(file, true);
      if (state.kind !== 'sound') throw new CommandFault(`${file} is ${state.kind}${'reason' in state ? `: ${state.reason}` : ''}.`);
      const { plans, versions, sheets, replayed, faults, remarks } = await verifyCopy(file);
      console.log(
        `${file}: ${counted(plans, 'plan')}, ${counted(versions, 'saved version')}, ${counted(sheets, 'own sheet')}; ${counted(replayed, 'log')} replayed to the stored plan.`,
      );
      for (const remark of remarks) console.log(`Note: ${remark}`);
      if (faults.length > 0) throw new CommandFault(`${faults.length} faults:\n${faults.join('\n')}`);
      console.log('No faults found.');
    } finally {
      release();
    }
  },
};
