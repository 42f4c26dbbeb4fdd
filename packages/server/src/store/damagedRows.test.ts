import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import { indexSheets } from '@roof-chart/core/sheets/sheetIndex';
import { editOnce, serve, type Served } from '../../tests/serve';
import { PlanStates } from './planStates';

let served: Served;
beforeEach(async () => {
  served = await serve();
});
afterEach(() => served.close());

const board = { id: 'rp2040-stick-40', version: 1 };
const own = (more: object): PartSheet => ({ ...served.sheets.parts.get('led-red-5mm')!.sheet, id: 'my-lamp', ...more }) as PartSheet;
const lamp = { kind: 'add-placement', placement: { id: 'l', sheet: { id: 'my-lamp', version: 1 }, name: 'Lamp', straps: {} } } as const;

test('a picture of a plan that cannot be read is an empty one, and the other plans have theirs', async () => {
  const { connection } = served.database;
  const texts = ['null', '{}', '{"rows":[]}', '{"clashes":[]}', '{', '[]', '{"columns":2,"rows":[[1]],"clashes":[]}'];
  for (const text of texts) {
    const { id } = served.store.createEmpty(text, board).plan;
    connection.prepare('UPDATE plans SET thumbnail = ? WHERE id = ?').run(text, id);
  }
  const { plans, total } = await served.store.list(20, 0);
  const empty = { columns: 0, rows: [], clashes: [] };
  expect(total).toBe(texts.length);
  expect(Object.fromEntries(plans.map(({ name, thumbnail }) => [name, thumbnail]))).toEqual(
    Object.fromEntries(texts.map((text) => [text, text.startsWith('{"columns"') ? JSON.parse(text) : empty])),
  );
});

test('a plan whose document is damaged is listed without a state', async () => {
  const [sound, bad] = ['Sound', 'Bad'].map((name) => served.store.createEmpty(name, board).plan.id);
  served.database.connection.prepare("UPDATE plans SET document = '{' WHERE id = ?").run(bad);
  const { plans } = await served.store.list(20, 0);
  expect(plans.map(({ id, state }) => [id, state !== undefined]).toSorted()).toEqual(
    [
      [sound, true],
      [bad, false],
    ].toSorted(),
  );
});

test('own sheets that cannot be read are named and hide no other', () => {
  served.shelf.keep([own({})]);
  const insert = served.database.connection.prepare(
    "INSERT INTO sheets (key, id, version, document, checksum, at) VALUES (?, ?, 1, ?, '', '2026-01-01')",
  );
  const bad = ['null', '3', '{"kind":"cable"}', '{', '{}'];
  for (const [n, document] of bad.entries()) insert.run(`bad-${n}@1`, `bad-${n}`, document);
  served.shelf.load();
  expect(served.shelf.unreadable).toEqual(bad.map((_, n) => `bad-${n}@1`));
  expect(served.shelf.own).toEqual(['my-lamp']);
});

test('a sheet is kept once, in whatever order its facts come; of its uses the plan as it is counts most, then the latest saved version', () => {
  served.shelf.keep([own({})]);
  const reordered = Object.fromEntries(Object.entries(own({})).toReversed()) as unknown as PartSheet;
  expect(served.shelf.keep([reordered])).toMatchObject({ kind: 'kept', sheets: [{ how: 'same', version: 1 }] });
  const { id } = served.store.createEmpty('Hut', board).plan;
  editOnce(served.store, id, 1, 'b1', [lamp]);
  expect(served.shelf.uses('my-lamp')).toEqual([{ plan: id, name: 'Hut', versions: [1], where: 'plan' }]);
  served.store.keep(id, 'Older');
  served.database.connection.exec("UPDATE checkpoints SET at = '2020-01-01T00:00:00Z'");
  served.store.keep(id, 'Newer');
  editOnce(served.store, id, 2, 'b2', [{ kind: 'remove-placement', placement: 'l' }]);
  expect(served.shelf.uses('my-lamp')).toEqual([{ plan: id, name: 'Hut: Newer', versions: [1], where: 'saved version' }]);
});

test('states are worked out once for each revision, and anew where the sheets are others', async () => {
  served.shelf.keep([own({})]);
  const { plan } = served.store.createEmpty('Hut', board);
  editOnce(served.store, plan.id, 1, 'b1', [lamp]);
  let asked = 0;
  const read = (id: string) => {
    asked += 1;
    return served.store.read(id)?.plan;
  };
  const states = new PlanStates();
  const at = (revision: number) => [{ id: plan.id, revision }];
  const known = await states.of(at(2), served.shelf.current, read);
  expect([known.get(plan.id)?.errors, asked]).toEqual([expect.any(Number), 1]);
  expect([await states.of(at(2), served.shelf.current, read), asked]).toEqual([known, 1]);
  // Without the sheet of its part the plan has no state.
  const without = indexSheets(served.shelf.list.filter((sheet) => sheet.id !== 'my-lamp'));
  expect([(await states.of(at(2), without, read)).size, asked]).toEqual([0, 2]);
  expect([(await states.of(at(3), without, () => undefined)).size, (await states.of([], without, read)).size, asked]).toEqual([0, 0, 2]);
});
