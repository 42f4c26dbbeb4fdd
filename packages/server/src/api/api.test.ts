import { randomUUID } from 'node:crypto';
import type { Request, Response } from 'express';
import request from 'supertest';
import { clientOf, oled, sda } from '../../tests/client';
import { serve, type Served } from '../../tests/serve';
import { ENDPOINTS } from '@roof-chart/api/endpoints';
import { goneEventSchema, revisionEventSchema } from '@roof-chart/api/planEvents';
import { errorHandler } from './apiError';
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

const { api, newPlan, tag, edit, stored } = clientOf(() => served);

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

test('an archived plan is whole and stays open to edits, is listed after the others, and comes back', async () => {
  const id = await newPlan('Summer project');
  const other = await newPlan('At work');
  const list = async () => {
    const { plans } = (await api().get('/api/plans').expect(200)).body as { plans: { id: string; archived?: true }[] };
    return plans.filter((plan) => [id, other].includes(plan.id)).map((plan) => [plan.id, plan.archived ?? false]);
  };
  await api().post(`/api/plans/${id}/archive`).expect(204);
  await edit(id, 1, [oled]).expect(200);
  expect(await list()).toEqual([
    [other, false],
    [id, true],
  ]);
  await api().post(`/api/plans/${id}/unarchive`).expect(204);
  expect(await list()).toEqual([
    [id, false],
    [other, false],
  ]);
  await api().delete(`/api/plans/${id}`).expect(204);
  for (const gone of [id, 'no-such-plan']) await api().post(`/api/plans/${gone}/archive`).expect(404);
});

test('a list says how far each plan is; one that cannot be read hides no other', async () => {
  const id = await newPlan('Counted');
  await edit(id, 1, [oled, sda('GP4')]).expect(200);
  const state = async () => {
    const { plans } = (await api().get('/api/plans').expect(200)).body as { plans: { id: string; state?: object }[] };
    return plans.find((plan) => plan.id === id)!.state;
  };
  expect(await state()).toEqual({ wires: 1, ticked: 0, errors: expect.any(Number), warnings: expect.any(Number) });
  await edit(id, 2, [{ kind: 'tick', placement: 'display-1', terminal: 'SDA', end: { to: 'pin', pin: 'GP4' } }]).expect(200);
  expect(await state()).toMatchObject({ wires: 1, ticked: 1 });
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
  const documented = Object.entries((body as { paths: Record<string, object> }).paths).flatMap(([path, methods]) =>
    Object.keys(methods).map((method) => `${method} ${path}`),
  );
  expect(documented.toSorted()).toEqual(Object.keys(ENDPOINTS).toSorted());
  interface Layer {
    route?: { path: string; methods: Record<string, boolean> };
    handle?: { stack?: readonly Layer[] };
  }
  const routes = (stack: readonly Layer[], base: string): readonly string[] =>
    stack.flatMap(({ route, handle }) =>
      route
        ? Object.keys(route.methods).map((method) => `${method} ${base}${route.path.replace(/:(\w+)/g, '{$1}')}`.replace(/\/$/, ''))
        : routes(handle?.stack ?? [], base),
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
  const said = async () => {
    const { value = '' } = await reader.read();
    const [, kind, data = ''] = /^event: (\w+)\ndata: (.*)\n\n$/.exec(value) ?? [];
    expect((kind === 'gone' ? goneEventSchema : revisionEventSchema).validate(JSON.parse(data)).error).toBeUndefined();
    return value;
  };
  expect(await said()).toBe(`event: revision\ndata: {"revision":1,"epoch":"${epoch}"}\n\n`);
  // What happens to another plan is not told here.
  await edit(await newPlan('Other'), 1, [oled]).expect(200);
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

test('the server keeps 200 streams of events open and no more; where one closes there is room for another', async () => {
  const id = await newPlan();
  const server = served.app.listen(0, '127.0.0.1');
  await new Promise((resolve) => server.once('listening', resolve));
  const { port } = server.address() as { port: number };
  const open = (signal?: AbortSignal) =>
    fetch(`http://127.0.0.1:${port}/api/plans/${id}/events`, signal ? { signal } : {}).then(({ status }) => status);
  const first = new AbortController();
  expect(await open(first.signal)).toBe(200);
  expect(new Set(await Promise.all(Array.from({ length: 199 }, () => open())))).toEqual(new Set([200]));
  expect(await open()).toBe(204);
  first.abort();
  let status = 204;
  for (let n = 0; n < 100 && status !== 200; n += 1) {
    await new Promise((resolve) => setTimeout(resolve, 20));
    status = await open();
  }
  expect(status).toBe(200);
  server.closeAllConnections();
  await new Promise((resolve) => server.close(resolve));
});

test('an error after the first byte of an answer is left to the server, which cuts the connection; nothing is written into the answer', () => {
  const error = new Error('broken pipe');
  const said: unknown[] = [];
  const response = { headersSent: true, status: () => response, json: (body: unknown) => said.push(body) };
  errorHandler((logged) => said.push(logged))(error, {} as Request, response as unknown as Response, (passed) =>
    said.push(['next', passed]),
  );
  expect(said).toEqual([['next', error]]);
});

test('the catalogue is served whole', async () => {
  const { body } = await api().get('/api/catalogue').expect(200);
  expect((body as { sheets: unknown[] }).sheets).toHaveLength(served.sheets.boards.size + served.sheets.parts.size);
});
