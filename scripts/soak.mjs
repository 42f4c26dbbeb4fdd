// npm run soak [-- WORDS]: what takes too long for npm test, larger. With words only the parts that have one in their name.
import { build, checkNode, install, main, PlainFault, run, tool } from './steps.mjs';

const PARTS = [
  ['1 000 kills of the server', [process.execPath, 'e2e/faults/kills.mjs', '--kills', '1000'], {}],
  ['full disks', [process.execPath, 'e2e/faults/fullDisk.mjs'], {}],
  ['a data folder in use', [process.execPath, 'e2e/faults/folder.mjs'], {}],
  [
    'a million fuzzed inputs',
    [process.execPath, tool('jest/bin/jest.js'), 'packages/core/src/outputs/fuzz'],
    { ROOF_CHART_FUZZ: '1000000' },
  ],
  ['properties, ten times as often', [process.execPath, tool('jest/bin/jest.js'), '--testTimeout=7200000'], { ROOF_CHART_SOAK: '1' }],
  [
    '10 000 interleaved edits',
    [process.execPath, tool('jest/bin/jest.js'), 'packages/server/src/api/interleaved'],
    { ROOF_CHART_INTERLEAVED: '5000' },
  ],
];

await main(async () => {
  checkNode();
  await install();
  await build();
  const wanted = process.argv.slice(2);
  const failed = [];
  for (const [name, [command, ...args], env] of PARTS) {
    if (wanted.length > 0 && !wanted.some((word) => name.includes(word))) continue;
    console.log(`\n${name}`);
    const { code } = await run(command, args, { env });
    if (code !== 0) failed.push(name);
  }
  if (failed.length > 0) throw new PlainFault(`Failed: ${failed.join(', ')}.`);
});
