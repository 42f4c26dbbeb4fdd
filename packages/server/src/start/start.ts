import { readdirSync, readFileSync } from 'node:fs';
import type { Server } from 'node:http';
import { hostname, networkInterfaces } from 'node:os';
import { join } from 'node:path';
import { type Logger, pino } from 'pino';
import { planSchema } from '@roof-chart/core/plan/planSchema';
import type { Plan } from '@roof-chart/core/plan/plan';
import { createApp } from '../app';
import { readCatalogue } from '@roof-chart/catalogue/readCatalogue';
import { backupFolder, databaseFile } from '../safety/dataFolder';
import { type FolderLock, lockFolder } from '../safety/folderLock';
import { prepareStart } from '../safety/prepareStart';
import { openDatabase } from '../store/database';
import { SheetRepository } from '../store/sheetRepository';
import { PlanStore } from '../store/planStore';
import { LOOPBACK_NAMES } from '../web/guards';
import { checkSecrets, PASSPHRASE_LENGTH } from '../web/signIn';
import { startMaintenance } from './maintenance';

export interface StartOptions {
  readonly port: number;
  readonly host: string;
  readonly dataFolder: string;
  readonly catalogueFolder: string;
  readonly webFolder?: string;
  /** Folder of the example plans. */
  readonly demoFolder?: string;
  readonly resetDemo?: boolean;
  readonly log?: Logger;
  /** Required from clients if set; mandatory if the host is not a loopback address. */
  readonly passphrase?: string;
  /** For programs, besides the passphrase for people. */
  readonly token?: string;
  /** Accepted host names besides the loopback ones. */
  readonly hostNames?: readonly string[];
  /** Further folders for the daily backup. */
  readonly backupFolders?: readonly string[];
  /** Begin without plans although there are backups. */
  readonly startEmpty?: boolean;
}

const LOOPBACK_HOSTS = new Set(['127.0.0.1', '::1', 'localhost']);
const EVERY_ADDRESS = new Set(['0.0.0.0', '::']);

/** @throws Error when a server would be open to a network without a passphrase, or with one that protects nothing */
function checkPassphrase({ host, passphrase, token }: StartOptions): void {
  checkSecrets({ ...(passphrase === undefined ? {} : { passphrase }), ...(token === undefined ? {} : { token }) });
  if (LOOPBACK_HOSTS.has(host) || passphrase !== undefined) return;
  throw new Error(
    `--host ${host} opens the server to the network and requires a passphrase of at least ${PASSPHRASE_LENGTH} characters: set ROOF_CHART_PASSPHRASE.`,
  );
}

const bracketed = (address: string): string => (address.includes(':') ? `[${address}]` : address);

/** Accepted host names besides the loopback ones: configured names and the addresses it listens on. An address is safe, because DNS
 *  rebinding needs a name. */
function namesOf({ host, hostNames = [] }: StartOptions): readonly string[] {
  if (LOOPBACK_HOSTS.has(host)) return hostNames;
  const listened = EVERY_ADDRESS.has(host)
    ? [hostname(), ...Object.values(networkInterfaces()).flatMap((all) => (all ?? []).map(({ address }) => bracketed(address)))]
    : [bracketed(host)];
  return [...new Set([...hostNames, ...listened])].filter((name) => !(LOOPBACK_NAMES as readonly string[]).includes(name));
}

export interface Running {
  readonly address: string;
  /** Names that it answers to, besides the loopback ones. */
  readonly names: readonly string[];
  /** Ends open requests, closes the database, gives the data folder free. */
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

const KEEP_ALIVE_MS = 65_000;

function listen(app: ReturnType<typeof createApp>, port: number, host: string): Promise<Server> {
  return new Promise((resolve, reject) => {
    const server = app.listen(port, host);
    // Longer than clients keep a connection: one that is used again just as the server closes it is a request that fails for no reason.
    server.keepAliveTimeout = KEEP_ALIVE_MS;
    server.once('listening', () => resolve(server));
    server.once('error', reject);
  });
}

function close(server: Server): Promise<void> {
  return new Promise((resolve) => {
    server.close(() => resolve());
    server.closeIdleConnections();
    setTimeout(() => server.closeAllConnections(), 2000).unref();
  });
}

/** Locks the data folder, opens the database, installs the examples, and serves on the address.
 *  @throws FolderHeld if another program holds the folder; StartRefused if the database cannot be used; the system error if the port is
 *  in use or the folder cannot be written */
export async function start(options: StartOptions): Promise<Running> {
  checkPassphrase(options);
  const lock = lockFolder(options.dataFolder, 'server', new Date());
  try {
    return await startLocked(options, lock);
  } catch (error) {
    lock.release();
    throw error;
  }
}

async function startLocked(options: StartOptions, lock: FolderLock): Promise<Running> {
  const { dataFolder, log = pino({ level: 'silent' }), backupFolders = [], startEmpty = false } = options;
  const sheets = readCatalogue(options.catalogueFolder);
  await prepareStart(dataFolder, { now: new Date(), backupFolders, startEmpty });
  const database = await openDatabase(databaseFile(dataFolder));
  try {
    const shelf = new SheetRepository(database, sheets);
    shelf.load();
    if (shelf.unreadable.length > 0) log.error({ sheets: shelf.unreadable }, 'own sheets that cannot be read; they are left untouched');
    const store = new PlanStore(database, shelf);
    for (const plan of options.demoFolder ? examples(options.demoFolder) : []) store.placeExample(plan, options.resetDemo ?? false);
    const names = namesOf(options);
    const app = createApp({
      store,
      shelf,
      log,
      hostNames: names,
      ...(options.webFolder ? { webFolder: options.webFolder } : {}),
      ...(options.passphrase === undefined
        ? {}
        : { secrets: { passphrase: options.passphrase, ...(options.token === undefined ? {} : { token: options.token }) } }),
    });
    const server = await listen(app, options.port, options.host);
    const bound = server.address();
    const port = typeof bound === 'object' && bound ? bound.port : options.port;
    const address = `http://${bracketed(options.host)}:${port}/`;
    lock.describe({ address });
    const maintenance = startMaintenance({ database, store, shelf, log, folders: [backupFolder(dataFolder), ...backupFolders] });
    return {
      address,
      names,
      stop: async () => {
        await close(server);
        await maintenance.stop();
        await database.source.destroy();
        lock.release();
      },
    };
  } catch (error) {
    await database.source.destroy();
    throw error;
  }
}
