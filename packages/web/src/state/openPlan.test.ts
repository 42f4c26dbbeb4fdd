import 'fake-indexeddb/auto';
import { createStore as keyValueStore, set } from 'idb-keyval';
import type { StoredPlan } from '@roof-chart/api/storedPlan';
import type { Plan } from '@roof-chart/core/plan/plan';
import { shippedSheets } from '../../../core/tests/catalogue';
import { add, edited, stick, wire } from '../../../core/tests/makePlan';
import type { Batch } from './documentSlice';
import { writeGround } from './localCopy';
import { openPlan } from './openPlan';
import type { PlanAnswer, PlanRequests } from './planRequests';
import { sessionActions } from './sessionSlice';
import { createStore } from './store';
import { tabId } from './tabIdentity';
import { keepBatches } from './waitingBatches';

const sheets = shippedSheets();
let count = 0;
/** A plan of its own, so that nothing is kept of it yet. */
const somePlan = (): Plan => ({ ...edited(stick(), sheets, add('bme', 'climate-bme280')), id: `opened-${(count += 1)}` });
const stored = (plan: Plan, more: Partial<StoredPlan> = {}): StoredPlan => ({ plan, revision: 3, epoch: 'first', recent: [], ...more });
const batch = (id: string, terminal: string): Batch => ({ id, edits: [wire(`bme:${terminal}`, 'GP4')] });
const keep = async (plan: Plan, ...batches: Batch[]) => keepBatches(plan.id, await tabId(), batches);

/** Opens a plan where the server gives this answer. */
async function opened(id: string, answer: PlanAnswer, signal = new AbortController().signal) {
  const store = createStore();
  const told: string[] = [];
  const requests: PlanRequests = {
    read: () => Promise.resolve(answer),
    taken: () => Promise.resolve(new Set()),
    send: () => Promise.reject(new Error('nothing is sent while a plan is opened')),
  };
  store.dispatch(sessionActions.densityChosen(true));
  store.dispatch(sessionActions.focused({ terminal: 'x:SDA', pin: 'GP1' }));
  const found = await store.dispatch(openPlan({ id, sheets, requests, tell: (message) => told.push(message), signal }));
  return { found, told, state: store.getState() };
}

test('the plan of the server opens, saved, and what was selected in the plan before is gone', async () => {
  const plan = somePlan();
  const { found, told, state } = await opened(plan.id, stored(plan));
  expect([found, told]).toEqual(['ready', []]);
  expect(state.session).toMatchObject({ terminal: null, pin: null, roomy: true });
  expect(state.document).toMatchObject({ plan, revision: 3, epoch: 'first', waiting: [], save: 'saved' });
});

test.each<[string, PlanAnswer]>([
  ['gone', 'gone'],
  ['away', 'away'],
  ['signed out', 'signed-out'],
  ['in trouble', { trouble: 'the database is damaged' }],
])('where the server is %s and nothing is kept here, no plan is open, and why is said', async (_, answer) => {
  const { found, state } = await opened('nowhere', answer);
  expect(found).toEqual(answer);
  expect(state.document.plan).toBeNull();
});

test.each<PlanAnswer>(['away', 'signed-out'])('while the server is %s, the copy of this browser opens with its edits', async (answer) => {
  const plan = somePlan();
  await writeGround({ version: 2, plan, revision: 2, epoch: 'first' });
  await keep(plan, batch('own', 'SDA'));
  const { found, state } = await opened(plan.id, answer);
  expect(found).toBe('ready');
  expect(state.document).toMatchObject({ revision: 2, save: 'offline', waiting: [{ id: 'own' }] });
  expect(state.document.plan!.wires['bme:SDA']).toBeDefined();
});

test('a copy here does not open a plan that the server no longer has', async () => {
  const plan = somePlan();
  await writeGround({ version: 2, plan, revision: 2, epoch: 'first' });
  expect((await opened(plan.id, 'gone')).found).toBe('gone');
});

test('edits that the server does not have are laid on its plan; those that no longer apply are counted', async () => {
  const plan = somePlan();
  await keep(plan, batch('kept', 'SDA'), batch('one', 'NOPE'));
  const one = await opened(plan.id, stored(plan));
  expect(one.state.document).toMatchObject({ save: 'saving', waiting: [{ id: 'kept' }] });
  expect(one.told).toEqual(['1 edit stored in this browser no longer applies to the plan and was left out.']);
  await keep(plan, batch('two', 'NOR'));
  const two = await opened(plan.id, stored(plan));
  expect(two.told).toEqual(['2 edits stored in this browser no longer apply to the plan and were left out.']);
});

test('a copy that cannot be read is said to be set aside', async () => {
  const plan = somePlan();
  await set(plan.id, { version: 2, plan: 'half' }, keyValueStore('roof-chart-plans', 'plans'));
  const { found, told } = await opened(plan.id, stored(plan));
  expect([found, told]).toEqual(['ready', [expect.stringContaining('could not be read and were set aside')]]);
});

test('a plan that nobody waits for any more does not take the place of another', async () => {
  const plan = somePlan();
  const left = new AbortController();
  left.abort();
  const { found, state } = await opened(plan.id, stored(plan), left.signal);
  expect([found, state.document.plan]).toEqual(['ready', null]);
});
