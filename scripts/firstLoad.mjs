// The script that a browser loads before it paints for the first time, compressed: the entry of the built page and what it imports at once.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { main, PlainFault, root } from './steps.mjs';

const BUDGET_BYTES = 300_000;

await main(() => {
  const dist = join(root, 'packages/web/dist');
  const page = readFileSync(join(dist, 'index.html'), 'utf8');
  const scripts = [...page.matchAll(/(?:src|href)="\/(assets\/[^"]+\.js)"/g)].map(([, path]) => path);
  if (scripts.length === 0) throw new PlainFault('The built page has no script.');
  const sizes = scripts.map((path) => ({ path, bytes: gzipSync(readFileSync(join(dist, path)), { level: 9 }).length }));
  const total = sizes.reduce((sum, { bytes }) => sum + bytes, 0);
  console.log(`First load: ${(total / 1000).toFixed(0)} kB of script, compressed (at most ${BUDGET_BYTES / 1000} kB)`);
  if (total <= BUDGET_BYTES) return;
  for (const { path, bytes } of sizes.toSorted((a, b) => b.bytes - a.bytes)) console.log(`  ${(bytes / 1000).toFixed(1)} kB ${path}`);
  throw new PlainFault(`${total - BUDGET_BYTES} bytes too many: load what the first picture does not need by import().`);
});
