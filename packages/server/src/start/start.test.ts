import { existsSync, mkdtempSync, readFileSync, rmSync, utimesSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { catalogueFolder } from '../../tests/serve';
import { dailyBackup, isSound, restoreBackup, soundBackups, writeBackup } from '../store/backup';
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

test('a damaged database is set aside untouched, and the last good backup restores it', async () => {
  const data = join(folder, 'damaged');
  await (await start(options(data))).stop();
  const file = join(data, 'roof-chart.sqlite');
  const words = 'this is no database, whatever its name says';
  writeFileSync(file, words);
  const said = await fault(data);
  const [, aside, backup] = /^The database was damaged and is set aside, unchanged, as (\S+)\. The last good backup is (\S+):/.exec(said)!;
  expect([readFileSync(aside!, 'utf8'), existsSync(file)]).toEqual([words, false]);
  restoreBackup(data, backup!, new Date());
  const running = await start(options(data));
  const list = (await (await fetch(`${running.address}api/plans`)).json()) as { plans: { name: string }[] };
  expect(list.plans.map((p) => p.name).sort()).toEqual(['Ferry dial', 'Hive watch', 'Proofing box', 'Workbench scoreboard']);
  await running.stop();
});

test('a truncated database is damaged, too; a half backup is refused and changes nothing', async () => {
  const data = join(folder, 'cut');
  await (await start(options(data))).stop();
  const file = join(data, 'roof-chart.sqlite');
  const whole = readFileSync(file);
  const half = join(folder, 'half.sqlite');
  writeFileSync(half, whole.subarray(0, whole.length / 2));
  expect(() => restoreBackup(data, half, new Date())).toThrow('is not a whole backup; nothing was changed');
  expect(readFileSync(file).equals(whole)).toBe(true);
  writeFileSync(file, whole.subarray(0, whole.length / 2));
  expect(await fault(data)).toMatch(/^The database was damaged and is set aside/);
});

test('restoring keeps the former database, and a backup never overwrites one', async () => {
  const data = join(folder, 'former');
  await (await start(options(data))).stop();
  const copy = join(folder, 'copy.sqlite');
  writeBackup(join(data, 'roof-chart.sqlite'), copy);
  expect(() => writeBackup(join(data, 'roof-chart.sqlite'), copy)).toThrow('exists already');
  const aside = restoreBackup(data, copy, new Date())!;
  expect([isSound(aside), isSound(join(data, 'roof-chart.sqlite'))]).toEqual([true, true]);
});

test('a backup a day, the last seven kept', async () => {
  const data = join(folder, 'daily');
  await (await start(options(data))).stop();
  const day = (n: number) => new Date(Date.now() + n * 25 * 60 * 60 * 1000);
  for (let n = 1; n <= 9; n += 1) {
    dailyBackup(data, day(n));
    dailyBackup(data, day(n));
    const [newest] = soundBackups(data);
    utimesSync(newest!, day(n), day(n));
  }
  expect(soundBackups(data)).toHaveLength(7);
});

test('beyond this machine a passphrase is needed, and asked for', async () => {
  const open = { ...options(join(folder, 'open')), host: '0.0.0.0' };
  expect(await start(open).then(() => 'started', startFault)).toMatch(/a passphrase of at least 12 characters is needed/);
  expect(await start({ ...open, passphrase: 'short' }).then(() => 'started', startFault)).toMatch(/passphrase/);
  const running = await start({ ...open, passphrase: 'correct horse battery', hostNames: ['127.0.0.1'] });
  const address = running.address.replace('0.0.0.0', '127.0.0.1');
  const ask = (words?: string) =>
    fetch(
      `${address}api/plans`,
      words === undefined ? {} : { headers: { Authorization: `Basic ${Buffer.from(`anyone:${words}`).toString('base64')}` } },
    );
  const refused = await ask();
  expect([refused.status, refused.headers.get('WWW-Authenticate')]).toEqual([401, 'Basic realm="Roof Chart", charset="UTF-8"']);
  expect([(await ask('correct horse')).status, (await ask('correct horse battery')).status]).toEqual([401, 200]);
  await running.stop();
});
