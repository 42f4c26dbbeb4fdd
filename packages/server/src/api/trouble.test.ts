import { randomUUID } from 'node:crypto';
import request from 'supertest';
import type { Plan } from '@roof-chart/core/plan/plan';
import { indexSheets } from '@roof-chart/core/sheets/sheetIndex';
import { readCatalogue } from '@roof-chart/catalogue/readCatalogue';
import { catalogueFolder, editOnce, serve } from '../../tests/serve';
import { PlanStore } from '../store/planStore';

const rename = (name: string) => ({ batches: [{ batch: randomUUID(), edits: [{ kind: 'rename-plan', name }] }] });

test('a full disk is told in plain words, changes nothing, and the same edit goes through when there is room', async () => {
  const served = await serve();
  const api = request(served.app);
  const { plan } = (await api.post('/api/plans').send({ name: 'Hut', board: 'rp2040-stick-40' })).body as { plan: Plan };
  const pages = (await served.database.source.query<{ page_count: number }[]>('PRAGMA page_count'))[0]!.page_count;
  await served.database.source.query(`PRAGMA max_page_count = ${pages}`);
  const write = (revision: number, body: object) =>
    api.post(`/api/plans/${plan.id}/edits`).set('If-Match', `"${revision}-${served.store.epoch}"`).send(body);
  let revision = 1;
  let body = rename('Edit 1');
  let answer = await write(revision, body);
  // What room is left in the last pages is used first.
  for (let n = 2; answer.status === 200 && n < 3000; n += 1) {
    revision += 1;
    body = rename(`Edit ${n}`);
    answer = await write(revision, body);
  }
  expect(answer.status).toBe(507);
  expect(answer.body).toEqual({
    error: { code: 'disk-full', message: 'The server’s disk is full. Nothing was changed; free some space and try again.' },
  });
  expect((await api.get(`/api/plans/${plan.id}`)).body).toMatchObject({ revision });
  await served.database.source.query('PRAGMA max_page_count = 100000');
  expect((await write(revision, body)).body).toEqual({ revision: revision + 1 });
  await served.close();
});

test('a clock that goes backwards changes no order of edits and loses none', async () => {
  const served = await serve();
  const times = ['2026-06-01T10:00:00Z', '2026-06-01T09:00:00Z', '1999-01-01T00:00:00Z', '2026-06-01T10:00:01Z'];
  const sheets = indexSheets(readCatalogue(catalogueFolder));
  const store = new PlanStore(served.database, { current: sheets }, () => new Date(times.length > 1 ? times.shift()! : times[0]!));
  const { plan } = store.createEmpty('Hut', { id: 'rp2040-stick-40', version: 1 });
  for (let n = 1; n <= 4; n += 1)
    expect(editOnce(store, plan.id, n, `b${n}`, [{ kind: 'rename-plan', name: `Edit ${n}` }])).toEqual({ kind: 'done', revision: n + 1 });
  expect(store.read(plan.id)).toMatchObject({ revision: 5, plan: { name: 'Edit 4' }, recent: ['b4', 'b3', 'b2', 'b1'] });
  await served.close();
});

test('an error nobody foresaw is answered without its inside, and logged', async () => {
  const served = await serve();
  await served.database.source.query('ALTER TABLE plans RENAME TO elsewhere');
  const { status, body } = await request(served.app).get('/api/plans');
  expect([status, body]).toEqual([500, { error: { code: 'internal', message: 'Internal server error. Nothing was changed.' } }]);
  expect(served.logged).toHaveLength(1);
  await served.database.source.query('ALTER TABLE elsewhere RENAME TO plans');
  await served.close();
});
