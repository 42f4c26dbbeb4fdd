// npm run bench: timings as ratios within one run, the browser, the server, and kills of the server.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { build, checkNode, install, main, PlainFault, root, run, tool } from './steps.mjs';

const KILLS = process.argv.includes('--quick') ? '20' : '500';

async function must(args) {
  const { code } = await run(process.execPath, args);
  if (code !== 0) throw new PlainFault(`${args[0]} failed.`);
}

await main(async () => {
  checkNode();
  await install();
  await build();
  const { code, output } = await run(process.execPath, [tool('vite/bin/vite.js'), 'build', '--logLevel', 'warn'], {
    cwd: join(root, 'bench'),
    quiet: true,
  });
  if (code !== 0) throw new PlainFault(output);
  const folder = mkdtempSync(join(tmpdir(), 'roof-chart-large-'));
  try {
    await must([join(root, 'bench/dist/main.mjs'), folder]);
    await must([join(root, 'bench/browser.mjs'), folder]);
    await must([join(root, 'e2e/faults/kills.mjs'), '--kills', KILLS]);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
});
