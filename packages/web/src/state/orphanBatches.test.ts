import 'fake-indexeddb/auto';
import { clear, createStore as keyValueStore } from 'idb-keyval';
import { stick, wire } from '../../../core/tests/makePlan';
import { serving } from '../../tests/server';
import type { Batch } from './documentSlice';
import { sendOrphans, takeOverBatches } from './orphanBatches';
import { planRequests } from './planRequests';
import { createStore } from './store';
import { tabId } from './tabIdentity';
import { adoptBatches, keepBatches } from './waitingBatches';

const batch = (id: string): Batch => ({ id, edits: [wire('a:A', 'GP2')] });
const requests = planRequests(createStore().dispatch);
let count = 0;
const planId = () => `orphan-${(count += 1)}`;
const left = async (plan: string) => (await adoptBatches(plan, 'reader', { isOpen: () => false, own: true })).map(({ id }) => id);

type Server = { [plan: string]: { taken: string[]; status?: number; stale?: number; sent: string[][]; revision?: number } };

/** A server with these plans: what it has of each, and what it says to edits. */
const servingPlans = (plans: Server) =>
  serving(({ path, body }) => {
    const [, , , id, what] = path.split('/');
    const plan = plans[id!];
    if (!plan) return [404, {}];
    const { batches } = JSON.parse(body || '{}') as { batches: (string | { batch: string })[] };
    if (what === 'taken') return [200, { taken: plan.taken }];
    const now = { plan: stick(), revision: (plan.revision ??= 1), epoch: 'first', recent: [] };
    if (what !== 'edits') return [200, now];
    plan.sent.push(batches.map((one) => (typeof one === 'string' ? one : one.batch)));
    if (plan.stale) {
      plan.stale -= 1;
      return [412, now];
    }
    return [plan.status ?? 200, { revision: (plan.revision += 1) }];
  });

/** Tabs that are open in this browser. */
const tabsOpen = (...tabs: string[]) =>
  Object.defineProperty(globalThis, 'navigator', {
    configurable: true,
    value: {
      locks: {
        query: () => Promise.resolve({ held: tabs.map((tab) => ({ name: `roof-chart-tab/${tab}` })) }),
        request: (_: string, __: object, work: (lock: object) => void) => work({}),
      },
    },
  });

beforeEach(async () => {
  tabsOpen();
  // Each test begins without batches of another.
  servingPlans({});
  await clear(keyValueStore('roof-chart-waiting', 'batches'));
});
afterEach(() => jest.restoreAllMocks());

test('what closed tabs left behind is sent, plan by plan, but for what the server has', async () => {
  const [one, two] = [planId(), planId()];
  await keepBatches(one, 'gone', [batch('a'), batch('b')]);
  await keepBatches(two, 'gone', [batch('c')]);
  const server: Server = { [one]: { taken: ['a'], sent: [] }, [two]: { taken: [], sent: [] } };
  servingPlans(server);
  expect(await sendOrphans(requests, undefined)).toEqual([]);
  expect([server[one]!.sent, server[two]!.sent, await left(one), await left(two)]).toEqual([[['b']], [['c']], [], []]);
});

test('not for the plan that is open here, nor for another tab that is open', async () => {
  const [here, there] = [planId(), planId()];
  await keepBatches(here, 'gone', [batch('a')]);
  await keepBatches(there, 'open', [batch('b')]);
  tabsOpen('open');
  const server: Server = { [here]: { taken: [], sent: [] }, [there]: { taken: [], sent: [] } };
  servingPlans(server);
  expect(await sendOrphans(requests, here)).toEqual([]);
  expect([server[here]!.sent, server[there]!.sent]).toEqual([[], []]);
  expect([await left(here), await left(there)]).toEqual([['a'], ['b']]);
});

test.each([
  ['three times stale, then taken', { stale: 3 }, 4, []],
  ['stale for ever', { stale: 99 }, 4, ['a']],
  ['refused', { status: 400 }, 1, ['a']],
])('edits that are %s', async (_, says, times, kept) => {
  const plan = planId();
  await keepBatches(plan, 'gone', [batch('a')]);
  const server: Server = { [plan]: { taken: [], sent: [], ...says } };
  servingPlans(server);
  expect(await sendOrphans(requests, undefined)).toEqual(kept.length > 0 ? [plan] : []);
  expect(server[plan]!.sent).toHaveLength(times);
  expect(await left(plan)).toEqual(kept);
});

test('more than one request takes goes in several, however many', async () => {
  const plan = planId();
  const many = Array.from({ length: 2100 }, (_, n) => batch(`b${String(n).padStart(4, '0')}`));
  await keepBatches(plan, 'gone', many);
  const server: Server = { [plan]: { taken: [], sent: [] } };
  servingPlans(server);
  expect(await sendOrphans(requests, undefined)).toEqual([]);
  expect(server[plan]!.sent.map((list) => list.length)).toEqual([400, 400, 400, 400, 400, 100]);
  expect(server[plan]!.sent.flat()).toEqual(many.map(({ id }) => id));
});

test('a plan that the server has not keeps its edits', async () => {
  const plan = planId();
  await keepBatches(plan, 'gone', [batch('a')]);
  servingPlans({});
  expect(await sendOrphans(requests, undefined)).toEqual([plan]);
  expect(await left(plan)).toEqual(['a']);
});

test('a saver that sends its own gets only those of others', async () => {
  const plan = planId();
  await keepBatches(plan, await tabId(), [batch('own')]);
  await keepBatches(plan, 'gone', [batch('a'), batch('b')]);
  servingPlans({ [plan]: { taken: ['b'], sent: [] } });
  // Its own tab counts as open to others, yet not as another one.
  tabsOpen(await tabId());
  expect((await takeOverBatches(requests, plan, false)).map(({ id }) => id)).toEqual(['a']);
  expect((await takeOverBatches(requests, plan, true)).map(({ id }) => id)).toEqual(['own', 'a']);
});
