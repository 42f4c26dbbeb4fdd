import { MIGRATIONS } from './migrations';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { applyEdits } from '@roof-chart/core/plan/applyEdits';
import type { Edit } from '@roof-chart/core/plan/edit';
import { type Plan, PLAN_DEFAULTS } from '@roof-chart/core/plan/plan';
import { editOnce, serve, type Served } from '../../tests/serve';
import { openDatabase } from './database';
import { BatchEntity } from './rows';

let served: Served;
beforeEach(async () => {
  served = await serve();
});
afterEach(() => served.close());

const file = readFileSync(join(__dirname, '../../../../demo/plans/hive-watch.json'), 'utf8');
const hive: Plan = { ...PLAN_DEFAULTS, ...(JSON.parse(file) as Plan) };
const rename = (name: string): Edit[] => [{ kind: 'rename-plan', name }];

test('the file is in WAL mode with full sync', async () => {
  const pragma = async (name: string) => Object.values((await served.database.source.query<object[]>(`PRAGMA ${name}`))[0]!)[0] as unknown;
  expect([await pragma('journal_mode'), await pragma('synchronous'), await pragma('foreign_keys')]).toEqual(['wal', 2, 1]);
});

test('migrations go down and up again without a trace', async () => {
  const tables = async () =>
    (
      await served.database.source.query<{ name: string }[]>(
        "SELECT name FROM sqlite_master WHERE type = 'table' AND name IN ('plans','batches','bases','checkpoints') ORDER BY name",
      )
    ).map((r) => r.name);
  expect(await tables()).toEqual(['bases', 'batches', 'checkpoints', 'plans']);
  for (const _ of MIGRATIONS) await served.database.source.undoLastMigration();
  expect(await tables()).toEqual([]);
  await served.database.source.runMigrations();
  expect(await tables()).toEqual(['bases', 'batches', 'checkpoints', 'plans']);
});

test('every batch is logged with what takes it back', async () => {
  served.store.create(hive);
  editOnce(served.store, hive.id, 1, 'b1', [{ kind: 'remove-placement', placement: 'clock-1' }]);
  const log = await served.database.source.getRepository(BatchEntity).findBy({ planId: hive.id });
  const now = served.store.read(hive.id)!.plan;
  const back = applyEdits(now, JSON.parse(log[0]!.inverse) as Edit[], served.sheets);
  expect(back).toMatchObject({ ok: true });
  expect((back as { plan: Plan }).plan).toEqual(hive);
});

test('what was acknowledged is there for the next process', async () => {
  served.store.create(hive);
  editOnce(served.store, hive.id, 1, 'b1', rename('Hive two'));
  // A second connection without closing the first: only what is on the disk is seen.
  const other = await openDatabase(join(served.folder, 'test.sqlite'));
  expect(await other.source.query('SELECT name, revision FROM plans')).toEqual([{ name: 'Hive two', revision: 2 }]);
  await other.source.destroy();
});

test('a write that fails in the middle leaves plan and log as they were', async () => {
  served.store.create(hive);
  await served.database.source.query("CREATE TRIGGER broken BEFORE INSERT ON batches BEGIN SELECT RAISE(ABORT, 'no space'); END");
  expect(() => editOnce(served.store, hive.id, 1, 'b1', rename('Lost'))).toThrow('no space');
  expect(served.store.read(hive.id)).toEqual({ plan: hive, revision: 1, epoch: served.store.epoch, recent: [] });
  await served.database.source.query('DROP TRIGGER broken');
  expect(editOnce(served.store, hive.id, 1, 'b2', rename('Kept'))).toEqual({ kind: 'done', revision: 2 });
});

test('the recent batches of a plan are its own, and what is sent again is answered with the revision that it made', () => {
  const other = { ...hive, id: 'other-plan' };
  served.store.create(hive);
  served.store.create(other);
  editOnce(served.store, hive.id, 1, 'b1', rename('One'));
  editOnce(served.store, other.id, 1, 'o1', rename('Other'));
  editOnce(served.store, hive.id, 2, 'b2', rename('Two'));
  expect(served.store.read(hive.id)!.recent).toEqual(['b2', 'b1']);
  expect(served.store.read(other.id)!.recent).toEqual(['o1']);
  expect(editOnce(served.store, hive.id, 1, 'b1', rename('One'))).toEqual({ kind: 'done', revision: 2 });
  expect(editOnce(served.store, hive.id, 2, 'b2', rename('Two'))).toEqual({ kind: 'done', revision: 3 });
});

test('the example is placed once, left alone, and reset with the changed one kept as a copy', async () => {
  expect(served.store.placeExample(hive, false)).toBe('placed');
  editOnce(served.store, hive.id, 1, 'b1', rename('My hive'));
  expect(served.store.placeExample(hive, false)).toBe('kept');
  expect(served.store.read(hive.id)!.plan.name).toBe('My hive');
  expect(served.store.placeExample(hive, true)).toBe('reset');
  expect((await served.store.list(10, 0)).plans.map((p) => p.name).sort()).toEqual(['Hive watch', 'My hive (before reset)']);
  expect(editOnce(served.store, hive.id, 1, 'b1', rename('Again'))).toEqual({ kind: 'done', revision: 2 });
});

test('an example that was not changed is reset without a copy; the list counts what it has, whatever part of it is asked for', async () => {
  served.store.placeExample(hive, false);
  expect(served.store.placeExample(hive, true)).toBe('reset');
  expect(await served.store.list(10, 0)).toMatchObject({ total: 1, plans: [{ name: 'Hive watch', revision: 1 }] });
  for (let n = 1; n <= 4; n += 1) served.store.createEmpty(`Plan ${n}`, { id: 'rp2040-stick-40', version: 1 });
  const page = await served.store.list(2, 2);
  expect([page.total, page.plans.length]).toEqual([5, 2]);
  expect((await served.store.list(10, 5)).plans).toEqual([]);
});

test('a plan stored before accepted findings existed opens as today’s', async () => {
  const { accepted: _, ...old } = hive;
  served.store.create(old as Plan);
  expect(served.store.read(hive.id)!.plan).toEqual(hive);
  expect(editOnce(served.store, hive.id, 1, 'b1', [{ kind: 'accept', finding: 'pin-shared/shared/GP22||', reason: 'For now.' }])).toEqual({
    kind: 'done',
    revision: 2,
  });
});

test('a reader learns which batches are in', async () => {
  served.store.create(hive);
  for (const [n, batch] of ['b1', 'b2', 'b3'].entries()) editOnce(served.store, hive.id, n + 1, batch, rename(batch));
  expect(served.store.read(hive.id)!.recent).toEqual(['b3', 'b2', 'b1']);
});

test('listeners hear of an edit with its revision, of a plan put aside without one, of one brought back again; of nothing that did not happen', () => {
  const { store } = served;
  const heard: (readonly [string, number | null])[] = [];
  store.create(hive);
  const stop = store.listen((id, revision) => heard.push([id, revision]));
  editOnce(store, hive.id, 1, 'b1', rename('Twice'));
  expect([store.remove('no-such-plan'), store.restore('no-such-plan')]).toEqual([false, false]);
  expect([store.remove(hive.id), store.restore(hive.id)]).toEqual([true, true]);
  expect(heard).toEqual([
    [hive.id, 2],
    [hive.id, null],
    [hive.id, 2],
  ]);
  stop();
  store.remove(hive.id);
  expect(heard).toHaveLength(3);
});
