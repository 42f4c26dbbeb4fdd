// npm run demo: from a fresh clone to an address to open.
import { createServer } from 'node:net';
import { join, resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { build, checkNode, checkWritable, install, main, PlainFault, root, run } from './steps.mjs';

const HELP = `npm run demo -- [--port N] [--data FOLDER] [--reset-demo]
  --port N        port on this machine (4310)
  --data FOLDER   where plans are kept (data/)
  --reset-demo    put the example plan back as it was; a changed one is kept as a copy`;

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
  if (!Number.isInteger(port) || port < 0 || port > 65535)
    throw new PlainFault(`--port ${text} is not a port: give a whole number from 0 to 65535.`);
  return port;
}

/** Asked before anything long is done: nobody should wait minutes to hear that the port is taken. */
function checkPort(port) {
  return new Promise((good, bad) => {
    const probe = createServer();
    probe.once('error', (error) => {
      const words =
        error.code === 'EADDRINUSE'
          ? `Port ${port} is in use. Stop the program that holds it, or choose another with --port.`
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
  checkWritable(data, 'Plans are kept there: choose another folder with --data.');
  await install();
  await build();
  // Ctrl-C reaches the server, too, as it shares the terminal: this process only waits for its end.
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
