import { add, stick, wire } from '../../../core/tests/makePlan';
import type { Batch } from './documentSlice';
import { answering, type Asked } from '../../tests/server';
import { planRequests } from './planRequests';
import { createStore } from './store';

const SEEN = { revision: 4, epoch: 'first' };
const one = (label?: string): Batch => ({ id: 'b1', edits: [add('a', 'led-red-5mm')], ...(label === undefined ? {} : { label }) });

const requests = () => planRequests(createStore().dispatch);
const bodyOf = ({ body }: Asked) => JSON.parse(body) as { batches: { batch: string; label?: string }[]; client: object };

afterEach(() => jest.restoreAllMocks());

test('batches go with the revision that they were made on, their label, and the tab', async () => {
  const asked = answering([200, { revision: 5 }]);
  expect(await requests().send('p', SEEN, [one('wire A')])).toEqual({ kind: 'done', revision: 5 });
  expect(asked[0]).toMatchObject({ path: '/api/plans/p/edits', method: 'POST', keepalive: true });
  expect(['Content-Type', 'If-Match'].map((name) => asked[0]!.headers.get(name))).toEqual(['application/json', '"4-first"']);
  expect(bodyOf(asked[0]!)).toEqual({
    batches: [{ batch: 'b1', edits: one().edits, label: 'wire A' }],
    client: { device: expect.stringContaining(' on ') as string, tab: expect.stringMatching(/^tab-[0-9a-f]{8}$/) as string },
  });
});

test.each([
  ['controls and direction marks become spaces', 'wire\u0007A\u202eB', 'wire A B'],
  ['spaces at its ends go', '  wire ', 'wire'],
  ['it ends at 300 characters', 'x'.repeat(400), 'x'.repeat(300)],
  ['nothing that can be read is "Edit"', '\u0000 \u2066', 'Edit'],
  ['one that the batch has not stays away', undefined, undefined],
])('a label within the server’s limits: %s', async (_, label, sent) => {
  const asked = answering([200, { revision: 5 }]);
  await requests().send('p', SEEN, [one(label)]);
  expect(bodyOf(asked[0]!).batches[0]!.label).toBe(sent);
});

const stored = { plan: stick(), revision: 9, epoch: 'first', recent: [] };
const refusal = { error: { message: 'No such pin.' } };

test.each([
  [412, stored, { kind: 'stale', now: stored }],
  [404, refusal, { kind: 'gone' }],
  [401, refusal, { kind: 'wait', why: 'signed-out' }],
  [507, refusal, { kind: 'wait', why: 'full' }],
  [500, refusal, { kind: 'wait', why: 'offline' }],
  [503, refusal, { kind: 'wait', why: 'offline' }],
  [429, refusal, { kind: 'wait', why: 'offline' }],
  [499, refusal, { kind: 'refused', at: 0, revision: 4, message: 'No such pin.' }],
  [422, { ...refusal, done: 2, revision: 6 }, { kind: 'refused', at: 2, revision: 6, message: 'No such pin.' }],
  [400, {}, { kind: 'refused', at: 0, revision: 4, message: 'The server returned status 400.' }],
])('status %i of the server means for the batches', async (status, body, meaning) => {
  answering([status, body]);
  expect(await requests().send('p', SEEN, [one()])).toEqual(meaning);
});

test('a request that the browser does not keep alive is sent once more as a plain one', async () => {
  const asked = answering('away', [200, { revision: 5 }]);
  expect(await requests().send('p', SEEN, [one()])).toEqual({ kind: 'done', revision: 5 });
  expect(asked.map(({ keepalive }) => keepalive)).toEqual([true, false]);
  const again = answering('away', 'away');
  expect(await requests().send('p', SEEN, [one()])).toEqual({ kind: 'wait', why: 'offline' });
  expect(again).toHaveLength(2);
});

test('what browsers do not keep alive, 60 000 bytes and more, is sent plainly at once', async () => {
  const wires = (count: number): Batch => ({ id: 'b', edits: Array.from({ length: count }, () => wire('a:A', 'GP2')) });
  const asked = answering([200, { revision: 5 }], [200, { revision: 5 }]);
  await requests().send('p', SEEN, [wires(10)]);
  await requests().send('p', SEEN, [wires(1000)]);
  expect(asked.map(({ keepalive }) => keepalive)).toEqual([true, false]);
  expect(asked[1]!.body.length).toBeGreaterThan(60_000);
});

test.each([
  [200, stored, stored],
  [404, refusal, 'gone'],
  [400, refusal, 'gone'],
  [401, refusal, 'signed-out'],
  [500, { error: { message: 'The plan cannot be read.' } }, { trouble: 'The plan cannot be read.' }],
  [500, {}, 'away'],
  [503, refusal, 'away'],
])('status %i means for a plan that is opened', async (status, body, meaning) => {
  const asked = answering([status, body]);
  expect(await requests().read('a/b')).toEqual(meaning);
  expect(asked[0]!.path).toBe('/api/plans/a%2Fb');
});

test('a plan without an answer is away', async () => {
  answering('away');
  expect(await requests().read('p')).toBe('away');
});

test('which batches the server has: none are asked for without a request, and none are taken without an answer', async () => {
  const asked = answering([200, { taken: ['b1'] }], [500, { taken: ['b1'] }], 'away', 'away');
  expect(await requests().taken('a/b', [])).toEqual(new Set());
  expect(asked).toEqual([]);
  expect(await requests().taken('a/b', [one()])).toEqual(new Set(['b1']));
  expect(asked[0]).toMatchObject({ path: '/api/plans/a%2Fb/taken', method: 'POST', body: '{"batches":["b1"]}' });
  expect(await requests().taken('p', [one()])).toEqual(new Set());
  expect(await requests().taken('p', [one()])).toEqual(new Set());
});
