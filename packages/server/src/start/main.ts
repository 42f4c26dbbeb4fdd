import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { start } from './start';
import { startFault } from './startFault';

const root = resolve(dirname(fileURLToPath(import.meta.url)), '../../..');

const OPTIONS = {
  port: { type: 'string', default: '4310' },
  data: { type: 'string', default: join(root, 'data') },
  demo: { type: 'boolean', default: false },
  'reset-demo': { type: 'boolean', default: false },
} as const;

/** Serves the built application until it is told to stop. Prints the address, or one plain sentence and exits with 1. */
async function main(): Promise<void> {
  const { values } = parseArgs({ options: OPTIONS });
  const port = Number(values.port);
  if (!Number.isInteger(port) || port < 0 || port > 65535)
    throw new RangeError(`--port ${values.port} is not a port: give a whole number from 0 to 65535.`);
  const running = await start({
    port,
    host: '127.0.0.1',
    dataFolder: resolve(values.data),
    catalogueFolder: join(root, 'packages/catalogue'),
    webFolder: join(root, 'packages/web/dist'),
    ...(values.demo || values['reset-demo'] ? { demoFolder: join(root, 'demo/plans') } : {}),
    resetDemo: values['reset-demo'],
  });
  console.log(`Roof Chart is at ${running.address}  (Ctrl-C stops it)`);
  const stop = () => void running.stop().then(() => process.exit(0));
  process.once('SIGINT', stop);
  process.once('SIGTERM', stop);
}

main().catch((error: unknown) => {
  console.error(startFault(error));
  process.exit(1);
});
