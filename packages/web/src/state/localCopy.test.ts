import 'fake-indexeddb/auto';
import { createStore as keyValueStore, entries, get, set } from 'idb-keyval';
import type { Plan } from '@roof-chart/core/plan/plan';
import { shippedSheets } from '../../../core/tests/catalogue';
import { add, edited, stick, wire } from '../../../core/tests/makePlan';
import { editPlan } from './commands';
import { type Batch, documentActions } from './documentSlice';
import { browserStorage, LocalPersistence, type LocalStorage } from './localPersistence';
import { isLocalGround, isLocalSteps, type LocalGround, pruneSteps, readGround, readSteps, writeGround, writeSteps } from './localCopy';
import { openingOf, openingOffline } from './opening';
import { createStore } from './store';
import { adoptBatches, forgetBatches, keepBatches, plansWithOrphans } from './waitingBatches';

const sheets = shippedSheets();
const base = edited(stick(), sheets, add('a', 'led-red-5mm'));
let count = 0;
/** A plan of its own for each test: the storage is one for all. */
const planOf = () => ({ ...base, id: `plan-${(count += 1)}` });
const batch = (id: string, pin: string): Batch => ({ id, edits: [wire('a:A', pin)] });
const ground = (plan = planOf()): LocalGround => ({ version: 2, plan, revision: 3, epoch: 'first' });
const ids = (batches: readonly Batch[]) => batches.map((b) => b.id);
const everyoneGone = () => false;

function keeping(storage: Partial<LocalStorage> = {}, tab = 'tab-1') {
  const store = createStore();
  const told: string[] = [];
  const keeper = new LocalPersistence(store, (m) => told.push(m), { ...browserStorage(() => Promise.resolve(tab)), ...storage });
  keeper.watch();
  const plan = planOf();
  store.dispatch(documentActions.opened({ plan, revision: 3, epoch: 'first' }));
  return { store, keeper, told, plan };
}

test('every change is kept in this browser, with its undo', async () => {
  const { store, keeper, plan } = keeping();
  store.dispatch(editPlan(sheets, [wire('a:A', 'GP2')], 'wire'));
  store.dispatch(editPlan(sheets, [wire('a:A', 'GP3')], 'move'));
  await keeper.settled();
  const { waiting, past } = store.getState().document;
  expect(await readGround(plan.id)).toEqual({ kind: 'ground', ground: { version: 2, plan, revision: 3, epoch: 'first' } });
  expect(await adoptBatches(plan.id, 'tab-1', { isOpen: everyoneGone, own: true })).toEqual(waiting);
  expect(await readSteps(plan.id, 'tab-1')).toMatchObject({ past, future: [] });
  // Acknowledged: the ground moves on before the batch is forgotten.
  store.dispatch(documentActions.saved({ revision: 4, batches: 1, ground: edited(plan, sheets, wire('a:A', 'GP2')) }));
  await keeper.settled();
  expect(ids(await adoptBatches(plan.id, 'tab-1', { isOpen: everyoneGone, own: true }))).toEqual([waiting[1]!.id]);
  expect(await readGround(plan.id)).toMatchObject({ ground: { revision: 4, plan: { wires: { 'a:A': { end: { pin: 'GP2' } } } } } });
});

test('two tabs offline keep their edits apart: none of either is lost, and each is sent by one', async () => {
  const plan = planOf();
  await Promise.all([
    keepBatches(plan.id, 'left', [batch('l1', 'GP2'), batch('l2', 'GP3')]),
    keepBatches(plan.id, 'right', [batch('r1', 'GP4')]),
  ]);
  const open = new Set(['left', 'right']);
  const isOpen = (tab: string) => open.has(tab);
  expect(ids(await adoptBatches(plan.id, 'left', { isOpen: isOpen, own: true }))).toEqual(['l1', 'l2']);
  expect(ids(await adoptBatches(plan.id, 'right', { isOpen: isOpen, own: true }))).toEqual(['r1']);
  expect(await plansWithOrphans(isOpen)).not.toContain(plan.id);
  // What a tab is sending itself is never handed to it a second time.
  expect(await adoptBatches(plan.id, 'left', { isOpen, own: false })).toEqual([]);
  // The left one is closed before anything was sent: of two tabs that ask at once exactly one gets its edits.
  open.delete('left');
  expect(await plansWithOrphans(isOpen)).toContain(plan.id);
  const others = ['third', 'fourth'];
  for (const tab of others) open.add(tab);
  const got = await Promise.all(others.map((tab) => adoptBatches(plan.id, tab, { isOpen: isOpen, own: true })));
  expect(got.map((list) => list.length).sort()).toEqual([0, 2]);
  await forgetBatches(plan.id, ['l1', 'l2', 'r1']);
  expect(await adoptBatches(plan.id, 'right', { isOpen: everyoneGone, own: true })).toEqual([]);
});

test('what an earlier version kept here opens in today’s shape: the plan, its undo and its unsent edits', async () => {
  const { valuesOnHand, layout: _later, ...rest } = planOf();
  const plan = { ...rest, drawer: valuesOnHand } as unknown as Plan;
  const then = [{ kind: 'drawer', drawer: { series: 'E24' } }] as unknown as Batch['edits'];
  const now = [{ kind: 'values-on-hand', valuesOnHand: { series: 'E24' } }];
  await writeGround(ground(plan));
  await writeSteps(plan.id, 'tab-1', { past: [{ label: 'E24 on hand', edits: then, inverse: then }], future: [] });
  await keepBatches(plan.id, 'tab-1', [{ id: 'v1', edits: then }]);
  expect(await readGround(plan.id)).toEqual({ kind: 'ground', ground: ground({ ...rest, valuesOnHand, layout: {} }) });
  const steps = { past: [{ label: 'E24 on hand', edits: now, inverse: now }], future: [] };
  for (const tab of ['tab-1', 'fresh']) expect(await readSteps(plan.id, tab)).toEqual(steps);
  expect(await adoptBatches(plan.id, 'tab-1', { isOpen: everyoneGone, own: true })).toEqual([{ id: 'v1', edits: now }]);
});

test('the edits of a plan that was closed stay until somebody sends them', async () => {
  const { store, keeper, plan } = keeping();
  store.dispatch(editPlan(sheets, [wire('a:A', 'GP2')], 'wire'));
  await keeper.settled();
  store.dispatch(documentActions.opened({ plan: planOf(), revision: 1, epoch: 'first' }));
  await keeper.settled();
  expect(await adoptBatches(plan.id, 'tab-2', { isOpen: everyoneGone, own: true })).toHaveLength(1);
});

test('a slow disk gets the newest state last, not every one between', async () => {
  const written: number[] = [];
  const { store, keeper } = keeping({
    keepBatches: async (_, batches) => {
      await new Promise((resolve) => setTimeout(resolve, 5));
      written.push(batches.length);
    },
  });
  for (let n = 2; n < 12; n += 1) store.dispatch(editPlan(sheets, [wire('a:A', `GP${n}`)], 'move'));
  await keeper.settled();
  expect([written.reduce((sum, n) => sum + n, 0), written.length < 5]).toEqual([10, true]);
});

test('a full storage is told once, in plain words', async () => {
  const { store, keeper, told } = keeping({ keepBatches: () => Promise.reject(new DOMException('full', 'QuotaExceededError')) });
  for (const pin of ['GP2', 'GP3', 'GP4']) {
    store.dispatch(editPlan(sheets, [wire('a:A', pin)], 'move'));
    await keeper.settled();
  }
  expect(told).toEqual([expect.stringMatching(/^Browser storage is full or blocked\. Keep this tab open /)]);
});

test.each([
  ['a word', () => 'nonsense'],
  ['another version', (g: LocalGround) => ({ ...g, version: 7 })],
  ['another plan', (g: LocalGround) => ({ ...g, plan: { ...g.plan, id: 'other' } })],
  ['no epoch', ({ epoch: _, ...g }: LocalGround) => g],
  ['a revision that is none', (g: LocalGround) => ({ ...g, revision: '3' })],
])('a record that holds %s is set aside, not used and not lost', async (_, change) => {
  const sound = ground();
  const { id } = sound.plan;
  const value: unknown = change(sound);
  expect(isLocalGround(value, id)).toBe(false);
  await writeGround(sound);
  await set(id, value, keyValueStore('roof-chart-plans', 'plans'));
  expect(await readGround(id)).toEqual({ kind: 'damaged' });
  const aside = await entries(keyValueStore('roof-chart-damaged', 'damaged'));
  expect(aside.some(([key, kept]) => String(key).startsWith(`${id}/`) && JSON.stringify(kept) === JSON.stringify(value))).toBe(true);
  expect(await readGround(id)).toEqual({ kind: 'none' });
});

test('an older revision never replaces a newer one, but another life of the database does', async () => {
  const sound = ground();
  await writeGround({ ...sound, revision: 9 });
  await writeGround(sound);
  expect(await readGround(sound.plan.id)).toMatchObject({ ground: { revision: 9 } });
  await writeGround({ ...sound, epoch: 'second' });
  expect(await readGround(sound.plan.id)).toMatchObject({ ground: { revision: 3, epoch: 'second' } });
});

test('a fresh tab goes on with the undo of the tab that was last at work; of many tabs five are kept', async () => {
  const { id } = planOf();
  const step = (label: string) => ({ label, edits: [], inverse: [] });
  for (let n = 0; n < 8; n += 1) {
    await writeSteps(id, `tab-${n}`, { past: [step(`of ${n}`)], future: [] });
    await new Promise((resolve) => setTimeout(resolve, 2));
  }
  expect(await readSteps(id, 'fresh')).toMatchObject({ past: [{ label: 'of 7' }] });
  await pruneSteps(id);
  expect(await readSteps(id, 'tab-4')).toMatchObject({ past: [{ label: 'of 4' }] });
  expect(await readSteps(id, 'tab-2')).toMatchObject({ past: [{ label: 'of 7' }] });
});

const aStep = (label: string) => ({ label, edits: [], inverse: [] });

test('unsent edits that an earlier version kept are taken over, with its undo', async () => {
  const plan = planOf();
  const [past, future] = [[aStep('done')], [aStep('undone')]];
  await set(`plan:${plan.id}`, { version: 1, revision: 3, plan, waiting: [batch('old', 'GP2')], past, future });
  expect(await readGround(plan.id)).toEqual({ kind: 'none' });
  expect(ids(await adoptBatches(plan.id, 'tab-1', { isOpen: everyoneGone, own: true }))).toEqual(['old']);
  expect(await readSteps(plan.id, 'tab-1')).toMatchObject({ past, future });
  expect(await get(`plan:${plan.id}`)).toBeUndefined();
});

test('of an earlier version’s record without undo, or with undo that is none, the unsent edits count', async () => {
  for (const more of [{}, { past: [{ label: 'no edits' }], future: [] }, { past: [], future: ['none'] }]) {
    const plan = planOf();
    await set(`plan:${plan.id}`, { version: 1, plan, waiting: [batch('old', 'GP2')], ...more });
    await readGround(plan.id);
    expect(ids(await adoptBatches(plan.id, 'tab-1', { isOpen: everyoneGone, own: true }))).toEqual(['old']);
    expect(await readSteps(plan.id, 'tab-1')).toMatchObject({ past: [], future: [] });
  }
});

test.each([
  ['of a version that never was', () => ({ version: 3 })],
  ['of another plan', (plan: Plan) => ({ plan: { ...plan, id: 'other' } })],
  ['without a plan', () => ({ plan: null })],
  ['of another format', (plan: Plan) => ({ plan: { ...plan, format: 'other' } })],
  ['without parts', (plan: Plan) => ({ plan: { ...plan, placements: undefined } })],
  ['with edits that are no list', () => ({ waiting: { 0: batch('old', 'GP2') } })],
  ['with one sound batch and one that is none', () => ({ waiting: [batch('old', 'GP2'), { id: 'no edits' }] })],
  ['with one sound batch and one without an id', () => ({ waiting: [batch('old', 'GP2'), { edits: [] }] })],
])('a record of an earlier version %s is set aside', async (_, change) => {
  const plan = planOf();
  const value = { version: 1, plan, waiting: [batch('old', 'GP2')], ...change(plan) };
  await set(`plan:${plan.id}`, value);
  expect(await readGround(plan.id)).toEqual({ kind: 'none' });
  expect(await adoptBatches(plan.id, 'tab-1', { isOpen: everyoneGone, own: true })).toEqual([]);
  const aside = await entries(keyValueStore('roof-chart-damaged', 'damaged'));
  expect(aside.filter(([key]) => String(key).startsWith(`${plan.id}/`)).map(([, kept]) => kept)).toEqual([value]);
  expect(await get(`plan:${plan.id}`)).toBeUndefined();
});

test.each([
  ['nothing', undefined],
  ['a time that is a word', { at: 'now', past: [], future: [] }],
  ['no way forward', { at: 1, past: [] }],
  ['no way back', { at: 1, future: [] }],
  ['a step without a label', { at: 1, past: [aStep('sound'), { edits: [], inverse: [] }], future: [] }],
  ['a step without edits', { at: 1, past: [], future: [{ label: 'x', inverse: [] }] }],
  ['a step without a way back', { at: 1, past: [], future: [{ label: 'x', edits: [] }] }],
])('undo that was kept as %s is none', async (_, kept) => {
  const { id } = planOf();
  expect(isLocalSteps(kept)).toBe(false);
  await set(`${id}/tab-1`, kept, keyValueStore('roof-chart-undo', 'undo'));
  expect(await readSteps(id, 'tab-1')).toEqual({ past: [], future: [] });
});

test('200 steps of undo and of redo are kept, the last ones', async () => {
  const { id } = planOf();
  const many = Array.from({ length: 230 }, (_, n) => aStep(String(n)));
  await writeSteps(id, 'tab-1', { past: many, future: many });
  const { past, future } = await readSteps(id, 'tab-1');
  expect([past.length, past[0]!.label, future.length, future[0]!.label]).toEqual([200, '30', 200, '30']);
});

test('a storage that is refused is an empty one', async () => {
  const refused = jest.spyOn(IDBObjectStore.prototype, 'get').mockImplementation(() => {
    throw new DOMException('refused', 'InvalidStateError');
  });
  expect(await readGround(planOf().id)).toEqual({ kind: 'none' });
  expect(await readSteps(planOf().id, 'tab-1')).toEqual({ past: [], future: [] });
  refused.mockRestore();
});

test.each([
  ['its ground', { ground: base }, ['writeGround']],
  ['its revision', { revision: 4 }, ['writeGround']],
  ['the life of the database', { epoch: 'second' }, ['writeGround']],
  ['undo', { past: [aStep('done')] }, ['writeSteps']],
  ['redo', { future: [aStep('undone')] }, ['writeSteps']],
  ['how it is saved', { save: 'offline' as const }, []],
])('of a plan that is open, what changes is written and no more: %s', async (_, change, written) => {
  const calls: string[] = [];
  const note = (name: string) => () => {
    calls.push(name);
    return Promise.resolve();
  };
  const { store, keeper } = keeping({
    keepBatches: note('keepBatches'),
    forgetBatches: note('forgetBatches'),
    writeGround: note('writeGround'),
    writeSteps: note('writeSteps'),
  });
  await keeper.settled();
  expect(calls).toEqual(['writeGround', 'writeSteps']);
  calls.length = 0;
  const { document } = store.getState();
  store.dispatch(documentActions.opened({ ...document, plan: document.plan!, ...change }));
  await keeper.settled();
  expect(calls).toEqual(written);
  // A plan that is closed leaves nothing to write.
  calls.length = 0;
  store.dispatch(documentActions.closed());
  await keeper.settled();
  expect(calls).toEqual([]);
});

test('records that are no batches, in a storage that others write, are passed over', async () => {
  const { id } = planOf();
  const sound = { planId: id, tab: 'gone', order: 2, batch: batch('sound', 'GP2') };
  const strange = ['none', { ...sound, planId: 3 }, { ...sound, tab: null }, { ...sound, order: '1' }, { ...sound, batch: { id: 'x' } }];
  const records = [sound, { ...sound, order: 1, batch: batch('first', 'GP3') }, ...strange];
  for (const [n, record] of records.entries()) await set(`${id}/${n}`, record, keyValueStore('roof-chart-waiting', 'batches'));
  expect(ids(await adoptBatches(id, 'tab-1', { isOpen: everyoneGone, own: true }))).toEqual(['first', 'sound']);
});

describe('opening', () => {
  const nothing = { ground: null, waiting: [], past: [], future: [] };
  const server = (plan = base) => ({ plan, revision: 9, epoch: 'first', recent: ['in'] });

  test('lays waiting batches on the server’s plan, leaves out those it has, and counts those that no longer fit', () => {
    const waiting = [batch('in', 'GP2'), batch('older', 'GP2'), batch('out', 'GP3'), { id: 'bad', edits: [wire('gone:A', 'GP4')] }];
    const { document, lost } = openingOf(server(), { ...nothing, waiting }, new Set(['older']), sheets);
    expect(document).toMatchObject({
      revision: 9,
      save: 'saving',
      waiting: [{ id: 'out' }],
      plan: { wires: { 'a:A': { end: { pin: 'GP3' } } } },
    });
    expect(lost).toBe(1);
    expect(openingOf(server(), nothing, new Set(), sheets).document).toMatchObject({ plan: base, save: 'saved', waiting: [] });
  });

  test('with unsent edits on another life of the database the user is asked, with both plans', () => {
    const kept = { ...nothing, ground: { ...ground(base), epoch: 'before' }, waiting: [batch('mine', 'GP3')] };
    const { document } = openingOf(server(), kept, new Set(), sheets);
    expect(document).toMatchObject({
      save: 'choice',
      plan: { wires: { 'a:A': { end: { pin: 'GP3' } } } },
      choice: { revision: 9 },
      waiting: [{ id: 'mine' }],
    });
    expect(openingOf(server(), { ...kept, waiting: [] }, new Set(), sheets).document).toMatchObject({ save: 'saved' });
  });

  test('without the server, what it last gave and the unsent edits are the plan', () => {
    const opened = openingOffline({ ...nothing, ground: ground(base), waiting: [batch('mine', 'GP3')] }, sheets);
    expect(opened).toMatchObject({ save: 'offline', revision: 3, plan: { wires: { 'a:A': { end: { pin: 'GP3' } } } }, ground: base });
  });
});
