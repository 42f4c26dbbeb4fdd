import { join, resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { pino } from 'pino';
import { start } from '../start';
import { type Command, root } from './command';
import { CommandFault } from './commandFault';

const OPTIONS = {
  port: { type: 'string', default: '4310' },
  data: { type: 'string', default: join(root, 'data') },
  demo: { type: 'boolean', default: false },
  // For development: the pages come from a server of their own.
  'api-only': { type: 'boolean', default: false },
  'reset-demo': { type: 'boolean', default: false },
  'start-empty': { type: 'boolean', default: false },
  host: { type: 'string', default: '127.0.0.1' },
  'host-name': { type: 'string', multiple: true, default: [] as string[] },
  'backup-folder': { type: 'string', multiple: true, default: [] as string[] },
  log: { type: 'string', default: 'warn' },
  catalogue: { type: 'string', default: join(root, 'packages/catalogue') },
  examples: { type: 'string', default: join(root, 'demo/plans') },
} as const;

const LOG_LEVELS = ['silent', 'error', 'warn', 'info', 'debug'];

function numberOfPort(text: string): number {
  const port = Number(text);
  if (!Number.isInteger(port) || port < 0 || port > 65535)
    throw new CommandFault(`--port ${text}: expected a whole number from 0 to 65535.`);
  return port;
}

const fromEnvironment = (key: 'passphrase' | 'token', name: string) => {
  const value = process.env[name];
  return value === undefined ? {} : { [key]: value };
};

/** Serves the built application until stopped. */
export const serveCommand: Command = {
  name: 'serve',
  usage: 'serve [--port N] [--data FOLDER] [--backup-folder FOLDER] [--host ADDRESS] [--host-name NAME] [--start-empty]',
  summary: 'serves the application (the default command)',
  async run(args) {
    const { values } = parseArgs({ args, options: OPTIONS });
    if (!LOG_LEVELS.includes(values.log)) throw new CommandFault(`--log ${values.log}: expected one of ${LOG_LEVELS.join(', ')}.`);
    const running = await start({
      port: numberOfPort(values.port),
      host: values.host,
      hostNames: values['host-name'],
      dataFolder: resolve(values.data),
      backupFolders: values['backup-folder'].map((folder) => resolve(folder)),
      startEmpty: values['start-empty'],
      catalogueFolder: resolve(values.catalogue),
      ...(values['api-only'] ? {} : { webFolder: join(root, 'packages/web/dist') }),
      log: pino({ level: values.log }),
      ...fromEnvironment('passphrase', 'ROOF_CHART_PASSPHRASE'),
      ...fromEnvironment('token', 'ROOF_CHART_TOKEN'),
      ...(values.demo || values['reset-demo'] ? { demoFolder: resolve(values.examples) } : {}),
      resetDemo: values['reset-demo'],
    });
    const answers = running.names.length > 0 ? ` Accepted host names: ${running.names.join(', ')} and loopback names.` : '';
    console.log(`Roof Chart is at ${running.address}  (Ctrl-C stops it)${answers}`);
    const stop = () => void running.stop().then(() => process.exit(0));
    process.once('SIGINT', stop);
    process.once('SIGTERM', stop);
  },
};
