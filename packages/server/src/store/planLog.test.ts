import { serve, editOnce, type Served } from '../../tests/serve';
import type { Edit } from '@roof-chart/core/plan/edit';
import { checksum } from './checksum';
import { compactLog, historyOf, historyStep, replay } from './planLog';
import type { BatchRow } from './rows';

let served: Served;
let id: string;
beforeEach(async () => {
  served = await serve();
  id = served.store.createEmpty('Log', { id: 'rp2040-stick-40', version: 1 }).plan.id;
  for (let n = 1; n <= 30; n += 1) editOnce(served.store, id, n, `b${n}`, [{ kind: 'rename-plan', name: `Edit ${n}` }]);
});
afterEach(() => served.close());

const statements = () => served.store.transactions.statements;

test('compaction moves the base, keeps who did what, and the rest still replays', () => {
  expect(compactLog(served.store.transactions, id, served.sheets, 10)).toBe(20);
  expect(replay(statements(), id, served.sheets)).toEqual({ kind: 'equal', batches: 10 });
  expect(served.store.read(id)).toMatchObject({ revision: 31, plan: { name: 'Edit 30' } });
  const entries = historyOf(statements(), id);
  expect([entries.length, entries[9]!.kept, entries[10]!.kept]).toEqual([30, true, false]);
  expect([historyStep(statements(), id, 22)?.edits, historyStep(statements(), id, 21)]).toEqual([
    [{ kind: 'rename-plan', name: 'Edit 21' }],
    undefined,
  ]);
  // A batch of before the compaction is still known: sent again, it is not done again.
  expect(editOnce(served.store, id, 2, 'b2', [{ kind: 'rename-plan', name: 'Edit 2' }])).toEqual({ kind: 'done', revision: 3 });
  expect(compactLog(served.store.transactions, id, served.sheets, 10)).toBe(0);
});

test('what is compacted keeps no edits, and the log is read in the order of its revisions', () => {
  compactLog(served.store.transactions, id, served.sheets, 10);
  const { connection } = served.database;
  const bare = connection.prepare("SELECT count(*) AS n FROM batches WHERE edits = '' AND inverse = ''").get();
  expect(bare).toEqual({ n: 20 });
  // Stored in another order than they were made: the revisions count.
  const rows = connection.prepare('SELECT * FROM batches ORDER BY revision DESC').all() as { [column: string]: unknown }[];
  connection.exec('DELETE FROM batches');
  for (const row of rows) {
    const columns = Object.keys(row);
    connection.prepare(`INSERT INTO batches (${columns.join()}) VALUES (${columns.map(() => '?').join()})`).run(Object.values(row));
  }
  expect(replay(statements(), id, served.sheets)).toEqual({ kind: 'equal', batches: 10 });
});

test('a log that does not replay is left as it is', () => {
  served.database.connection.exec("UPDATE batches SET edits = replace(edits, 'Edit 5', 'Edit X') WHERE revision = 6");
  expect(replay(statements(), id, served.sheets).kind).toBe('broken');
  expect(compactLog(served.store.transactions, id, served.sheets, 10)).toBe(0);
  expect(historyOf(statements(), id).every((entry) => entry.kept)).toBe(true);
});

test('the history comes in pages', () => {
  const first = historyOf(statements(), id, 20);
  expect([first[0]!.revision, first.length]).toEqual([19, 18]);
  expect(historyOf(statements(), id, 2)).toEqual([]);
});

test('a database of before the values on hand had their name: the plan, its log and its steps read as today’s, and nothing is sent twice', () => {
  const values = (series: 'E6' | 'E24'): Edit => ({ kind: 'values-on-hand', valuesOnHand: { series } });
  editOnce(served.store, id, 31, 'v1', [values('E24')]);
  editOnce(served.store, id, 32, 'v2', [values('E6')]);
  const { connection } = served.database;
  const asWrittenThen = (text: string) => text.replaceAll('"values-on-hand"', '"drawer"').replaceAll('"valuesOnHand"', '"drawer"');
  for (const { id: row, edits, inverse } of connection.prepare('SELECT id, edits, inverse FROM batches').all() as BatchRow[])
    connection
      .prepare('UPDATE batches SET edits = ?, inverse = ?, digest = ? WHERE id = ?')
      .run(asWrittenThen(edits), asWrittenThen(inverse), checksum(asWrittenThen(edits)), row);
  for (const table of ['plans', 'bases'])
    for (const { rowid, document } of connection.prepare(`SELECT rowid, document FROM ${table}`).all() as {
      rowid: number;
      document: string;
    }[])
      connection
        .prepare(`UPDATE ${table} SET document = ?, checksum = ? WHERE rowid = ?`)
        .run(asWrittenThen(document), checksum(asWrittenThen(document)), rowid);
  expect(served.store.read(id)).toMatchObject({ revision: 33, plan: { valuesOnHand: { series: 'E6' } } });
  expect(replay(statements(), id, served.sheets)).toEqual({ kind: 'equal', batches: 32 });
  expect(historyStep(statements(), id, 33)).toMatchObject({ edits: [values('E6')], inverse: [values('E24')] });
  expect(editOnce(served.store, id, 32, 'v2', [values('E6')])).toEqual({ kind: 'done', revision: 33 });
  expect(editOnce(served.store, id, 32, 'v2', [values('E24')])).toMatchObject({ kind: 'clash' });
  expect(compactLog(served.store.transactions, id, served.sheets, 1)).toBe(31);
  expect(replay(statements(), id, served.sheets)).toEqual({ kind: 'equal', batches: 1 });
});
