// npm run demo: from a fresh clone to an address to open.
import { createServer } from 'node:net';
import { join, resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { build, checkNode, checkWritable, install, main, PlainFault, root, run } from './steps.mjs';

const HELP = `npm run demo -- [--port N] [--data FOLDER] [--reset-demo]
  --port N        port on this machine (4310)
  --data FOLDER   folder for the plans (data/)
  --reset-demo    reset the example plans; changed ones are kept as copies`;

function options() {
  try {
    return parseArgs({
      options: {
        port: { type: 'string', default: '4310' },
        data: { type: 'string', default: 'data' },
        'reset-demo': { type: 'boolean', default: false },
        help: { type: 'boolean', default: false },
      },
    }).values;
  } catch (error) {
    throw new PlainFault(`${error.message}\n${HELP}`);
  }
}

function portNumber(text) {
  const port = Number(text);
  if (!Number.isInteger(port) || port < 0 || port > 65535) throw new PlainFault(`--port ${text}: expected a whole number from 0 to 65535.`);
  return port;
}

/** Checked first, so that a port in use is reported before the installation and build. */
function checkPort(port) {
  return new Promise((good, bad) => {
    const probe = createServer();
    probe.once('error', (error) => {
      const words =
        error.code === 'EADDRINUSE'
          ? `Port ${port} is in use. Stop the program that uses it, or choose another with --port.`
          : `Port ${port} cannot be opened (${error.code}). Choose another with --port.`;
      bad(new PlainFault(words));
    });
    probe.listen(port, '127.0.0.1', () => probe.close(good));
  });
}

await main(async () => {
  checkNode();
  const chosen = options();
  if (chosen.help) return console.log(HELP);
  const port = portNumber(chosen.port);
  const data = resolve(process.env.INIT_CWD ?? root, chosen.data === 'data' ? join(root, 'data') : chosen.data);
  await checkPort(port);
  checkWritable(data, 'It stores the plans: choose another folder with --data.');
  await install();
  await build();
  // Ctrl-C also reaches the server through the shared terminal: this process only waits for its end.
  process.on('SIGINT', () => undefined);
  const { code } = await run(process.execPath, [
    join(root, 'packages/server/dist/main.mjs'),
    '--port',
    String(port),
    '--data',
    data,
    '--demo',
    ...(chosen['reset-demo'] ? ['--reset-demo'] : []),
  ]);
  process.exit(code);
});
