import { chmodSync, copyFileSync, existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import fc from 'fast-check';
import { readCatalogue } from '@roof-chart/catalogue/readCatalogue';
import { indexSheets } from '@roof-chart/core/sheets/sheetIndex';
import { catalogueFolder, editOnce } from '../../tests/serve';
import { openDatabase } from '../store/database';
import { readEpoch } from '../store/epoch';
import { PlanStore } from '../store/planStore';
import { backUpFile, dailyBackups, soundBackups } from './backups';
import { backupFolder, DATABASE_FILE, databaseFile } from './dataFolder';
import { databaseState } from './databaseState';
import { FolderHeld, lockFolder } from './folderLock';
import { prepareStart } from './prepareStart';
import { restoreBackup } from './restore';
import { verifyDatabase } from './verify';

const shipped = readCatalogue(catalogueFolder);
const sheets = { current: indexSheets(shipped) };
const root = mkdtempSync(join(tmpdir(), 'roof-chart-safety-'));
afterAll(() => rmSync(root, { recursive: true, force: true }));
let count = 0;
const newFolder = () => {
  const folder = join(root, `folder-${(count += 1)}`);
  mkdirSync(folder);
  return folder;
};

/** A data folder with plans of these names, each edited a few times. */
async function folderWith(...names: string[]): Promise<string> {
  const folder = newFolder();
  const database = await openDatabase(databaseFile(folder));
  const store = new PlanStore(database, sheets);
  for (const name of names) {
    const { plan } = store.createEmpty(name, { id: 'rp2040-stick-40', version: 1 });
    for (let n = 1; n <= 5; n += 1) editOnce(store, plan.id, n, `b${n}`, [{ kind: 'rename-plan', name: n < 5 ? `${name} ${n}` : name }]);
  }
  await database.source.destroy();
  return folder;
}

async function names(folder: string): Promise<readonly string[]> {
  const database = await openDatabase(databaseFile(folder));
  const { plans } = await new PlanStore(database, sheets).list(100, 0);
  await database.source.destroy();
  return plans.map((plan) => plan.name).sort();
}

const now = new Date('2026-11-26T10:00:00Z');
const policy = { now, backupFolders: [], startEmpty: false };
const refusal = (folder: string, more: object = {}) =>
  prepareStart(folder, { ...policy, ...more }).then(
    () => 'started',
    (error: { kind?: string; facts?: object }) => ({ kind: error.kind, facts: error.facts }),
  );

describe('one program a data folder', () => {
  test('a second one is told who holds it, and may have it afterwards', () => {
    const folder = newFolder();
    const lock = lockFolder(folder, 'server', now);
    lock.describe({ address: 'http://127.0.0.1:4310/' });
    let held: unknown;
    try {
      lockFolder(folder, 'restore', now);
    } catch (error) {
      held = error;
    }
    expect(held).toBeInstanceOf(FolderHeld);
    expect((held as Error).message).toBe(
      `The data folder ${folder} is in use by Roof Chart server at http://127.0.0.1:4310/ (process ${process.pid}, since 2026-11-26 10:00 UTC).`,
    );
    lock.release();
    lockFolder(folder, 'restore', now).release();
  });
});

describe('what a file is', () => {
  const state = (file: string) => databaseState(file).kind;

  test('sound, missing, empty, foreign, newer, damaged are told apart', async () => {
    const folder = await folderWith('A');
    const file = databaseFile(folder);
    expect(databaseState(file)).toEqual({ kind: 'sound', plans: 1, pendingMigrations: false });
    expect(state(join(folder, 'none.sqlite'))).toBe('missing');
    const other = (name: string, text: string) => {
      const path = join(folder, name);
      const database = new Database(path);
      database.exec(text);
      database.close();
      return path;
    };
    writeFileSync(join(folder, 'zero.sqlite'), '');
    expect(state(join(folder, 'zero.sqlite'))).toBe('empty');
    expect(state(other('created.sqlite', 'PRAGMA user_version = 1'))).toBe('empty');
    expect(state(other('foreign.sqlite', 'CREATE TABLE songs (title TEXT)'))).toBe('foreign');
    copyFileSync(file, join(folder, 'newer.sqlite'));
    expect(state(other('newer.sqlite', "INSERT INTO migrations (timestamp, name) VALUES (1, 'FromTheFuture1')"))).toBe('newer');
    writeFileSync(join(folder, 'words.sqlite'), 'this is no database, whatever its name says. '.repeat(50));
    expect(state(join(folder, 'words.sqlite'))).toBe('damaged');
    mkdirSync(join(folder, 'folder.sqlite'));
    expect(state(join(folder, 'folder.sqlite'))).toBe('unreadable');
  });

  test('a file in use by another program is not damaged', async () => {
    const file = databaseFile(await folderWith('A'));
    const holder = new Database(file);
    holder.pragma('locking_mode = EXCLUSIVE');
    holder.exec('BEGIN EXCLUSIVE');
    expect(state(file)).toBe('locked');
    holder.close();
    expect(state(file)).toBe('sound');
  });

  test('of 20 damages none goes unnoticed: found at the start, found by verify, or every plan is as it was', async () => {
    const source = await folderWith('A', 'B', 'C');
    const whole = readFileSync(databaseFile(source));
    const seen = { damaged: 0, verified: 0, harmless: 0 };
    await fc.assert(
      fc.asyncProperty(
        fc.constantFrom('cut', 'zeros', 'noise'),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.integer({ min: 1, max: 4000 }),
        async (how, place, length) => {
          const folder = newFolder();
          const at = Math.floor(place * whole.length);
          const bytes = Buffer.from(whole);
          if (how === 'zeros') bytes.fill(0, at, Math.min(bytes.length, at + length));
          if (how === 'noise') for (let n = at; n < Math.min(bytes.length, at + length); n += 1) bytes[n] = (bytes[n]! * 31 + n) & 255;
          writeFileSync(databaseFile(folder), how === 'cut' ? bytes.subarray(0, at) : bytes);
          const { kind } = databaseState(databaseFile(folder));
          if (kind !== 'sound') {
            expect(['damaged', 'empty', 'foreign']).toContain(kind);
            seen.damaged += 1;
            return;
          }
          const database = await openDatabase(databaseFile(folder));
          try {
            const { faults } = await verifyDatabase(databaseFile(folder), database, shipped);
            if (faults.length > 0) seen.verified += 1;
            else {
              const store = new PlanStore(database, sheets);
              const { plans } = await store.list(100, 0);
              expect(plans.map((plan) => store.read(plan.id)!.plan.name).sort()).toEqual(['A', 'B', 'C']);
              seen.harmless += 1;
            }
          } finally {
            await database.source.destroy();
          }
        },
      ),
      { numRuns: 20 },
    );
    // Otherwise the damages were too gentle to show anything.
    expect(seen.damaged).toBeGreaterThan(5);
  }, 60_000);
});

describe('before a start', () => {
  test('a damaged database is set aside unchanged, the newest sound backup is named with its plans', async () => {
    const folder = await folderWith('A', 'B');
    await backUpFile(databaseFile(folder), join(backupFolder(folder), 'daily-2026-11-25T10-00-00-000Z.sqlite'));
    writeFileSync(join(backupFolder(folder), 'daily-2026-11-26T10-00-00-000Z.sqlite'), 'half a backup');
    const words = 'this is no database, whatever its name says. '.repeat(50);
    writeFileSync(databaseFile(folder), words);
    const said = (await refusal(folder)) as { kind: string; facts: { aside: string; backup: object } };
    expect(said).toMatchObject({
      kind: 'damaged',
      facts: { backup: { plans: 2, at: new Date('2026-11-25T10:00:00Z') } },
    });
    expect([readFileSync(said.facts.aside, 'utf8'), existsSync(databaseFile(folder))]).toEqual([words, false]);
    // Nothing begins empty where there were plans, unless somebody says so.
    expect(await refusal(folder)).toMatchObject({ kind: 'empty', facts: { backup: { plans: 2 } } });
    expect(await refusal(folder, { startEmpty: true })).toBe('started');
  });

  test('a new folder, and one whose start was cut off after the file was created, begin', async () => {
    expect(await refusal(newFolder())).toBe('started');
    const folder = newFolder();
    writeFileSync(databaseFile(folder), '');
    expect(await refusal(folder)).toBe('started');
  });

  test('a set-aside database alone says that there were plans', async () => {
    const folder = newFolder();
    writeFileSync(join(folder, 'damaged-2026-11-25T10-00-00-000Z.sqlite'), 'x');
    expect(await refusal(folder)).toMatchObject({ kind: 'empty', facts: { backup: undefined } });
  });

  test('before the schema changes a backup is made, and kept from rotation', async () => {
    const folder = await folderWith('A');
    const database = await openDatabase(databaseFile(folder));
    await database.source.undoLastMigration();
    await database.source.destroy();
    expect(await refusal(folder)).toBe('started');
    const made = readdirSync(backupFolder(folder));
    expect(made).toEqual(['before-migration-2026-11-26T10-00-00-000Z.sqlite']);
    expect(databaseState(join(backupFolder(folder), made[0]!))).toMatchObject({ kind: 'sound', plans: 1, pendingMigrations: true });
    expect(await names(folder)).toEqual(['A']);
  });

  test('a foreign or later database is left alone', async () => {
    const folder = newFolder();
    const database = new Database(databaseFile(folder));
    database.exec('CREATE TABLE songs (title TEXT)');
    database.close();
    expect(await refusal(folder)).toMatchObject({ kind: 'foreign' });
    expect(readdirSync(folder)).toEqual([DATABASE_FILE]);
  });
});

describe('restore', () => {
  test('the former database is kept, and the restored one begins another epoch', async () => {
    const folder = await folderWith('A');
    const copy = join(root, 'copy.sqlite');
    await backUpFile(databaseFile(folder), copy);
    await expect(backUpFile(databaseFile(folder), copy)).rejects.toThrow('already exists');
    const epochOf = (file: string) => {
      const database = new Database(file, { readonly: true });
      const epoch = readEpoch(database);
      database.close();
      return epoch;
    };
    const other = await folderWith('B');
    const { aside, plans } = restoreBackup(other, copy, now);
    expect([plans, databaseState(aside!).kind, await names(other)]).toEqual([1, 'sound', ['A']]);
    expect(epochOf(databaseFile(other))).not.toBe(epochOf(copy));
    expect(readdirSync(other).filter((name) => name.includes('unfinished'))).toEqual([]);
  });

  test('a set-aside database with its log is restored with what is only in the log', async () => {
    const folder = await folderWith('A');
    const writer = new Database(databaseFile(folder));
    writer.exec("UPDATE plans SET name = 'In the log'");
    const other = newFolder();
    for (const tail of ['', '-wal']) copyFileSync(databaseFile(folder) + tail, join(other, `aside.sqlite${tail}`));
    writer.close();
    restoreBackup(other, join(other, 'aside.sqlite'), now);
    expect(await names(other)).toEqual(['In the log']);
  });

  test.each([
    ['half a backup', (bytes: Buffer) => bytes.subarray(0, bytes.length / 2), /is damaged/],
    ['words', () => Buffer.from('no database. '.repeat(100)), /is damaged/],
    ['nothing', () => Buffer.alloc(0), /is not a Roof Chart database/],
  ])('%s is refused, and the present database stays in its place', async (_, change, words) => {
    const folder = await folderWith('A');
    const bad = join(newFolder(), 'bad.sqlite');
    writeFileSync(bad, change(readFileSync(databaseFile(folder))));
    const before = readdirSync(folder).sort();
    expect(() => restoreBackup(folder, bad, now)).toThrow(words);
    expect(() => restoreBackup(folder, bad, now)).toThrow('The current database is unchanged.');
    expect(readdirSync(folder).sort()).toEqual(before);
    expect(await names(folder)).toEqual(['A']);
  });

  test('a folder that cannot be written keeps its database, and is told truthfully', async () => {
    const folder = await folderWith('A');
    const copy = join(newFolder(), 'copy.sqlite');
    await backUpFile(databaseFile(folder), copy);
    // A folder in the place of the copy: writing there fails, for root, too.
    mkdirSync(join(folder, 'restoring-2026-11-26T10-00-00-000Z.sqlite.unfinished'));
    expect(() => restoreBackup(folder, copy, now)).toThrow(/^Not restored: .* The current database is unchanged\.$/);
    expect(await names(folder)).toEqual(['A']);
  });
});

describe('daily backups', () => {
  const day = (n: number) => new Date(now.getTime() + n * 24 * 60 * 60 * 1000);

  test('one a day, the last seven kept; files of other names and times in the future are left alone', async () => {
    const data = await folderWith('A');
    const { connection, source } = await openDatabase(databaseFile(data));
    const folder = backupFolder(data);
    mkdirSync(folder);
    const own = ['by-hand.sqlite', 'daily-notes.sqlite', 'letters.txt'];
    for (const name of own) writeFileSync(join(folder, name), 'mine');
    writeFileSync(join(folder, 'daily-2031-01-01T00-00-00-000Z.sqlite'), 'made while the clock was wrong');
    for (let n = 0; n < 10; n += 1) for (const _ of [1, 2]) expect(await dailyBackups(connection, [folder], day(n))).toEqual([]);
    await source.destroy();
    const daily = readdirSync(folder).filter((name) => /^daily-2/.test(name));
    // The one of the future counts as the newest of the seven.
    expect(daily).toHaveLength(7);
    expect(own.every((name) => readFileSync(join(folder, name), 'utf8') === 'mine')).toBe(true);
    expect([...soundBackups(data)].map((backup) => backup.at)[0]).toEqual(day(9));
  });

  test('a place that cannot be written is told; the other place still gets its backup', async () => {
    const data = await folderWith('A');
    const { connection, source } = await openDatabase(databaseFile(data));
    const blocked = join(newFolder(), 'file');
    writeFileSync(blocked, 'x');
    chmodSync(blocked, 0o400);
    const second = newFolder();
    const failed = await dailyBackups(connection, [join(blocked, 'in'), second], now);
    await source.destroy();
    expect(failed).toEqual([expect.stringMatching(/^No backup could be written to .*\. Plans are not affected\.$/)]);
    expect(readdirSync(second)).toEqual(['daily-2026-11-26T10-00-00-000Z.sqlite']);
    expect([...soundBackups(newFolder(), [second])]).toHaveLength(1);
  });
});

describe('verify', () => {
  const verify = async (folder: string, change: (database: Database.Database) => void = () => undefined) => {
    const database = await openDatabase(databaseFile(folder));
    change(database.connection);
    const found = await verifyDatabase(databaseFile(folder), database, shipped);
    await database.source.destroy();
    return found;
  };

  test('a sound database has no faults, and every log replays', async () => {
    expect(await verify(await folderWith('A', 'B'))).toEqual({ plans: 2, versions: 0, sheets: 0, replayed: 2, faults: [], remarks: [] });
  });

  test.each([
    [
      'a document',
      "UPDATE plans SET document = replace(document, 'rp2040', 'rp2350')",
      [/^The document of plan .* does not match its checksum/, /^Plan .*: a stored document/],
    ],
    [
      'a logged edit',
      "UPDATE batches SET edits = replace(edits, 'A 3', 'A 9') WHERE revision = 4",
      [/^Plan .*: a logged edit does not match its checksum/],
    ],
    ['a gap in the log', 'DELETE FROM batches WHERE revision = 3', [/^Plan .*: the log has a gap/]],
    ['an index', 'DROP INDEX plans_recent', [/^Schema: index plans_recent/]],
    ['a table too many', 'CREATE TABLE songs (title TEXT)', [/^Schema: table songs/]],
  ])('a change of %s is found', async (_, sql, faults) => {
    const found = await verify(await folderWith('A'), (database) => database.exec(sql));
    expect(found.faults).toEqual(faults.map((fault) => expect.stringMatching(fault)));
  });

  test('a document changed together with its checksum differs from the replay of its log', async () => {
    const { checksum } = await import('../store/checksum');
    const found = await verify(await folderWith('A'), (database) => {
      const { document } = database.prepare('SELECT document FROM plans').get() as { document: string };
      const other = document.replace('"name":"A"', '"name":"Z"');
      database.prepare('UPDATE plans SET document = ?, checksum = ?').run(other, checksum(other));
    });
    expect(found.faults).toEqual([expect.stringMatching(/its document differs from the replay of its log/)]);
  });
});
