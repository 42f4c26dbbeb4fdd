import { randomUUID } from 'node:crypto';
import request from 'supertest';
import { indexSheets } from '@roof-chart/core/sheets/sheetIndex';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import { serve, type Served } from '../../tests/serve';
import { SheetRepository } from '../store/sheetRepository';

let served: Served;
beforeAll(async () => void (served = await serve()));
afterAll(() => served.close());

const api = () => request(served.app);
const shippedLed = () => structuredClone(served.sheets.parts.get('led-red-5mm')!.sheet) as unknown as Record<string, unknown>;
const mine = (change: object = {}) => ({ ...shippedLed(), id: 'my-lamp', title: 'My lamp', ...change });
const keep = (...sheets: unknown[]) => api().post('/api/sheets').send({ sheets });
const catalogue = async () => (await api().get('/api/catalogue')).body as { sheets: PartSheet[]; own: string[] };

test('an own sheet is kept, changed into a next version, and not doubled when nothing is new', async () => {
  expect((await keep(mine()).expect(201)).body).toEqual({ sheets: [{ id: 'my-lamp', version: 1, how: 'new' }] });
  expect((await keep(mine({ version: 9 })).expect(201)).body).toEqual({ sheets: [{ id: 'my-lamp', version: 1, how: 'same' }] });
  expect((await keep(mine({ summary: 'Brighter.' })).expect(201)).body).toEqual({
    sheets: [{ id: 'my-lamp', version: 2, how: 'changed' }],
  });
  const { sheets, own } = await catalogue();
  expect(own).toEqual(['my-lamp']);
  expect(sheets.filter((s) => s.id === 'my-lamp').map((s) => s.version)).toEqual([1, 2]);
  expect(indexSheets(sheets).parts.get('my-lamp')!.sheet.summary).toBe('Brighter.');
});

test('a plan keeps its version, says that it uses the sheet, and so keeps it from being removed', async () => {
  const { plan } = (await api().post('/api/plans').send({ name: 'Lamp', board: 'rp2040-stick-40' })).body as { plan: { id: string } };
  const placement = { id: 'light-1', sheet: { id: 'my-lamp', version: 1 }, name: 'Lamp', straps: {} };
  const edit = (revision: number, edits: unknown[]) =>
    api()
      .post(`/api/plans/${plan.id}/edits`)
      .set('If-Match', `"${revision}-${served.store.epoch}"`)
      .send({ batches: [{ batch: randomUUID(), edits }] });
  await edit(1, [{ kind: 'add-placement', placement }]).expect(200);
  const uses = async () => (await api().get('/api/sheets/my-lamp/plans').expect(200)).body as unknown;
  expect(await uses()).toEqual({ plans: [{ plan: plan.id, name: 'Lamp', versions: [1], where: 'plan' }] });
  await edit(2, [{ kind: 'take-sheet', placement: 'light-1', version: 2 }]).expect(200);
  expect(await uses()).toEqual({ plans: [{ plan: plan.id, name: 'Lamp', versions: [2], where: 'plan' }] });
  await edit(3, [{ kind: 'take-sheet', placement: 'light-1', version: 3 }]).expect(422);
  const used = (words: string) => ({
    code: 'sheet-used',
    message: `The sheet is used by ${words} and was not removed.`,
    path: 'id',
    got: 'my-lamp',
  });
  expect((await api().delete('/api/sheets/my-lamp').expect(409)).body).toEqual({ error: used('“Lamp”') });
  await api().delete(`/api/plans/${plan.id}`).expect(204);
  // A deleted plan can be brought back: it would come back without its sheet.
  expect((await api().delete('/api/sheets/my-lamp').expect(409)).body).toMatchObject({
    error: { message: 'The sheet is used by the deleted plan “Lamp” and was not removed.' },
  });
  await api().post(`/api/plans/${plan.id}/restore`).expect(204);
  await api().post(`/api/plans/${plan.id}/checkpoints`).send({ name: 'With lamp' }).expect(201);
  await edit(3, [{ kind: 'remove-placement', placement: 'light-1' }]).expect(200);
  expect(await uses()).toEqual({ plans: [{ plan: plan.id, name: 'Lamp: With lamp', versions: [2], where: 'saved version' }] });
  expect((await api().delete('/api/sheets/my-lamp').expect(409)).body).toEqual({ error: used('the saved version “Lamp: With lamp”') });
});

test('the numbers of a removed sheet are never given to other facts', async () => {
  await keep(mine({ id: 'short-lived' }));
  await keep(mine({ id: 'short-lived', summary: 'Another.' }));
  await api().delete('/api/sheets/short-lived').expect(204);
  expect((await catalogue()).own).not.toContain('short-lived');
  expect((await keep(mine({ id: 'short-lived', summary: 'Another.' })).expect(201)).body).toEqual({
    sheets: [{ id: 'short-lived', version: 3, how: 'new' }],
  });
  await api().delete('/api/sheets/short-lived').expect(204);
  // What follows begins without sheets of its own.
  await served.close();
  served = await serve();
  await keep(mine({ summary: 'Brighter.' })).expect(201);
  await api().delete('/api/sheets/my-lamp').expect(204);
  await api().delete('/api/sheets/my-lamp').expect(404);
  expect((await catalogue()).own).toEqual([]);
});

test('a bundle is kept whole or not at all', async () => {
  const bad = { ...mine({ id: 'my-bad' }), polarity: { ...(shippedLed()['polarity'] as object), maxMilliamps: -1 } };
  const { body } = await keep(mine(), bad).expect(422);
  expect(body).toMatchObject({ error: { code: 'sheet-unsound', path: 'body.sheets.1.polarity.maxMilliamps' } });
  const taken = await keep(mine(), shippedLed()).expect(409);
  expect(taken.body).toMatchObject({ error: { code: 'id-taken', path: 'body.sheets.1.id', got: 'led-red-5mm' } });
  expect((await catalogue()).own).toEqual([]);
  await keep(mine(), mine({ id: 'my-other' })).expect(201);
  expect((await catalogue()).own).toEqual(['my-lamp', 'my-other']);
});

test.each([
  ['nothing', {}],
  ['no list', { sheets: 'all' }],
  ['an empty list', { sheets: [] }],
  ['too many', { sheets: Array.from({ length: 51 }, () => ({})) }],
])('%s is refused with its place', async (_, body) => {
  expect((await api().post('/api/sheets').send(body).expect(400)).body).toMatchObject({ error: { path: expect.stringMatching(/^body/) } });
});

test('prototype keys, depth and colliding kinds are refused; nothing is kept', async () => {
  const text = JSON.stringify({ sheets: [mine({ id: 'my-x' })] }).replace('"unknown":', '"__proto__":{"a":1},"unknown":');
  await api().post('/api/sheets').set('Content-Type', 'application/json').send(text).expect(400);
  const board = { ...served.sheets.boards.get('rp2040-stick-40')!.sheet, id: 'my-lamp' };
  await keep(board).expect(409);
  expect((await catalogue()).own).toEqual(['my-lamp', 'my-other']);
});

test('own sheets are there again after a restart; a shipped sheet under their id wins', async () => {
  const again = new SheetRepository(
    served.database,
    [...served.sheets.parts.values()].map((p) => p.sheet),
  );
  again.load();
  expect(again.own).toEqual(['my-lamp', 'my-other']);
  const shipped = { ...(mine() as unknown as PartSheet), version: 1 };
  const later = new SheetRepository(served.database, [shipped]);
  later.load();
  expect([later.own, later.current.parts.get('my-lamp')!.sheet]).toEqual([['my-other'], shipped]);
});

describe('plan files', () => {
  const send = (document: unknown) =>
    api()
      .post('/api/plans/file')
      .send(document as object);
  const document = () => {
    const lamp = mine({ id: 'carried-lamp', version: 3 });
    const board = { id: 'rp2040-stick-40', version: 1 };
    const placements = [{ id: 'light-1', sheet: { id: 'carried-lamp', version: 3 }, name: 'Lamp', straps: {} }];
    const wires = { 'light-1:A': { end: { to: 'pin', pin: 'GP2' }, colour: 'green', locked: false } };
    const plan = {
      format: 'roof-chart-plan',
      formatVersion: 1,
      id: 'travelling',
      name: 'Travelling',
      board,
      placements,
      wires,
      ticks: {},
      accepted: {},
    };
    return { ...plan, sheets: [lamp] };
  };

  test('a plan opens with the sheet it carries, as that sheet is kept here; the second time under an id of its own', async () => {
    const { body } = await send(document()).expect(201);
    expect(body).toMatchObject({ plan: { id: 'travelling', placements: [{ sheet: { id: 'carried-lamp', version: 1 } }] }, revision: 1 });
    const twice = (await send(document()).expect(201)).body as { plan: { id: string } };
    expect(twice.plan.id).not.toBe('travelling');
    expect((await catalogue()).sheets.filter((s) => s.id === 'carried-lamp')).toHaveLength(1);
  });

  test('a file that is no plan, or that its sheets do not bear out, keeps nothing', async () => {
    const before = (await catalogue()).own;
    expect((await send({ hello: 1 }).expect(400)).body).toMatchObject({ error: { code: 'no-plan-file' } });
    const lost = document();
    const bad = {
      ...lost,
      wires: { 'light-1:Z': lost.wires['light-1:A'] },
      sheets: [mine({ id: 'carried-lamp', version: 3, title: 'Other' })],
    };
    expect((await send(bad).expect(422)).body).toMatchObject({ error: { code: 'plan-unsound', path: 'wires.light-1:Z' } });
    const alone = { ...lost, placements: [{ ...lost.placements[0]!, sheet: { id: 'nowhere', version: 1 } }], sheets: [] };
    expect((await send(alone).expect(422)).body).toMatchObject({ error: { path: 'placements.0.sheet.id' } });
    expect((await catalogue()).own).toEqual(before);
  });
});

test('the published shape of sheets is served, and nothing else under its address', async () => {
  const schema = (await api().get('/api/sheets/schema/part').expect(200)).body as { title: string };
  expect(schema.title).toBe('Part sheet');
  await api().get('/api/sheets/schema/shelf').expect(400);
});
