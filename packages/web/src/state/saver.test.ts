import fc from 'fast-check';
import { applyEdits } from '@roof-chart/core/plan/applyEdits';
import type { Plan } from '@roof-chart/core/plan/plan';
import { shippedSheets } from '../../../core/tests/catalogue';
import { add, edited, stick, wire } from '../../../core/tests/makePlan';
import { editPlan, redoStep, undoStep } from './commands';
import { type Batch, documentActions } from './documentSlice';
import { nextBatches, type SaveAnswer, type SendBatches } from './planRequests';
import { rebase, Saver } from './saver';
import { createStore } from './store';

const sheets = shippedSheets();
const rename = (name: string) => [{ kind: 'rename-plan', name }] as const;

/** A server of one plan that answers as ours does, and can be told to misbehave. */
class FakeServer {
  revision = 1;
  readonly taken = new Map<string, number>();
  mood: 'well' | 'away' | 'loses-answers' = 'well';
  constructor(public plan: Plan) {}

  epoch = 'first';
  /** How many batches came in each request. */
  readonly requests: number[] = [];

  readonly send: SendBatches = async (_, seen, batches): Promise<SaveAnswer> => {
    if (this.mood === 'away') return { kind: 'wait', why: 'offline' };
    this.requests.push(batches.length);
    const answer = this.#answer(seen, batches);
    return this.mood === 'loses-answers' ? { kind: 'wait', why: 'offline' } : answer;
  };

  #answer({ revision, epoch }: { revision: number; epoch: string }, batches: readonly Batch[]): SaveAnswer {
    if (epoch !== this.epoch) return { kind: 'stale', now: this.stored() };
    let expected = revision;
    for (const [at, batch] of batches.entries()) {
      const before = this.taken.get(batch.id);
      if (before !== undefined) {
        expected = Math.max(expected, before);
        continue;
      }
      if (expected !== this.revision) return { kind: 'stale', now: this.stored() };
      const result = applyEdits(this.plan, batch.edits, sheets);
      if (!result.ok) return { kind: 'refused', at, revision: this.revision, message: result.problem.expected };
      this.plan = result.plan;
      this.revision += 1;
      expected = this.revision;
      this.taken.set(batch.id, this.revision);
    }
    return { kind: 'done', revision: expected };
  }

  stored() {
    return { plan: this.plan, revision: this.revision, epoch: this.epoch, recent: [...this.taken.keys()].reverse() };
  }

  /** Somebody else edits. */
  elsewhere(name: string): void {
    this.plan = { ...this.plan, name };
    this.revision += 1;
  }
}

function setUp(plan = stick()) {
  const store = createStore();
  const server = new FakeServer(plan);
  const told: string[] = [];
  store.dispatch(documentActions.opened({ plan, revision: 1, epoch: 'first' }));
  const saver = new Saver(
    store,
    () => sheets,
    { tell: (m) => told.push(m), gone: () => told.push('gone'), signedOut: () => told.push('signed out') },
    { send: server.send, read: async () => (server.mood === 'away' ? 'away' : server.stored()) },
  );
  const stop = saver.watch();
  const settled = async () => {
    for (let n = 0; n < 20; n += 1) await Promise.resolve();
    await jest.advanceTimersByTimeAsync(30_000);
    return store.getState().document;
  };
  return { store, server, told, stop, settled, saver };
}

beforeEach(() => void jest.useFakeTimers());
afterEach(() => void jest.useRealTimers());

test('edits reach the server in order, and the state says so in the end', async () => {
  const { store, server, settled, stop } = setUp();
  store.dispatch(editPlan(sheets, [add('a', 'humidity-sht31')], 'add'));
  store.dispatch(editPlan(sheets, [wire('a:SDA', 'GP4')], 'wire'));
  expect(store.getState().document.save).toBe('saving');
  expect(await settled()).toMatchObject({ save: 'saved', waiting: [], revision: 3 });
  expect(server.plan).toEqual(store.getState().document.plan);
  // What the server holds is known here, too: it is what an offline start begins with.
  expect(store.getState().document.ground).toEqual(server.plan);
  stop();
});

test('a long row of edits goes in few requests, whatever the server’s pace', async () => {
  const { store, server, settled, stop } = setUp();
  server.mood = 'away';
  for (let n = 0; n < 2000; n += 1) store.dispatch(editPlan(sheets, rename(`Edit ${n}`), 'rename'));
  await settled();
  server.mood = 'well';
  expect(await settled()).toMatchObject({ save: 'saved', waiting: [], revision: 2001 });
  expect([server.plan.name, server.requests]).toEqual(['Edit 1999', [400, 400, 400, 400, 400]]);
  expect(store.getState().document.ground).toEqual(server.plan);
  stop();
});

test('what goes in one request stays under the server’s limits; a batch that is larger goes by itself', () => {
  const batch = (id: string, edits: number): Batch => ({ id, edits: Array.from({ length: edits }, () => rename('x')[0]) });
  expect(nextBatches([batch('a', 3000), batch('b', 1500), batch('c', 1000)]).map((b) => b.id)).toEqual(['a', 'b']);
  expect(nextBatches([batch('large', 9000), batch('b', 1)]).map((b) => b.id)).toEqual(['large']);
  const wide: Batch = { id: 'wide', edits: [{ kind: 'rename-plan', name: 'x'.repeat(1_400_000) }] };
  expect(nextBatches([wide, { ...wide, id: 'b' }]).map((b) => b.id)).toEqual(['wide']);
});

test('a batch that is refused in the middle keeps those before it and after it', async () => {
  const { store, server, told, settled, stop } = setUp();
  server.mood = 'away';
  store.dispatch(editPlan(sheets, rename('One'), 'rename'));
  const bad: Batch = { id: 'bad', edits: [wire('nobody:A', 'GP2')] };
  store.dispatch(
    documentActions.did({ plan: store.getState().document.plan!, batch: bad, step: { label: 'bad', edits: [], inverse: [] } }),
  );
  store.dispatch(editPlan(sheets, rename('Two'), 'rename'));
  await settled();
  server.mood = 'well';
  expect(await settled()).toMatchObject({ save: 'saved', waiting: [], plan: { name: 'Two' } });
  expect([server.plan.name, server.revision, told]).toEqual(['Two', 3, [expect.stringMatching(/server rejected an edit; it was undone/)]]);
  stop();
});

test('a full disk and a lost sign-in are told as such, and saving goes on when they are over', async () => {
  const { store, server, told, settled, stop } = setUp();
  stop();
  let answer: SaveAnswer | null = { kind: 'wait', why: 'full' };
  const saver = new Saver(
    store,
    () => sheets,
    { tell: (m) => told.push(m), gone: () => told.push('gone'), signedOut: () => told.push('signed out') },
    { send: async (...args) => answer ?? server.send(...args), read: async () => server.stored() },
  );
  const stopAgain = saver.watch();
  store.dispatch(editPlan(sheets, rename('Kept'), 'rename'));
  expect(await settled()).toMatchObject({ save: 'full', waiting: [{}] });
  answer = { kind: 'wait', why: 'signed-out' };
  expect(await settled()).toMatchObject({ save: 'signed-out', waiting: [{}] });
  answer = null;
  expect(await settled()).toMatchObject({ save: 'saved', waiting: [] });
  expect([server.plan.name, new Set(told)]).toEqual(['Kept', new Set(['signed out'])]);
  stopAgain();
});

describe('after the server’s database was restored or reset', () => {
  test('an open tab with the same plan takes it over without a word', async () => {
    const { store, server, settled, stop, saver } = setUp();
    server.epoch = 'second';
    await saver.heard(server.plan.id, { revision: 1, epoch: 'second' });
    expect(await settled()).toMatchObject({ epoch: 'second', choice: null, save: 'saved' });
    store.dispatch(editPlan(sheets, rename('Goes on'), 'rename'));
    expect(await settled()).toMatchObject({ save: 'saved', revision: 2 });
    stop();
  });

  test('a tab with another plan keeps everything and asks; nothing is sent before the choice', async () => {
    const { store, server, settled, stop, saver } = setUp();
    store.dispatch(editPlan(sheets, rename('Newer'), 'rename'));
    await settled();
    // The restored database is older: its revision is one that the tab has passed.
    server.plan = stick();
    server.revision = 1;
    server.epoch = 'second';
    server.taken.clear();
    await saver.heard(server.plan.id, { revision: 1, epoch: 'second' });
    expect(store.getState().document).toMatchObject({ save: 'choice', plan: { name: 'Newer' }, choice: { epoch: 'second' } });
    const requests = server.requests.length;
    store.dispatch(editPlan(sheets, rename('Newest'), 'rename'));
    expect(await settled()).toMatchObject({ save: 'choice', plan: { name: 'Newest' }, waiting: [{}] });
    expect(server.requests).toHaveLength(requests);
    stop();
  });

  test('an edit under way meets the other life as a choice, not as a stale revision', async () => {
    const { store, server, settled, stop } = setUp();
    server.epoch = 'second';
    store.dispatch(editPlan(sheets, rename('Mine'), 'rename'));
    expect(await settled()).toMatchObject({ save: 'choice', plan: { name: 'Mine' }, choice: { plan: { name: stick().name } } });
    stop();
  });

  test('a plan that is not in it any more is still here', async () => {
    const { store, server, told, settled, stop, saver } = setUp();
    await saver.heard(server.plan.id, { revision: null, epoch: 'second' });
    expect(await settled()).toMatchObject({ choice: 'gone', plan: { name: stick().name } });
    expect(told).toEqual([]);
    // In the same life it was deleted by somebody, who may want it back.
    store.dispatch(documentActions.opened({ plan: stick(), revision: 1, epoch: 'first' }));
    await saver.heard(server.plan.id, { revision: null, epoch: 'first' });
    expect(told).toEqual(['gone']);
    stop();
  });
});

test('what another tab left behind is laid on top and sent with this one’s', async () => {
  const { store, server, told, settled, stop, saver } = setUp();
  saver.adopt(server.plan.id, [{ id: 'left', edits: [add('a', 'led-red-5mm')] }]);
  saver.adopt('another-plan', [{ id: 'foreign', edits: rename('Foreign') }]);
  expect(await settled()).toMatchObject({ save: 'saved', plan: { placements: [{ id: 'a' }] } });
  saver.adopt(server.plan.id, []);
  expect([server.plan.placements.length, told.length, store.getState().document.waiting]).toEqual([1, 1, []]);
  stop();
});

test('a server that is away costs nothing: edits wait, and go when it is back', async () => {
  const { store, server, settled, stop } = setUp();
  server.mood = 'away';
  store.dispatch(editPlan(sheets, rename('One'), 'rename'));
  expect(await settled()).toMatchObject({ save: 'offline', waiting: [{}] });
  store.dispatch(editPlan(sheets, rename('Two'), 'rename'));
  server.mood = 'well';
  expect(await settled()).toMatchObject({ save: 'saved', waiting: [] });
  expect(server.plan.name).toBe('Two');
  stop();
});

test('an answer that was lost does not make an edit happen twice', async () => {
  const { store, server, settled, stop, told } = setUp();
  server.mood = 'loses-answers';
  store.dispatch(editPlan(sheets, [add('a', 'humidity-sht31')], 'add'));
  await settled();
  server.mood = 'well';
  expect(await settled()).toMatchObject({ save: 'saved' });
  expect([server.plan.placements.length, server.revision]).toEqual([1, 2]);
  // Nothing was laid on anything: there is nothing to tell.
  expect(told).toEqual([]);
  stop();
});

test('somebody else’s change is taken in and ours laid on top; what no longer fits is told', async () => {
  const plan = edited(stick(), sheets, add('a', 'humidity-sht31'));
  const { store, server, told, settled, stop } = setUp(plan);
  server.elsewhere('Theirs');
  store.dispatch(editPlan(sheets, [wire('a:SDA', 'GP4')], 'wire'));
  expect((await settled()).plan).toMatchObject({ name: 'Theirs', wires: { 'a:SDA': { end: { pin: 'GP4' } } } });
  server.plan = { ...server.plan, placements: [], wires: {} };
  server.revision += 1;
  store.dispatch(editPlan(sheets, [wire('a:SCL', 'GP5')], 'wire'));
  expect(await settled()).toMatchObject({ save: 'saved', plan: { placements: [] } });
  expect(told).toEqual([
    expect.stringMatching(/applied on top\.$/),
    expect.stringMatching(/1 edit of yours no longer applies: terminal must be a terminal of a part in this plan, not a:SCL/),
  ]);
  stop();
});

test('random moods and rivals: nothing acknowledged is lost, and both sides end equal', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.constantFrom('edit', 'edit', 'undo', 'redo', 'away', 'well', 'loses-answers', 'rival'), { minLength: 5, maxLength: 40 }),
      async (moves) => {
        const { store, server, settled, stop } = setUp();
        for (const [n, move] of moves.entries()) {
          if (move === 'edit') store.dispatch(editPlan(sheets, [add(`p${n}`, 'led-red-5mm')], 'add'));
          else if (move === 'undo') store.dispatch(undoStep(sheets));
          else if (move === 'redo') store.dispatch(redoStep(sheets));
          else if (move === 'rival') server.elsewhere(`Rival ${n}`);
          else server.mood = move;
          await Promise.resolve();
        }
        server.mood = 'well';
        await settled();
        const end = await settled();
        expect(end).toMatchObject({ save: 'saved', waiting: [] });
        // A rival’s last change may not have been heard of: it is heard at the next edit.
        if (end.revision === server.revision) expect(end.plan).toEqual(server.plan);
        else expect(end.plan!.placements).toEqual(server.plan.placements);
        stop();
      },
    ),
    { numRuns: 60 },
  );
});

test('undo and redo go back and forth through everything, with the words of each step', () => {
  const { store, stop } = setUp();
  const plans = [store.getState().document.plan];
  for (const [label, edit] of [
    ['add', add('a', 'led-red-5mm')],
    ['wire', wire('a:A', 'GP2')],
    ['remove', { kind: 'remove-placement', placement: 'a' }],
  ] as const) {
    store.dispatch(editPlan(sheets, [edit], label));
    plans.push(store.getState().document.plan);
  }
  const done = (label: string) => ({ kind: 'done', label });
  expect(['remove', 'wire', 'add'].map(() => [store.dispatch(undoStep(sheets)), store.getState().document.plan])).toEqual([
    [done('remove'), plans[2]],
    [done('wire'), plans[1]],
    [done('add'), plans[0]],
  ]);
  expect(store.dispatch(undoStep(sheets))).toEqual({ kind: 'none' });
  expect([1, 2, 3, 4].map(() => store.dispatch(redoStep(sheets)))).toEqual([done('add'), done('wire'), done('remove'), { kind: 'none' }]);
  expect(store.getState().document.plan).toEqual(plans[3]);
  stop();
});

test('a step that another’s change made impossible is named and dropped, the ones before it stay', async () => {
  const { store, server, settled, stop, saver } = setUp();
  store.dispatch(editPlan(sheets, [add('a', 'led-red-5mm')], 'add lamp'));
  store.dispatch(editPlan(sheets, [wire('a:A', 'GP2')], 'wire lamp'));
  await settled();
  server.plan = edited(server.plan, sheets, { kind: 'unwire', placement: 'a', terminal: 'A' });
  server.revision += 1;
  await saver.heard(server.plan.id, server);
  expect(store.dispatch(undoStep(sheets))).toEqual({ kind: 'unfit', label: 'wire lamp' });
  expect(store.dispatch(undoStep(sheets))).toEqual({ kind: 'done', label: 'add lamp' });
  stop();
});

test('a plan that was deleted elsewhere keeps its edits here until it is back', async () => {
  const { store, server, told, settled, stop } = setUp();
  const { send } = server;
  let deleted = true;
  const saver = new Saver(
    store,
    () => sheets,
    { tell: () => undefined, gone: () => told.push('gone'), signedOut: () => undefined },
    { send: async (...args) => (deleted ? { kind: 'gone' } : send(...args)), read: async () => 'gone' },
  );
  stop();
  const stopAgain = saver.watch();
  store.dispatch(editPlan(sheets, rename('Still here'), 'rename'));
  expect(await settled()).toMatchObject({ save: 'offline', waiting: [{}] });
  deleted = false;
  saver.retry();
  expect(await settled()).toMatchObject({ save: 'saved', waiting: [] });
  expect([told, server.plan.name]).toEqual([['gone'], 'Still here']);
  stopAgain();
});

test('a refused edit leaves the plan alone and says why', () => {
  const { store, stop } = setUp();
  expect(store.dispatch(editPlan(sheets, [wire('a:A', 'GP2')], 'wire'))).toEqual({
    ok: false,
    words: 'Not done: terminal must be a terminal of a part in this plan, not a:A.',
  });
  expect(store.getState().document).toMatchObject({ waiting: [], past: [] });
  stop();
});

test('rebasing leaves out what does not fit and keeps the order of the rest', () => {
  const batches = [rename('One'), [wire('gone:A', 'GP2')], rename('Two')].map((edits, n) => ({ id: String(n), edits }));
  const result = rebase(stick(), batches, sheets);
  expect([result.plan.name, result.waiting.map((b) => b.id), result.lost.map((l) => l.batch.id)]).toEqual(['Two', ['0', '2'], ['1']]);
});

test('edits that the server took, and whose answer was lost, are not laid on its plan a second time', async () => {
  const { store, server, told, settled, stop } = setUp();
  server.mood = 'loses-answers';
  store.dispatch(editPlan(sheets, [add('a', 'humidity-sht31')], 'add'));
  await settled();
  server.elsewhere('Renamed elsewhere');
  store.dispatch(editPlan(sheets, [wire('a:SDA', 'GP4')], 'wire'));
  server.mood = 'well';
  const { plan, waiting, save } = await settled();
  expect(plan!.placements.map(({ id }) => id)).toEqual(['a']);
  expect([plan!.name, Object.keys(plan!.wires), waiting.length, save]).toEqual(['Renamed elsewhere', ['a:SDA'], 0, 'saved']);
  expect(told).toEqual(['The plan was changed in another window; your edits were applied on top.']);
  stop();
});
