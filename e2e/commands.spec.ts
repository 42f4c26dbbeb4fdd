import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';

const root = process.cwd();

function run(args: string[]): Promise<{ code: number | null; output: string }> {
  return new Promise((resolve) => {
    const child = spawn(process.execPath, args, { cwd: root });
    let output = '';
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk: Buffer) => (output += chunk.toString()));
    child.on('close', (code) => resolve({ code, output: output.trim() }));
  });
}

test('the demo says in one plain sentence what hinders it', async () => {
  const taken = createServer();
  await new Promise<void>((resolve) => taken.listen(0, '127.0.0.1', resolve));
  const { port } = taken.address() as { port: number };
  expect(await run(['scripts/demo.mjs', '--port', String(port)])).toEqual({
    code: 1,
    output: `Port ${port} is in use. Stop the program that uses it, or choose another with --port.`,
  });
  taken.close();
  expect(await run(['scripts/demo.mjs', '--port', '99999'])).toEqual({
    code: 1,
    output: '--port 99999: expected a whole number from 0 to 65535.',
  });
  const file = join(mkdtempSync(join(tmpdir(), 'roof-chart-')), 'file');
  writeFileSync(file, '');
  expect(await run(['scripts/demo.mjs', '--port', '0', '--data', join(file, 'data')])).toEqual({
    code: 1,
    output: `The folder ${join(file, 'data')} cannot be written. It stores the plans: choose another folder with --data.`,
  });
  expect((await run(['scripts/demo.mjs', '--colour', 'red'])).output).toMatch(/^Unknown option '--colour'/);
});

test('an old Node is told so', async () => {
  const old =
    "Object.defineProperty(process.versions, 'node', { value: '18.19.0' }); const { checkNode, main } = await import('./scripts/steps.mjs'); await main(() => checkNode());";
  expect(await run(['--input-type=module', '-e', old])).toEqual({
    code: 1,
    output: 'Node 18.19.0 is too old: Roof Chart needs 20.19 or newer.',
  });
});

test('what cannot be written is an error with a sentence and exit code 2, never half a success', () => {
  const shell = (command: string) =>
    spawnSync('bash', ['-c', command], {
      cwd: root,
      encoding: 'utf8',
      env: { ...process.env, CLI: `${process.execPath} scripts/cli.mjs` },
    });
  const full = shell('$CLI sheets > /dev/full');
  expect([full.status, full.stderr.trim().split('\n').at(-1)]).toEqual([2, 'Standard output cannot be written: the disk is full.']);
  const closed = shell('$CLI sheets --json | true; echo "${PIPESTATUS[0]}"');
  expect([closed.stdout.trim(), closed.stderr]).toEqual(['2', expect.stringContaining('the reading program has ended')]);
  expect(full.stderr + closed.stderr).not.toMatch(/^\s+at /m);
});
