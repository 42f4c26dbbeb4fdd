import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import express, { type Express } from 'express';
import type { Edit } from '@roof-chart/core/plan/edit';
import { indexSheets, type Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { pino } from 'pino';
import { type AppParts, createApp } from '../src/app';
import { readCatalogue } from '@roof-chart/catalogue/readCatalogue';
import { openDatabase, type OpenDatabase } from '../src/store/database';
import { SheetRepository } from '../src/store/sheetRepository';
import { PlanStore } from '../src/store/planStore';
import { checkAnswers } from './checkAnswers';

export const catalogueFolder = join(__dirname, '../../catalogue');

export interface Served {
  readonly app: Express;
  readonly store: PlanStore;
  readonly sheets: Sheets;
  readonly database: OpenDatabase;
  readonly shelf: SheetRepository;
  readonly folder: string;
  /** Lines of the log at level error, as JSON. */
  readonly logged: string[];
  readonly log: string[];
  close(): Promise<void>;
}

/** The application over a database of its own in a temporary folder. */
export async function serve(parts: Partial<AppParts> = {}): Promise<Served> {
  const folder = mkdtempSync(join(tmpdir(), 'roof-chart-'));
  const list = readCatalogue(catalogueFolder);
  const sheets = indexSheets(list);
  const database = await openDatabase(join(folder, 'test.sqlite'));
  const shelf = new SheetRepository(database, list);
  const store = new PlanStore(database, shelf);
  const logged: string[] = [];
  const lines: string[] = [];
  const log = pino({ level: 'info' }, { write: (line) => void (line.includes('"level":50') ? logged : lines).push(line) });
  const app = express()
    .disable('x-powered-by')
    .use(checkAnswers, createApp({ store, shelf, log, ...parts }));
  return {
    app,
    store,
    sheets,
    shelf,
    database,
    folder,
    logged,
    log: lines,
    close: async () => {
      await database.source.destroy();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

/** One batch on a revision of this database's present life. */
export const editOnce = (store: PlanStore, id: string, revision: number, batch: string, edits: readonly Edit[]) =>
  store.edit(id, { revision, epoch: store.epoch }, [{ batch, edits }]);
