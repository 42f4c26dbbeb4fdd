// npm run bench: timings as ratios within one run.
import { join } from 'node:path';
import { checkNode, install, main, PlainFault, root, run, tool } from './steps.mjs';

await main(async () => {
  checkNode();
  await install();
  const { code, output } = await run(process.execPath, [tool('vite/bin/vite.js'), 'build', '--logLevel', 'warn'], {
    cwd: join(root, 'bench'),
    quiet: true,
  });
  if (code !== 0) throw new PlainFault(output);
  const result = await run(process.execPath, [join(root, 'bench/dist/main.mjs')]);
  process.exitCode = result.code;
});
