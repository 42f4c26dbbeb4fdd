import { createWriteStream, readFileSync, renameSync, rmSync } from 'node:fs';
import { resolve } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { parseArgs } from 'node:util';
import { counted } from '@roof-chart/core/quantity/format';
import { ArchiveRefused, readArchive } from '../../archive/readArchive';
import { archiveEntries, zipEntries } from '../../archive/writeArchive';
import { databaseFile, syncToDisk } from '../../safety/dataFolder';
import { lockFolder } from '../../safety/folderLock';
import { prepareStart } from '../../safety/prepareStart';
import { openDatabase } from '../../store/database';
import { PlanStore } from '../../store/planStore';
import { SheetRepository } from '../../store/sheetRepository';
import { catalogue, type Command, DATA_OPTION, lockForReading, requireDatabase, openForReading } from './command';
import { CommandFault } from './commandFault';

const fileOf = (positionals: readonly string[]): string => {
  if (!positionals[0]) throw new CommandFault('No file given. Add its name, for example plans.zip.');
  return resolve(positionals[0]);
};

export const exportCommand: Command = {
  name: 'export',
  usage: 'export FILE.zip [--data FOLDER]',
  summary: 'exports all plans, saved versions and own sheets as JSON files in one archive; works while the server runs',
  async run(args) {
    const { values, positionals } = parseArgs({ args, options: DATA_OPTION, allowPositionals: true });
    const dataFolder = resolve(values.data);
    const file = fileOf(positionals);
    requireDatabase(dataFolder);
    const release = lockForReading(dataFolder, 'export');
    const unfinished = `${file}.unfinished`;
    try {
      const database = await openForReading(dataFolder);
      const shelf = new SheetRepository(database, catalogue());
      shelf.load();
      const store = new PlanStore(database, shelf);
      await pipeline(zipEntries(archiveEntries(store.transactions.statements, shelf, new Date())), createWriteStream(unfinished));
      await database.source.destroy();
      syncToDisk(unfinished);
      renameSync(unfinished, file);
      console.log(`Exported to ${file}.`);
    } catch (error) {
      rmSync(unfinished, { force: true });
      throw error;
    } finally {
      release();
    }
  },
};

export const importCommand: Command = {
  name: 'import',
  usage: 'import FILE.zip [--data FOLDER]',
  summary: 'imports such an archive; identical plans are skipped; the server must be stopped',
  async run(args) {
    const { values, positionals } = parseArgs({ args, options: DATA_OPTION, allowPositionals: true });
    const dataFolder = resolve(values.data);
    const file = fileOf(positionals);
    const lock = lockFolder(dataFolder, 'import', new Date());
    try {
      await prepareStart(dataFolder, { now: new Date(), backupFolders: [], startEmpty: false });
      const database = await openDatabase(databaseFile(dataFolder));
      try {
        const shelf = new SheetRepository(database, catalogue());
        shelf.load();
        const { plans, versions, sheets, same, skipped } = readArchive(new PlanStore(database, shelf), shelf, readFileSync(file));
        console.log(
          `Imported from ${file}: ${counted(plans, 'plan')}, ${counted(versions, 'saved version')}, ${counted(sheets, 'sheet')}; ${counted(same, 'plan')} already present.`,
        );
        for (const { path, fault } of skipped) console.log(`Skipped ${path}: ${fault}`);
      } finally {
        await database.source.destroy();
      }
    } catch (error) {
      throw error instanceof ArchiveRefused ? new CommandFault(`${file}: ${error.message} Nothing was changed.`) : error;
    } finally {
      lock.release();
    }
  },
};
