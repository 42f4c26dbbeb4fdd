import { randomUUID } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import request from 'supertest';
import type { Edit } from '@roof-chart/core/plan/edit';
import type { Plan } from '@roof-chart/core/plan/plan';
import { serve, type Served } from '../../tests/serve';
import type { OPENAPI } from './openapi';
import { archiveRoutes } from './archiveRoutes';
import { signIn } from '../web/signIn';
import { sheetRoutes } from './sheetRoutes';
import { planRoutes } from './planRoutes';

let served: Served;
beforeAll(async () => {
  served = await serve();
});
afterAll(() => served.close());
afterEach(() => expect(served.logged).toEqual([]));

const api = () => request(served.app);
const oled: Edit = {
  kind: 'add-placement',
  placement: { id: 'display-1', sheet: { id: 'oled-096-ssd1306-i2c', version: 1 }, name: 'Glass', straps: {} },
};
const sda = (pin: string): Edit => ({ kind: 'wire', placement: 'display-1', terminal: 'SDA', end: { to: 'pin', pin } });

async function newPlan(name = 'Bench'): Promise<string> {
  const response = await api().post('/api/plans').send({ name, board: 'rp2040-stick-40' }).expect(201);
  return (response.body as { plan: Plan }).plan.id;
}

const tag = (revision: number) => `"${revision}-${served.store.epoch}"`;
const sendBatches = (id: string, revision: number | null, batches: unknown) => {
  const call = api().post(`/api/plans/${id}/edits`);
  return (revision === null ? call : call.set('If-Match', tag(revision))).send({ batches } as object);
};
const edit = (id: string, revision: number | null, edits: unknown, batch: string = randomUUID()) =>
  sendBatches(id, revision, [{ batch, edits }]);
const stored = async (id: string) => (await api().get(`/api/plans/${id}`).expect(200)).body as { plan: Plan; revision: number };

test('a plan is made, edited, read, listed', async () => {
  const id = await newPlan('Hut');
  await edit(id, 1, [oled, sda('GP4')])
    .expect(200, { revision: 2 })
    .expect('ETag', tag(2));
  const { plan, revision } = await stored(id);
  expect(revision).toBe(2);
  expect(plan.wires['display-1:SDA']).toEqual({ end: { to: 'pin', pin: 'GP4' }, colour: 'blue', locked: false });
  const list = (await api().get('/api/plans').expect(200)).body as { plans: { id: string; parts: number; thumbnail: unknown }[] };
  expect(list.plans.find((p) => p.id === id)).toMatchObject({
    name: 'Hut',
    parts: 1,
    thumbnail: { columns: 26, rows: [[4]], clashes: [] },
  });
});

test('a deleted plan is gone from list and reading, and comes back whole', async () => {
  const id = await newPlan();
  await edit(id, 1, [oled]).expect(200);
  await api().delete(`/api/plans/${id}`).expect(204);
  await api().get(`/api/plans/${id}`).expect(404);
  await edit(id, 2, [sda('GP4')]).expect(404);
  await api().post(`/api/plans/${id}/restore`).expect(204);
  expect((await stored(id)).plan.placements).toHaveLength(1);
});

test('a stale revision gets 412 with the present plan, and changes nothing', async () => {
  const id = await newPlan();
  await edit(id, 1, [oled]).expect(200);
  const stale = await edit(id, 1, [{ kind: 'rename-plan', name: 'Mine' }]).expect(412);
  expect(stale.body).toMatchObject({
    error: { code: 'stale-revision' },
    revision: 2,
    plan: { name: 'Bench', placements: [{ id: 'display-1' }] },
  });
  expect((await stored(id)).revision).toBe(2);
});

test('a batch sent twice is done once', async () => {
  const id = await newPlan();
  const batch = randomUUID();
  await edit(id, 1, [oled], batch).expect(200, { revision: 2 });
  await edit(id, 1, [oled], batch).expect(200, { revision: 2 });
  expect((await stored(id)).plan.placements).toHaveLength(1);
});

test('of many clients writing on one revision exactly one wins each round', async () => {
  const id = await newPlan();
  for (let round = 1; round <= 5; round += 1) {
    const answers = await Promise.all(Array.from({ length: 8 }, (_, n) => edit(id, round, [{ kind: 'rename-plan', name: `Client ${n}` }])));
    expect(answers.map((a) => a.status).sort()).toEqual([200, ...Array<number>(7).fill(412)]);
  }
  expect((await stored(id)).revision).toBe(6);
});

describe('bad input is answered with its place and changes nothing', () => {
  const batch = randomUUID();
  const bad: readonly [string, (id: string) => PromiseLike<request.Response>, number, object][] = [
    [
      'malformed JSON',
      () => api().post('/api/plans').set('Content-Type', 'application/json').send('{"name": '),
      400,
      { code: 'malformed-json', path: 'body' },
    ],
    [
      'a body that is no object',
      () => api().post('/api/plans').set('Content-Type', 'application/json').send('[]'),
      400,
      { code: 'invalid', path: 'body' },
    ],
    [
      'a huge body',
      () =>
        api()
          .post('/api/plans')
          .send({ name: 'x'.repeat(2_000_000) }),
      413,
      { code: 'too-large' },
    ],
    [
      'a compressed body that is cut off',
      () =>
        api()
          .post('/api/plans')
          .set('Content-Type', 'application/json')
          .set('Content-Encoding', 'gzip')
          .serialize((x) => x as string)
          .send(gzipSync('{"name":"A"}').subarray(0, 12) as unknown as string),
      400,
      { code: 'malformed-compression', path: 'body' },
    ],
    [
      'an archive that is none',
      () => api().post('/api/archive').set('Content-Type', 'application/zip').send('PK not really'),
      400,
      { code: 'no-archive', path: 'body' },
    ],
    ['another content type', () => api().post('/api/plans').set('Content-Type', 'text/plain').send('{}'), 415, { code: 'unsupported' }],
    [
      'an unknown board',
      () => api().post('/api/plans').send({ name: 'A', board: 'z80-kit' }),
      422,
      { code: 'unknown-board', path: 'body.board', got: 'z80-kit' },
    ],
    [
      'a name of 10 000 letters',
      () =>
        api()
          .post('/api/plans')
          .send({ name: 'x'.repeat(10_000), board: 'rp2040-stick-40' }),
      400,
      { path: 'body.name' },
    ],
    [
      'control characters in a name',
      () => api().post('/api/plans').send({ name: 'a\u0007b', board: 'rp2040-stick-40' }),
      400,
      { path: 'body.name' },
    ],
    [
      'an unknown key',
      () => api().post('/api/plans').send({ name: 'A', board: 'rp2040-stick-40', owner: 'me' }),
      400,
      { path: 'body.owner' },
    ],
    [
      'a prototype key',
      () => api().post('/api/plans').set('Content-Type', 'application/json').send('{"name":"A","__proto__":{"board":"x"}}'),
      400,
      { path: 'body.__proto__' },
    ],
    ['deep nesting', (id) => edit(id, 1, JSON.parse('['.repeat(500) + ']'.repeat(500))), 400, { code: 'invalid' }],
    ['an unknown plan', () => edit('no-such-plan', 1, [oled]), 404, { code: 'no-such-plan' }],
    ['a plan id that is a path', () => api().get('/api/plans/..%2f..%2fetc'), 400, { path: 'id' }],
    ['a malformed address', () => api().get('/api/plans/%E0%A4%A'), 400, { path: 'url' }],
    ['an unknown edit', (id) => edit(id, 1, [{ kind: 'explode' }]), 400, { path: 'body.batches.0.edits.0.kind' }],
    ['an edit with a field too many', (id) => edit(id, 1, [{ ...sda('GP4'), force: true }]), 400, { path: 'body.batches.0.edits.0.force' }],
    ['no edits', (id) => edit(id, 1, []), 400, { path: 'body.batches.0.edits' }],
    ['5001 edits', (id) => edit(id, 1, Array<Edit>(5001).fill(oled)), 400, { path: 'body.batches.0.edits' }],
    ['a batch that is no id', (id) => edit(id, 1, [oled], 'again'), 400, { path: 'body.batches.0.batch' }],
    [
      'a part that no sheet describes',
      (id) =>
        edit(id, 1, [{ ...oled, placement: { ...(oled as { placement: object }).placement, sheet: { id: 'warp-drive', version: 1 } } }]),
      422,
      { path: 'body.batches.0.edits.0.placement.sheet.id', got: 'warp-drive' },
    ],
    [
      'a wire to a pin that does not exist',
      (id) => edit(id, 1, [oled, sda('GP99')], batch),
      422,
      { path: 'body.batches.0.edits.1.end.pin', expected: 'a pin of RP2040 stick, 40 pins', got: 'GP99' },
    ],
    ['no revision', (id) => edit(id, null, [oled]), 428, { path: 'If-Match' }],
    [
      'a revision that is none',
      (id) =>
        api()
          .post(`/api/plans/${id}/edits`)
          .set('If-Match', '*')
          .send({ batches: [{ batch, edits: [oled] }] }),
      400,
      { path: 'If-Match' },
    ],
    ['a list far out of range', () => api().get('/api/plans?limit=1e9'), 400, { path: 'query.limit' }],
    ['an unknown route', () => api().get('/api/boards/7'), 404, { code: 'no-such-route' }],
    ['an unknown plan, read', () => api().get('/api/plans/no-such-plan'), 404, { code: 'no-such-plan' }],
    ['an unknown plan, removed', () => api().delete('/api/plans/no-such-plan'), 404, { code: 'no-such-plan' }],
    ['an unknown plan, restored', () => api().post('/api/plans/no-such-plan/restore'), 404, { code: 'no-such-plan' }],
    [
      'a version of an unknown plan',
      () => api().post('/api/plans/no-such-plan/checkpoints').send({ name: 'A' }),
      404,
      { code: 'no-such-plan' },
    ],
    ['an unknown version', (id) => api().get(`/api/plans/${id}/checkpoints/v1`), 404, { code: 'no-such-checkpoint' }],
    ['a version whose id is none', (id) => api().get(`/api/plans/${id}/checkpoints/..`), 400, { path: 'checkpoint' }],
    ['a version without a name', (id) => api().post(`/api/plans/${id}/checkpoints`).send({}), 400, { path: 'body.name' }],
    ['an unknown step of the history', (id) => api().get(`/api/plans/${id}/history/9`), 404, { code: 'no-such-step', got: '9' }],
    ['a step whose number is none', (id) => api().get(`/api/plans/${id}/history/last`), 400, { path: 'revision' }],
    ['a history from a place that is none', (id) => api().get(`/api/plans/${id}/history?before=now`), 400, { path: 'query.before' }],
    [
      'a question for batches that are no ids',
      (id) =>
        api()
          .post(`/api/plans/${id}/taken`)
          .send({ batches: ['x'] }),
      400,
      { path: 'body.batches.0' },
    ],
    ['a plan file that is none', () => api().post('/api/plans/file').send({ hello: 1 }), 400, { code: 'no-plan-file' }],
    ['no sheets', () => api().post('/api/sheets').send({ sheets: [] }), 400, { path: 'body.sheets' }],
    [
      'a sheet that is none',
      () =>
        api()
          .post('/api/sheets')
          .send({ sheets: [{ kind: 'part' }] }),
      422,
      { code: 'sheet-unsound' },
    ],
    [
      'a sheet under the id of the library',
      () =>
        api()
          .post('/api/sheets')
          .send({ sheets: [served.sheets.parts.get('led-red-5mm')!.sheet] }),
      409,
      { code: 'id-taken' },
    ],
    ['a sheet that is not there, removed', () => api().delete('/api/sheets/led-red-5mm'), 404, { code: 'no-such-sheet' }],
    ['a schema of a kind that is none', () => api().get('/api/sheets/schema/cable'), 400, { path: 'kind' }],
    [
      'an archive of another type',
      () => api().post('/api/archive').set('Content-Type', 'text/plain').send('PK'),
      415,
      { code: 'unsupported' },
    ],
    ['a list with a question too many', () => api().get('/api/plans?order=name'), 400, { path: 'query.order' }],
    [
      'a revision that is over',
      async (id) => {
        await edit(id, 1, [{ kind: 'rename-plan', name: 'Bench' }]);
        const answer = await edit(id, 1, [oled]);
        await edit(id, 2, [{ kind: 'rename-plan', name: 'Bench' }]);
        return answer;
      },
      412,
      { code: 'stale-revision' },
    ],
  ];
  const answers: string[] = [];

  test.each(bad)('%s', async (name, call, status, problem) => {
    const id = await newPlan();
    const response = await call(id);
    expect({ status: response.status, error: (response.body as { error: object }).error }).toMatchObject({ status, error: problem });
    expect((response.body as { error: { message: string } }).error.message.length).toBeLessThan(400);
    expect(await stored(id)).toMatchObject({ plan: { name: 'Bench', placements: [], wires: {} } });
    const { error, ...more } = response.body as { error: object };
    const rest = Object.keys(more).length > 0 ? `, with ${Object.keys(more).join(', ')}` : '';
    const told = Object.entries({ ...error }).map(([key, value]) => `  ${key}: ${String(value).slice(0, 200)}`);
    const plain = [`${name}: ${status}${rest}`, ...told].join('\n').replaceAll(id, 'ID').replaceAll(served.store.epoch, 'EPOCH');
    answers.push(plain);
  });

  test('what each of them is told is as it was read', () => {
    const file = join(__dirname, '../../tests/refusals.txt');
    if (process.env['ROOF_CHART_WRITE']) writeFileSync(file, `${answers.join('\n\n')}\n`);
    expect(answers).toEqual(readFileSync(file, 'utf8').trimEnd().split('\n\n'));
  });

  test('markup in a name is kept as the letters it is', async () => {
    const name = '<img src=x onerror=alert(1)> & "Hut"';
    const id = await newPlan(name);
    expect((await stored(id)).plan.name).toBe(name);
  });
});

describe('guards', () => {
  test('only names of this machine are answered', async () => {
    await api().get('/api/health').set('Host', 'evil.example').expect(403);
    await api().get('/api/health').set('Host', '127.0.0.1:4310').expect(200);
    await api().get('/api/health').set('Host', 'localhost.evil.example').expect(403);
  });

  test('other pages may not write', async () => {
    const post = (origin: string) =>
      api().post('/api/plans').set('Host', 'localhost:4310').set('Origin', origin).send({ name: 'A', board: 'rp2040-stick-40' });
    await post('http://evil.example').expect(403);
    await post('null').expect(403);
    await post('http://localhost:9999').expect(403);
    await post('http://localhost:4310').expect(201);
  });

  test('every answer carries the strict policy', async () => {
    const { headers } = await api().get('/api/health');
    expect(headers['content-security-policy']).toMatch(/default-src 'none'.*script-src 'self'.*style-src 'self' 'nonce-/);
    expect(headers['content-security-policy']).not.toMatch(/unsafe/);
    expect(headers).toMatchObject({ 'x-content-type-options': 'nosniff', 'referrer-policy': 'no-referrer' });
    expect(headers['x-powered-by']).toBeUndefined();
    expect(headers['access-control-allow-origin']).toBeUndefined();
  });
});

test('checkpoints keep a version by name and give it back', async () => {
  const id = await newPlan('Shed');
  await edit(id, 1, [oled]).expect(200);
  const kept = (await api().post(`/api/plans/${id}/checkpoints`).send({ name: 'Before the move' }).expect(201)).body as { id: string };
  await edit(id, 2, [{ kind: 'remove-placement', placement: 'display-1' }]).expect(200);
  expect((await api().get(`/api/plans/${id}/checkpoints`).expect(200)).body).toEqual({
    checkpoints: [{ id: kept.id, name: 'Before the move', revision: 2, at: expect.any(String) }],
  });
  expect((await api().get(`/api/plans/${id}/checkpoints/${kept.id}`).expect(200)).body).toMatchObject({
    plan: { placements: [{ id: 'display-1' }] },
  });
  await api().get(`/api/plans/${id}/checkpoints/none`).expect(404);
  await api().post('/api/plans/none/checkpoints').send({ name: 'A' }).expect(404);
  await api().post(`/api/plans/${id}/checkpoints`).send({ name: '' }).expect(400);
});

test('every route is in the OpenAPI document, and nothing else is', async () => {
  const { body } = await api().get('/api/openapi.json').expect(200);
  const documented = Object.entries((body as typeof OPENAPI).paths).flatMap(([path, methods]) =>
    Object.keys(methods).map((method) => `${method} ${path}`),
  );
  interface Layer {
    route?: { path: string; methods: Record<string, boolean> };
  }
  const routes = (stack: readonly Layer[], base: string) =>
    stack.flatMap(({ route }) =>
      route
        ? Object.keys(route.methods).map((method) => `${method} ${base}${route.path.replace(/:(\w+)/g, '{$1}')}`.replace(/\/$/, ''))
        : [],
    );
  const plans = planRoutes(served.store, served.shelf).stack as unknown as Layer[];
  const sheets = sheetRoutes(served.shelf).stack as unknown as Layer[];
  const archive = archiveRoutes(served.store, served.shelf).stack as unknown as Layer[];
  const session = signIn({ passphrase: 'correct horse battery' }).stack as unknown as Layer[];
  const own = ['get /api/health', 'get /api/session', 'get /api/openapi.json', 'get /api/catalogue'];
  const all = [
    ...routes(plans, '/api/plans'),
    ...routes(sheets, '/api/sheets'),
    ...routes(archive, '/api/archive'),
    ...routes(session, '/api'),
  ];
  expect(documented.sort()).toEqual([...own, ...all].sort());
  for (const path of own) await api().get(path.slice(4)).expect(200);
});

test('too many requests are told to wait', async () => {
  const few = await serve({ limits: { requests: 5, writes: 2 } });
  const post = () => request(few.app).post('/api/plans').send({ name: 'A', board: 'rp2040-stick-40' });
  expect([(await post()).status, (await post()).status, (await post()).status]).toEqual([201, 201, 429]);
  expect((await post()).body).toMatchObject({ error: { code: 'too-many' } });
  await request(few.app).get('/api/plans').expect(200);
  await request(few.app).get('/api/plans').expect(429);
  await few.close();
});

test('the log has a line a request and none of the user’s words', async () => {
  const id = await newPlan('Secret garden');
  await api().get('/api/plans/secret-garden-path').expect(404);
  await edit(id, 1, [{ kind: 'rename-plan', name: 'Secret shed' }]).expect(200);
  const lines = served.log.map((line) => JSON.parse(line) as Record<string, unknown>);
  expect(lines.at(-1)).toMatchObject({ method: 'POST', route: '/api/plans/:id/edits', status: 200, ms: expect.any(Number) });
  expect(served.log.join('')).not.toMatch(/secret|Secret/);
});

test('events tell the revision at once and after every change', async () => {
  const id = await newPlan();
  const server = served.app.listen(0, '127.0.0.1');
  await new Promise((resolve) => server.once('listening', resolve));
  const { port } = server.address() as { port: number };
  const abort = new AbortController();
  const stream = await fetch(`http://127.0.0.1:${port}/api/plans/${id}/events`, { signal: abort.signal });
  const reader = stream.body!.pipeThrough(new TextDecoderStream()).getReader();
  const { epoch } = served.store;
  const said = async () => (await reader.read()).value;
  expect(await said()).toBe(`event: revision\ndata: {"revision":1,"epoch":"${epoch}"}\n\n`);
  await edit(id, 1, [oled]).expect(200);
  expect(await said()).toBe(`event: revision\ndata: {"revision":2,"epoch":"${epoch}"}\n\n`);
  await api().delete(`/api/plans/${id}`).expect(204);
  expect(await said()).toBe(`event: gone\ndata: {"epoch":"${epoch}"}\n\n`);
  await api().post(`/api/plans/${id}/restore`).expect(204);
  expect(await said()).toBe(`event: revision\ndata: {"revision":2,"epoch":"${epoch}"}\n\n`);
  abort.abort();
  server.closeAllConnections();
  server.close();
});

test('the catalogue is served whole', async () => {
  const { body } = await api().get('/api/catalogue').expect(200);
  expect((body as { sheets: unknown[] }).sheets).toHaveLength(served.sheets.boards.size + served.sheets.parts.size);
});
