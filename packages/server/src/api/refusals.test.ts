import { randomUUID } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import type request from 'supertest';
import type { Edit } from '@roof-chart/core/plan/edit';
import { clientOf, oled, sda } from '../../tests/client';
import { serve, type Served } from '../../tests/serve';

let served: Served;
beforeAll(async () => {
  served = await serve();
});
afterAll(() => served.close());
afterEach(() => expect(served.logged).toEqual([]));

const { api, newPlan, edit, stored } = clientOf(() => served);

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
    ['events of an ID that is none', () => api().get('/api/plans/NOT%20ONE/events'), 400, { path: 'id' }],
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
