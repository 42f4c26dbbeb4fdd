import { shippedSheets } from '../../../core/tests/catalogue';
import { stick } from '../../../core/tests/makePlan';
import { documentActions } from './documentSlice';
import type { PlanAnswer } from './planRequests';
import { Saver } from './saver';
import { createStore } from './store';

const plan = stick();
const newer = { plan: { ...plan, name: 'Newer' }, revision: 9, epoch: 'first', recent: [] };

/** A saver of an open plan, and what the server answers when it is read. */
function hearing(answer: (store: ReturnType<typeof createStore>) => PlanAnswer) {
  const store = createStore();
  store.dispatch(documentActions.opened({ plan, revision: 3, epoch: 'first' }));
  const told: string[] = [];
  let reads = 0;
  const saver = new Saver(
    store,
    () => shippedSheets(),
    { tell: (m) => told.push(m), gone: (id) => told.push(`gone ${id}`), signedOut: () => told.push('signed out') },
    {
      send: () => Promise.resolve({ kind: 'wait', why: 'offline' }),
      read: () => {
        reads += 1;
        return Promise.resolve(answer(store));
      },
    },
  );
  return { store, saver, told, reads: () => reads };
}

test.each<[string, PlanAnswer]>([
  ['away', 'away'],
  ['signed out', 'signed-out'],
  ['gone', 'gone'],
  ['in trouble', { trouble: 'The stored document is damaged.' }],
])('a newer revision that cannot be read changes nothing: %s', async (_, answer) => {
  const { store, saver, told } = hearing(() => answer);
  const before = store.getState().document;
  await saver.heard(plan.id, { revision: 9, epoch: 'first' });
  expect(store.getState().document).toBe(before);
  expect(told).toEqual([]);
});

test('a newer revision is taken in without a word, an older or equal one is not read', async () => {
  const { store, saver, told, reads } = hearing(() => newer);
  for (const revision of [2, 3]) await saver.heard(plan.id, { revision, epoch: 'first' });
  expect(reads()).toBe(0);
  await saver.heard('another-plan', { revision: 9, epoch: 'first' });
  expect(reads()).toBe(0);
  await saver.heard(plan.id, { revision: 9, epoch: 'first' });
  expect(store.getState().document).toMatchObject({ plan: { name: 'Newer' }, revision: 9, save: 'saved' });
  expect(told).toEqual([]);
});

test.each<[string, (store: ReturnType<typeof createStore>) => void]>([
  ['another plan', (store) => store.dispatch(documentActions.opened({ plan: { ...plan, id: 'other' }, revision: 1, epoch: 'first' }))],
  ['none', (store) => store.dispatch(documentActions.closed())],
])('what is read after %s was opened is for nobody', async (_, meanwhile) => {
  const { store, saver } = hearing((one) => {
    meanwhile(one);
    return newer;
  });
  await saver.heard(plan.id, { revision: 9, epoch: 'first' });
  expect(store.getState().document.revision).toBeLessThan(2);
  expect(store.getState().document.plan?.name).not.toBe('Newer');
});

test('a plan that is deleted elsewhere is told; in another life of the database it is a choice', async () => {
  const { saver, told, store } = hearing(() => newer);
  await saver.heard(plan.id, { revision: null, epoch: 'first' });
  expect(told).toEqual([`gone ${plan.id}`]);
  await saver.heard(plan.id, { revision: null, epoch: 'second' });
  expect(store.getState().document).toMatchObject({ choice: 'gone', save: 'choice' });
  // Until the user has chosen, nothing that is heard counts.
  await saver.heard(plan.id, { revision: 12, epoch: 'second' });
  expect(store.getState().document).toMatchObject({ choice: 'gone', revision: 3 });
});

test('another life of the database with another plan is a choice, with the same plan it is taken over', async () => {
  const asked = hearing(() => ({ ...newer, epoch: 'second' }));
  await asked.saver.heard(plan.id, { revision: 1, epoch: 'second' });
  expect(asked.store.getState().document).toMatchObject({ save: 'choice', choice: { epoch: 'second' }, plan: { name: plan.name } });
  // The same plan, with its fields in another order.
  const reordered = Object.fromEntries(Object.entries(plan).toReversed()) as unknown as typeof plan;
  const same = hearing(() => ({ ...newer, plan: reordered, epoch: 'second' }));
  await same.saver.heard(plan.id, { revision: 1, epoch: 'second' });
  expect(same.store.getState().document).toMatchObject({ save: 'saved', choice: null, epoch: 'second', revision: 9 });
});
