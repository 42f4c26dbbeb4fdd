import { type Asked, serving } from '../../tests/server';
import { api, failureWords } from './api';
import { createStore } from './store';

const { endpoints } = api;
let asked: readonly Asked[] = [];
/** Answers everything with this status and body. */
const answering = (status = 200, body: unknown = { sheets: [] }): void => {
  asked = serving(() => [status, body]);
};
const requests = () => asked.map(({ method, path }) => `${method} ${path}`);
afterEach(() => jest.restoreAllMocks());

const settled = () => new Promise((resolve) => setTimeout(resolve, 5));

test.each([
  ['GET /api/plans', endpoints.plans.initiate()],
  ['GET /api/session', endpoints.session.initiate()],
  ['GET /api/sheets/schema/board', endpoints.sheetSchema.initiate('board')],
  ['GET /api/sheets/my-board/plans', endpoints.sheetPlans.initiate('my-board')],
  ['GET /api/plans/p/history', endpoints.history.initiate({ plan: 'p' })],
  ['GET /api/plans/p/history?before=0', endpoints.history.initiate({ plan: 'p', before: 0 })],
  ['GET /api/plans/p/history/7', endpoints.historyStep.initiate({ plan: 'p', revision: 7 })],
  ['GET /api/plans/p/checkpoints', endpoints.checkpoints.initiate('p')],
  ['GET /api/plans/p/checkpoints/c', endpoints.checkpoint.initiate({ plan: 'p', id: 'c' })],
])('%s', async (request, question) => {
  answering(200, { it: 'is here' });
  const { data } = await createStore().dispatch(question as ReturnType<typeof endpoints.plans.initiate>);
  expect({ requests: requests(), data }).toEqual({ requests: [request], data: { it: 'is here' } });
});

test('the catalogue that an earlier version kept in the browser has today’s names', async () => {
  const led = { kind: 'part', id: 'led' };
  answering(200, { sheets: [led, { kind: 'part', id: 'shifter', passage: { kind: 'mosfet' } }], own: [] });
  const { data } = await createStore().dispatch(endpoints.catalogue.initiate());
  expect({ requests: requests(), data }).toEqual({
    requests: ['GET /api/catalogue'],
    data: { sheets: [led, { kind: 'part', id: 'shifter', levelShifter: { kind: 'mosfet' } }], own: [] },
  });
});

/** Lists that are shown while something is changed. */
const SHOWN = [
  endpoints.plans.initiate(),
  endpoints.catalogue.initiate(),
  endpoints.checkpoints.initiate('p'),
  endpoints.session.initiate(),
];
const zip = new Blob(['PK']);

test.each([
  ['POST /api/sheets', '{"sheets":[]}', ['catalogue'], endpoints.keepSheets.initiate([])],
  ['DELETE /api/sheets/s', '', ['catalogue'], endpoints.removeSheet.initiate('s')],
  ['POST /api/plans', '{"name":"New","board":"b"}', ['plans'], endpoints.createPlan.initiate({ name: 'New', board: 'b' })],
  ['POST /api/plans/file', '{"plan":1}', ['plans', 'catalogue'], endpoints.openPlanFile.initiate({ plan: 1 })],
  ['DELETE /api/plans/p', '', ['plans'], endpoints.deletePlan.initiate('p')],
  ['POST /api/plans/p/restore', '', ['plans'], endpoints.restorePlan.initiate('p')],
  [
    'POST /api/plans/p/checkpoints',
    '{"name":"Now"}',
    ['plans/p/checkpoints'],
    endpoints.keepCheckpoint.initiate({ plan: 'p', name: 'Now' }),
  ],
  ['POST /api/archive', 'PK', ['plans', 'catalogue', 'plans/p/checkpoints'], endpoints.takeArchive.initiate(zip)],
  ['POST /api/session', '{"passphrase":"open"}', [], endpoints.signIn.initiate('open')],
  ['DELETE /api/session', '', [], endpoints.signOut.initiate()],
])('%s, and what is asked for again after it', async (request, body, again, change) => {
  answering();
  const store = createStore();
  for (const question of SHOWN) await store.dispatch(question as ReturnType<typeof endpoints.plans.initiate>);
  const before = asked.length;
  await store.dispatch(change as ReturnType<typeof endpoints.signOut.initiate>);
  await settled();
  expect([requests()[before], asked[before]!.body]).toEqual([request, body]);
  expect(
    requests()
      .slice(before + 1)
      .toSorted(),
  ).toEqual(again.map((path) => `GET /api/${path}`).toSorted());
});

test('a request that is refused without a session opens the sign-in page; a wrong passphrase does not', async () => {
  answering(401, { error: { message: 'Sign in.' } });
  const store = createStore();
  await store.dispatch(endpoints.signIn.initiate('wrong'));
  expect(store.getState().session.signedOut).toBe(false);
  answering(403);
  await store.dispatch(endpoints.deletePlan.initiate('p'));
  expect(store.getState().session.signedOut).toBe(false);
  answering(401);
  await store.dispatch(endpoints.plans.initiate());
  expect(store.getState().session.signedOut).toBe(true);
});

test('a failure is told in the words of the server, or as a server that does not answer', () => {
  expect(failureWords({ data: { error: { message: 'No such plan.' } } })).toBe('No such plan.');
  for (const silent of [undefined, {}, { data: {} }, { data: { error: {} } }])
    expect(failureWords(silent)).toBe('The server is not responding. Nothing was changed.');
});
