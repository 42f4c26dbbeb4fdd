// npm run dev: the pages with hot reload and the server, started anew whenever its code or the core changes, behind one address.
import { spawn } from 'node:child_process';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { checkNode, checkWritable, install, main, PlainFault, root } from './steps.mjs';

const HELP = `npm run dev -- [--port N] [--data FOLDER]
  --port N        port on this machine (5173)
  --data FOLDER   folder for the plans (data-dev/)`;

function options() {
  try {
    return parseArgs({
      options: {
        port: { type: 'string', default: '5173' },
        data: { type: 'string', default: join(root, 'data-dev') },
        help: { type: 'boolean', default: false },
      },
    }).values;
  } catch (error) {
    throw new PlainFault(`${error.message}\n${HELP}`);
  }
}

/** A port of this machine that nothing uses. */
function freePort() {
  return new Promise((good, bad) => {
    const probe = createServer();
    probe.once('error', bad);
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address();
      probe.close(() => good(port));
    });
  });
}

/** The server as it was built last; it ends before the next one starts, because a data folder has one server at a time. */
class ApiServer {
  #child;
  #ended = Promise.resolve();

  constructor(port, data) {
    this.args = [join(root, 'packages/server/dist-dev/main.mjs'), '--port', String(port), '--data', data, '--demo', '--api-only'];
  }

  async restart() {
    await this.stop();
    const child = spawn(process.execPath, this.args, { cwd: root, stdio: ['ignore', 'ignore', 'inherit'] });
    this.#child = child;
    this.#ended = new Promise((resolve) => child.once('close', resolve));
  }

  async stop() {
    this.#child?.kill('SIGTERM');
    await this.#ended;
  }
}

await main(async () => {
  checkNode();
  const { port, data, help } = options();
  if (help) return console.log(HELP);
  if (!/^\d{1,5}$/.test(port) || Number(port) > 65535) throw new PlainFault(`--port ${port}: expected a whole number from 0 to 65535.`);
  checkWritable(data, 'It stores the plans: choose another folder with --data.');
  await install();
  const { build, createServer: createVite } = await import('vite');
  const apiPort = await freePort();
  process.env.ROOF_CHART_SERVER = `http://127.0.0.1:${apiPort}`;
  const api = new ApiServer(apiPort, data);

  const watcher = await build({
    root: join(root, 'packages/server'),
    logLevel: 'warn',
    build: { watch: {}, outDir: 'dist-dev' },
  });
  let served = false;
  await new Promise((ready) => {
    watcher.on('event', (event) => {
      if (event.code === 'ERROR') console.error(event.error.message);
      if (event.code !== 'END') return;
      if (served) console.log('The server starts again.');
      served = true;
      void api.restart().then(ready);
    });
  });
  const web = await createVite({
    root: join(root, 'packages/web'),
    logLevel: 'warn',
    server: { host: '127.0.0.1', port: Number(port), strictPort: true },
  });
  await web.listen().catch((error) => {
    throw new PlainFault(`Port ${port} cannot be opened (${error.message}). Choose another with --port.`);
  });
  console.log(`Roof Chart for development is at http://127.0.0.1:${port}/  (Ctrl-C stops it)`);
  const stop = async () => {
    await Promise.all([web.close(), watcher.close(), api.stop()]);
    process.exit(0);
  };
  process.once('SIGINT', () => void stop());
  process.once('SIGTERM', () => void stop());
});
