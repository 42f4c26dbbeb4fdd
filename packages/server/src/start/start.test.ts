import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { catalogueFolder } from '../../tests/serve';
import { start } from './start';
import { startFault } from './startFault';

const folder = mkdtempSync(join(tmpdir(), 'roof-chart-start-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const demoFolder = join(__dirname, '../../../../demo/plans');
const options = (dataFolder: string, port = 0) => ({ port, host: '127.0.0.1', dataFolder, catalogueFolder, demoFolder });
const fault = (dataFolder: string, port = 0) => start(options(dataFolder, port)).then(() => 'started', startFault);

test('serves the examples on loopback and stops gracefully', async () => {
  const running = await start(options(join(folder, 'a')));
  const list = (await (await fetch(`${running.address}api/plans`)).json()) as { plans: { name: string }[] };
  expect(list.plans.map((p) => p.name)).toContain('Hive watch');
  await running.stop();
  await expect(fetch(`${running.address}api/health`)).rejects.toThrow();
  // Stopped means closed: the next one opens the same file.
  await (await start(options(join(folder, 'a')))).stop();
});

test('what hinders the start is one plain sentence', async () => {
  const taken = createServer();
  await new Promise<void>((resolve) => taken.listen(0, '127.0.0.1', resolve));
  const { port } = taken.address() as { port: number };
  expect(await fault(join(folder, 'b'), port)).toBe(
    `Port ${port} is in use. Stop the program that holds it, or choose another with --port.`,
  );
  taken.close();
  const file = join(folder, 'file');
  writeFileSync(file, 'x');
  expect(await fault(join(file, 'data'))).toMatch(/^The data folder .* cannot be used/);
});

test('a damaged database is left as it is', async () => {
  const damaged = join(folder, 'damaged');
  await (await start(options(damaged))).stop();
  const file = join(damaged, 'roof-chart.sqlite');
  writeFileSync(file, 'this is no database, whatever its name says');
  expect(await fault(damaged)).toMatch(/^The database file is damaged and was left as it is/);
  expect(readFileSync(file, 'utf8')).toMatch(/^this is no database/);
});
