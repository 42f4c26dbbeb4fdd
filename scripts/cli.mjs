// npm run -s cli -- COMMAND: the command line, built when its sources have changed.
import { join } from 'node:path';
import { checkNode, install, main, root, buildPart } from './steps.mjs';

await main(async () => {
  checkNode();
  await install();
  await buildPart('cli');
  const { runCli } = await import(join(root, 'packages/cli/dist/main.mjs'));
  process.exitCode = await runCli(process.argv.slice(2));
});
