import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { pino } from 'pino';
import { DATABASE_FILE, restoreBackup, soundBackups, writeBackup } from '../store/backup';
import { start } from './start';
import { startFault } from './startFault';

const root = resolve(dirname(fileURLToPath(import.meta.url)), '../../..');

const OPTIONS = {
  port: { type: 'string', default: '4310' },
  data: { type: 'string', default: join(root, 'data') },
  demo: { type: 'boolean', default: false },
  'reset-demo': { type: 'boolean', default: false },
  host: { type: 'string', default: '127.0.0.1' },
  'host-name': { type: 'string', multiple: true, default: [] as string[] },
  log: { type: 'string', default: 'warn' },
  catalogue: { type: 'string', default: join(root, 'packages/catalogue') },
  examples: { type: 'string', default: join(root, 'demo/plans') },
} as const;

const LOG_LEVELS = ['silent', 'error', 'warn', 'info', 'debug'];

function numberOfPort(text: string): number {
  const port = Number(text);
  if (!Number.isInteger(port) || port < 0 || port > 65535)
    throw new RangeError(`--port ${text} is not a port: give a whole number from 0 to 65535.`);
  return port;
}

/** Serves the built application until it is told to stop. */
async function serve(args: string[]): Promise<void> {
  const { values } = parseArgs({ args, options: OPTIONS });
  if (!LOG_LEVELS.includes(values.log)) throw new RangeError(`--log ${values.log} is no level: give one of ${LOG_LEVELS.join(', ')}.`);
  const passphrase = process.env['ROOF_CHART_PASSPHRASE'];
  const running = await start({
    port: numberOfPort(values.port),
    host: values.host,
    hostNames: values['host-name'],
    dataFolder: resolve(values.data),
    catalogueFolder: resolve(values.catalogue),
    webFolder: join(root, 'packages/web/dist'),
    log: pino({ level: values.log }),
    ...(passphrase === undefined ? {} : { passphrase }),
    ...(values.demo || values['reset-demo'] ? { demoFolder: resolve(values.examples) } : {}),
    resetDemo: values['reset-demo'],
  });
  console.log(`Roof Chart is at ${running.address}  (Ctrl-C stops it)`);
  const stop = () => void running.stop().then(() => process.exit(0));
  process.once('SIGINT', stop);
  process.once('SIGTERM', stop);
}

const FILES = { data: { type: 'string', default: join(root, 'data') } } as const;

/** `backup FILE`: a complete copy of the database, also while the server runs. */
function backup(args: string[]): void {
  const { values, positionals } = parseArgs({ args, options: FILES, allowPositionals: true });
  const target = resolve(
    positionals[0] ?? join(values.data, 'backups', `by-hand-${new Date().toISOString().replace(/[:.]/g, '-')}.sqlite`),
  );
  writeBackup(join(values.data, DATABASE_FILE), target);
  console.log(`Backup written to ${target}`);
}

/** `restore FILE`: a backup in the place of the database. The server must be stopped. */
function restore(args: string[]): void {
  const { values, positionals } = parseArgs({ args, options: FILES, allowPositionals: true });
  const file = positionals[0];
  if (!file) throw new RangeError(`Which backup? ${soundBackups(values.data).join(', ') || `There is none in ${values.data}.`}`);
  const aside = restoreBackup(resolve(values.data), resolve(file), new Date());
  console.log(`Restored from ${file}.${aside ? ` The former database is kept as ${aside}.` : ''}`);
}

async function main([command, ...args]: string[]): Promise<void> {
  if (command === 'backup') return backup(args);
  if (command === 'restore') return restore(args);
  return serve(command === undefined ? [] : [command, ...args]);
}

main(process.argv.slice(2)).catch((error: unknown) => {
  console.error(startFault(error));
  process.exit(1);
});
