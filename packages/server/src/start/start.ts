import { readdirSync, readFileSync } from 'node:fs';
import type { Server } from 'node:http';
import { join } from 'node:path';
import type { Logger } from 'pino';
import { planSchema } from '@roof-chart/core/plan/planSchema';
import type { Plan } from '@roof-chart/core/plan/plan';
import { createApp } from '../app';
import { readCatalogue } from '@roof-chart/catalogue/readCatalogue';
import { DATABASE_FILE, dailyBackup, refuseDamaged } from '../store/backup';
import { openDatabase } from '../store/database';
import { SheetShelf } from '../store/sheetShelf';
import { PlanStore } from '../store/planStore';
import { PASSPHRASE_LENGTH } from '../web/passphrase';

export interface StartOptions {
  readonly port: number;
  readonly host: string;
  readonly dataFolder: string;
  readonly catalogueFolder: string;
  readonly webFolder?: string;
  /** Folder of example plans to put in place. */
  readonly demoFolder?: string;
  readonly resetDemo?: boolean;
  readonly log?: Logger;
  /** Needed when the host is not a loopback address. */
  readonly passphrase?: string;
  /** Names under which a server on a network is asked, besides its address. */
  readonly hostNames?: readonly string[];
}

const LOOPBACK = new Set(['127.0.0.1', '::1', 'localhost']);

/** @throws Error when a server would be open to a network without a passphrase */
function checkPassphrase({ host, passphrase }: StartOptions): void {
  if (LOOPBACK.has(host) || (passphrase !== undefined && passphrase.length >= PASSPHRASE_LENGTH)) return;
  throw new Error(
    `beyond this machine (--host ${host}) a passphrase of at least ${PASSPHRASE_LENGTH} characters is needed: set ROOF_CHART_PASSPHRASE.`,
  );
}

export interface Running {
  readonly address: string;
  /** Ends open requests, closes the database. */
  stop(): Promise<void>;
}

function examples(folder: string): readonly Plan[] {
  return readdirSync(folder)
    .filter((name) => name.endsWith('.json'))
    .map((name) => {
      const { error, value } = planSchema.validate(JSON.parse(readFileSync(join(folder, name), 'utf8')), { convert: false });
      if (error) throw new Error(`Example ${name}: ${error.message}`);
      return value as Plan;
    });
}

function listen(app: ReturnType<typeof createApp>, port: number, host: string): Promise<Server> {
  return new Promise((resolve, reject) => {
    const server = app.listen(port, host);
    server.once('listening', () => resolve(server));
    server.once('error', reject);
  });
}

/** Opens the database, puts the examples in place, and serves on the address.
 *  @throws the system's error when the port is taken or the folder cannot be written */
export async function start(options: StartOptions): Promise<Running> {
  checkPassphrase(options);
  const sheets = readCatalogue(options.catalogueFolder);
  refuseDamaged(options.dataFolder, new Date());
  const database = await openDatabase(join(options.dataFolder, DATABASE_FILE));
  try {
    const shelf = new SheetShelf(database, sheets);
    await shelf.load();
    const store = new PlanStore(database, shelf);
    for (const plan of options.demoFolder ? examples(options.demoFolder) : []) await store.placeExample(plan, options.resetDemo ?? false);
    dailyBackup(options.dataFolder, new Date());
    const app = createApp({
      store,
      shelf,
      ...(options.webFolder ? { webFolder: options.webFolder } : {}),
      ...(options.log ? { log: options.log } : {}),
      ...(LOOPBACK.has(options.host)
        ? {}
        : { passphrase: options.passphrase!, hostNames: new Set([options.host, ...(options.hostNames ?? [])]) }),
    });
    const server = await listen(app, options.port, options.host);
    const bound = server.address();
    const port = typeof bound === 'object' && bound ? bound.port : options.port;
    return {
      address: `http://${options.host}:${port}/`,
      stop: async () => {
        await new Promise<void>((resolve) => {
          server.close(() => resolve());
          server.closeIdleConnections();
          setTimeout(() => server.closeAllConnections(), 2000).unref();
        });
        await database.destroy();
      },
    };
  } catch (error) {
    await database.destroy();
    throw error;
  }
}
