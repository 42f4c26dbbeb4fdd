import { randomUUID } from 'node:crypto';
import { clientOf, oled, sda } from '../../tests/client';
import { serve, type Served } from '../../tests/serve';

let served: Served;
beforeAll(async () => {
  served = await serve();
});
afterAll(() => served.close());
afterEach(() => expect(served.logged).toEqual([]));

const { api, newPlan, tag, sendBatches, edit, stored } = clientOf(() => served);

test('a batch id that comes again with other edits is told, and nothing is done', async () => {
  const id = await newPlan();
  const batch = randomUUID();
  await edit(id, 1, [oled], batch).expect(200);
  const fresh = { batch: randomUUID(), edits: [{ kind: 'rename-plan', name: 'Never' }] };
  const clash = await sendBatches(id, 2, [fresh, { batch, edits: [sda('GP4')] }]).expect(409);
  expect(clash.body).toMatchObject({ error: { code: 'batch-clash', path: 'body.batches.1.batch' } });
  expect(await stored(id)).toMatchObject({ revision: 2, plan: { name: 'Bench', wires: {} } });
});

test('many batches go in one request, each a revision; those before a refused one are kept', async () => {
  const id = await newPlan();
  const named = (name: string) => ({ batch: randomUUID(), edits: [{ kind: 'rename-plan', name }] });
  const batches = ['A', 'B', 'C'].map(named);
  await sendBatches(id, 1, batches).expect(200, { revision: 4 });
  // The answer was lost and one more was made: only the new one is done.
  const again = [...batches, named('D')];
  await sendBatches(id, 1, again).expect(200, { revision: 5 });
  expect(await stored(id)).toMatchObject({ revision: 5, plan: { name: 'D' } });
  await sendBatches(id, 1, batches).expect(200, { revision: 4 });
  const bad = { batch: randomUUID(), edits: [sda('GP4')] };
  const refused = await sendBatches(id, 5, [named('E'), bad, named('F')]).expect(422);
  expect(refused.body).toMatchObject({ error: { path: 'body.batches.1.edits.0.terminal' }, done: 1, revision: 6 });
  expect(await stored(id)).toMatchObject({ revision: 6, plan: { name: 'E' } });
  const { taken } = (
    await api()
      .post(`/api/plans/${id}/taken`)
      .send({ batches: [bad.batch, batches[1]!.batch] })
      .expect(200)
  ).body as { taken: string[] };
  expect(taken).toEqual([batches[1]!.batch]);
});

test('an edit made before a restore, in another life of the database, never lands', async () => {
  const id = await newPlan();
  const elsewhere = api().post(`/api/plans/${id}/edits`).set('If-Match', '"1-0123456789abcdef"');
  const stale = await elsewhere.send({ batches: [{ batch: randomUUID(), edits: [oled] }] }).expect(412);
  expect(stale.body).toMatchObject({ error: { code: 'stale-revision' }, revision: 1, epoch: served.store.epoch });
});

test('the history tells who did what, and gives the edits that take a step back', async () => {
  const id = await newPlan();
  const client = { device: 'Chromium on Linux', tab: 'tab-1' };
  await api()
    .post(`/api/plans/${id}/edits`)
    .set('If-Match', tag(1))
    .send({ batches: [{ batch: randomUUID(), edits: [oled], label: 'Add Glass' }], client })
    .expect(200);
  await edit(id, 2, [sda('GP4')]).expect(200);
  const { body } = await api().get(`/api/plans/${id}/history`).expect(200);
  expect(body).toMatchObject({
    entries: [
      { revision: 3, label: 'Glass SDA: open → GP4', device: null },
      { revision: 2, label: 'Add Glass', device: 'Chromium on Linux', tab: 'tab-1', kept: true },
    ],
  });
  expect((await api().get(`/api/plans/${id}/history?before=3`).expect(200)).body).toMatchObject({ entries: [{ revision: 2 }] });
  expect((await api().get(`/api/plans/${id}/history/2`).expect(200)).body).toMatchObject({
    inverse: [{ kind: 'remove-placement', placement: 'display-1' }],
  });
  await api().get(`/api/plans/${id}/history/9`).expect(404);
  await api().get(`/api/plans/${id}/history/x`).expect(400);
});

test('a page from before the server was updated sends an edit under its earlier name: it is done, once', async () => {
  const id = await newPlan();
  const batch = { batch: randomUUID(), edits: [{ kind: 'drawer', drawer: { series: 'E24' } }] };
  await sendBatches(id, 1, [batch]).expect(200, { revision: 2 });
  await sendBatches(id, 1, [batch]).expect(200, { revision: 2 });
  expect(await stored(id)).toMatchObject({ revision: 2, plan: { valuesOnHand: { series: 'E24' } } });
  const bad = { batch: randomUUID(), edits: [{ kind: 'drawer', drawer: { series: 'E7' } }] };
  expect((await sendBatches(id, 2, [bad]).expect(400)).body).toMatchObject({
    error: { path: 'body.batches.0.edits.0.valuesOnHand.series' },
  });
  expect((await sendBatches(id, 2, [null]).expect(400)).body).toMatchObject({ error: { path: 'body.batches.0' } });
});
