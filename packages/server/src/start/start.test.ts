import { mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { get } from 'node:http';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pino } from 'pino';
import { catalogueFolder } from '../../tests/serve';
import { databaseFile } from '../safety/dataFolder';
import { restoreBackup } from '../safety/restore';
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
    `Port ${port} is in use. Stop the program that uses it, or choose another with --port.`,
  );
  taken.close();
  const file = join(folder, 'file');
  writeFileSync(file, 'x');
  expect(await fault(join(file, 'data'))).toMatch(/^The folder or file .* cannot be used \(ENOTDIR\)/);
});

test('a damaged database is told with where it is and what restores it', async () => {
  const data = join(folder, 'damaged');
  await (await start(options(data))).stop();
  writeFileSync(databaseFile(data), 'this is no database, whatever its name says. '.repeat(50));
  const said = await fault(data);
  expect(said).toMatch(
    /^The database is damaged \(file is not a database\); it was set aside unchanged as \S+\. The newest valid backup is \S+ of \d{4}-.* UTC with 4 plans: npm run restore -- \S+ To start without plans, use --start-empty\.$/,
  );
  const [, backup] = /npm run restore -- (\S+)/.exec(said)!;
  expect(await fault(data)).toMatch(/^The database .* is missing although plans were stored before\. The newest valid backup is/);
  restoreBackup(data, backup!, new Date());
  const running = await start(options(data));
  const list = (await (await fetch(`${running.address}api/plans`)).json()) as { plans: { name: string }[] };
  expect(list.plans.map((p) => p.name).sort()).toEqual(['Ferry dial', 'Hive watch', 'Proofing box', 'Workbench scoreboard']);
  await running.stop();
});

test('a second server on a data folder is told who holds it', async () => {
  const data = join(folder, 'held');
  const running = await start(options(data));
  expect(await fault(data)).toBe(
    `The data folder ${data} is in use by Roof Chart server at ${running.address} (process ${process.pid}, since ${new Date().toISOString().slice(0, 10)} ${/since \S+ (\S+) UTC/.exec(await fault(data))![1]} UTC). Stop it first, or choose another folder with --data.`,
  );
  await running.stop();
  await (await start(options(data))).stop();
});

test('a reset of the examples begins another epoch', async () => {
  const data = join(folder, 'reset');
  const tag = async (running: { address: string }) =>
    (await fetch(`${running.address}api/plans/hive-watch`)).headers.get('ETag')!.split('-')[1];
  let running = await start(options(data));
  const before = await tag(running);
  await running.stop();
  running = await start(options(data));
  expect(await tag(running)).toBe(before);
  await running.stop();
  running = await start({ ...options(data), resetDemo: true });
  expect(await tag(running)).not.toBe(before);
  await running.stop();
});

test('a place for backups that cannot be written is a warning, not the end', async () => {
  const data = join(folder, 'warned');
  const blocked = join(folder, 'blocked');
  writeFileSync(blocked, 'x');
  const lines: string[] = [];
  const log = pino({ level: 'warn' }, { write: (line: string) => void lines.push(line) });
  const running = await start({ ...options(data), backupFolders: [blocked], log });
  await running.stop();
  expect(lines.join()).toMatch(/No backup could be written to .*blocked/);
  expect(readdirSync(join(data, 'backups'))).toHaveLength(1);
});

test('beyond this machine a passphrase is needed, and asked for', async () => {
  const open = { ...options(join(folder, 'open')), host: '0.0.0.0' };
  expect(await start(open).then(() => 'started', startFault)).toMatch(/requires a passphrase of at least 12 characters/);
  expect(await start({ ...open, passphrase: 'short' }).then(() => 'started', startFault)).toMatch(
    /ROOF_CHART_PASSPHRASE must have at least 12/,
  );
  const running = await start({ ...open, passphrase: 'correct horse battery', hostNames: ['Bench.local'] });
  const port = new URL(running.address).port;
  expect(running.names).toContain('Bench.local');
  const statusFor = (host: string) =>
    new Promise<number | undefined>((resolve) =>
      get({ host: '127.0.0.1', port, path: '/api/health', headers: { Host: host } }, (res) => {
        res.resume();
        resolve(res.statusCode);
      }),
    );
  expect(await Promise.all(['bench.local', `127.0.0.1:${port}`, 'localhost', 'evil.example'].map(statusFor))).toEqual([200, 200, 200, 403]);
  expect((await fetch(`http://127.0.0.1:${port}/api/plans`)).status).toBe(401);
  await running.stop();
});

test('a passphrase that is set is asked for on loopback, too, and names that are told are answered to', async () => {
  const running = await start({ ...options(join(folder, 'asked')), passphrase: 'correct horse battery', hostNames: ['plans.example'] });
  expect([running.names, (await fetch(`${running.address}api/plans`)).status]).toEqual([['plans.example'], 401]);
  await running.stop();
});
