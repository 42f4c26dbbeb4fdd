import 'fake-indexeddb/auto';
import { entries, set } from 'idb-keyval';
import { shippedSheets } from '../../../core/tests/catalogue';
import { add, edited, stick, wire } from '../../../core/tests/makePlan';
import { doEdits } from './doing';
import { documentActions } from './documentSlice';
import { Keeper } from './keeper';
import { isLocalCopy, type LocalCopy, readLocal, writeLocal } from './localCopy';
import { openingOf } from './opening';
import { createStore } from './store';

const sheets = shippedSheets();
const batch = (id: string, pin: string) => ({ id, edits: [wire('a:A', pin)] });
const base = edited(stick(), sheets, add('a', 'led-red-5mm'));
const copy = (waiting: LocalCopy['waiting'] = []): LocalCopy => ({ version: 1, revision: 3, plan: base, waiting, past: [], future: [] });

function keeping(write: (c: LocalCopy) => Promise<void> = writeLocal) {
  const store = createStore();
  const told: string[] = [];
  const keeper = new Keeper(store, (m) => told.push(m), write);
  keeper.watch();
  store.dispatch(documentActions.opened({ plan: base, revision: 3 }));
  return { store, keeper, told };
}

test('every change is kept in this browser, with its undo', async () => {
  const { store, keeper } = keeping();
  doEdits(store, sheets, [wire('a:A', 'GP2')], 'wire');
  doEdits(store, sheets, [wire('a:A', 'GP3')], 'move');
  await keeper.settled();
  const { plan, waiting, past } = store.getState().document;
  expect(await readLocal(base.id)).toEqual({ kind: 'copy', copy: { version: 1, revision: 3, plan, waiting, past, future: [] } });
});

test('a slow disk gets the newest state last, not every one between', async () => {
  const written: string[] = [];
  const { store, keeper } = keeping(async (c) => {
    await new Promise((resolve) => setTimeout(resolve, 5));
    written.push(JSON.stringify(c.plan.wires['a:A']?.end ?? null));
  });
  for (let n = 2; n < 12; n += 1) doEdits(store, sheets, [wire('a:A', `GP${n}`)], 'move');
  await keeper.settled();
  expect(written.at(-1)).toBe('{"to":"pin","pin":"GP11"}');
  expect(written.length).toBeLessThan(5);
});

test('a full storage is told once, in plain words', async () => {
  const { store, keeper, told } = keeping(() => Promise.reject(new DOMException('full', 'QuotaExceededError')));
  for (const pin of ['GP2', 'GP3', 'GP4']) {
    doEdits(store, sheets, [wire('a:A', pin)], 'move');
    await keeper.settled();
  }
  expect(told).toEqual([expect.stringMatching(/^The browser’s storage is full or closed to this page\. .*keep this tab open\.$/)]);
});

test.each([
  ['a word', 'nonsense'],
  ['another version', { ...copy(), version: 2 }],
  ['another plan', { ...copy(), plan: { ...base, id: 'other' } }],
  ['a batch without edits', { ...copy(), waiting: [{ id: 'b1' }] }],
  ['a step without its way back', { ...copy(), past: [{ label: 'x', edits: [] }] }],
  ['a revision that is none', { ...copy(), revision: '3' }],
])('a copy that holds %s is set aside, not used and not lost', async (_, value) => {
  expect(isLocalCopy(value, base.id)).toBe(false);
  await set(`plan:${base.id}`, value);
  expect(await readLocal(base.id)).toEqual({ kind: 'damaged' });
  expect(
    (await entries()).some(
      ([key, kept]) => String(key).startsWith(`damaged:${base.id}:`) && JSON.stringify(kept) === JSON.stringify(value),
    ),
  ).toBe(true);
});

test('opening lays waiting batches on the server’s plan, leaves out those it has, and counts those that no longer fit', () => {
  const waiting = [batch('in', 'GP2'), batch('out', 'GP3'), { id: 'bad', edits: [wire('gone:A', 'GP4')] }];
  const server = { plan: edited(base, sheets, wire('a:A', 'GP2')), revision: 9, recent: ['in'] };
  const { document, lost } = openingOf(server, copy(waiting), sheets);
  expect(document).toMatchObject({
    revision: 9,
    save: 'saving',
    waiting: [{ id: 'out' }],
    plan: { wires: { 'a:A': { end: { pin: 'GP3' } } } },
  });
  expect(lost).toBe(1);
  expect(openingOf(server, null, sheets).document).toMatchObject({ plan: server.plan, save: 'saved', waiting: [] });
});
