import fc from 'fast-check';
import { applyEdits } from '@roof-chart/core/plan/applyEdits';
import type { Plan } from '@roof-chart/core/plan/plan';
import { shippedSheets } from '../../../core/tests/catalogue';
import { add, edited, stick, wire } from '../../../core/tests/makePlan';
import { doEdits, redo, undo } from './doing';
import { type Batch, documentActions } from './documentSlice';
import { rebase, type SaveAnswer, Saver, type SendBatch } from './saver';
import { createStore } from './store';

const sheets = shippedSheets();
const rename = (name: string) => [{ kind: 'rename-plan', name }] as const;

/** A server of one plan that answers as ours does, and can be told to misbehave. */
class FakeServer {
  revision = 1;
  readonly taken = new Map<string, number>();
  mood: 'well' | 'away' | 'loses-answers' = 'well';
  constructor(public plan: Plan) {}

  readonly send: SendBatch = async (_, revision, batch): Promise<SaveAnswer> => {
    if (this.mood === 'away') return { kind: 'away' };
    const answer = this.#answer(revision, batch);
    return this.mood === 'loses-answers' ? { kind: 'away' } : answer;
  };

  #answer(revision: number, batch: Batch): SaveAnswer {
    const before = this.taken.get(batch.id);
    if (before !== undefined) return { kind: 'done', revision: before };
    if (revision !== this.revision) return { kind: 'stale', now: this.stored() };
    const result = applyEdits(this.plan, batch.edits, sheets);
    if (!result.ok) return { kind: 'refused', message: result.problem.expected };
    this.plan = result.plan;
    this.revision += 1;
    this.taken.set(batch.id, this.revision);
    return { kind: 'done', revision: this.revision };
  }

  stored() {
    return { plan: this.plan, revision: this.revision, recent: [...this.taken.keys()].reverse() };
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
  store.dispatch(documentActions.opened({ plan, revision: 1 }));
  const saver = new Saver(
    store,
    () => sheets,
    { tell: (m) => told.push(m), gone: () => told.push('gone') },
    server.send,
    async () => (server.mood === 'away' ? null : server.stored()),
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
  doEdits(store, sheets, [add('a', 'humidity-sht31')], 'add');
  doEdits(store, sheets, [wire('a:SDA', 'GP4')], 'wire');
  expect(store.getState().document.save).toBe('saving');
  expect(await settled()).toMatchObject({ save: 'saved', waiting: [], revision: 3 });
  expect(server.plan).toEqual(store.getState().document.plan);
  stop();
});

test('a server that is away costs nothing: edits wait, and go when it is back', async () => {
  const { store, server, settled, stop } = setUp();
  server.mood = 'away';
  doEdits(store, sheets, rename('One'), 'rename');
  expect(await settled()).toMatchObject({ save: 'offline', waiting: [{}] });
  doEdits(store, sheets, rename('Two'), 'rename');
  server.mood = 'well';
  expect(await settled()).toMatchObject({ save: 'saved', waiting: [] });
  expect(server.plan.name).toBe('Two');
  stop();
});

test('an answer that was lost does not make an edit happen twice', async () => {
  const { store, server, settled, stop } = setUp();
  server.mood = 'loses-answers';
  doEdits(store, sheets, [add('a', 'humidity-sht31')], 'add');
  await settled();
  server.mood = 'well';
  expect(await settled()).toMatchObject({ save: 'saved' });
  expect([server.plan.placements.length, server.revision]).toEqual([1, 2]);
  stop();
});

test('somebody else’s change is taken in and ours laid on top; what no longer fits is told', async () => {
  const plan = edited(stick(), sheets, add('a', 'humidity-sht31'));
  const { store, server, told, settled, stop } = setUp(plan);
  server.elsewhere('Theirs');
  doEdits(store, sheets, [wire('a:SDA', 'GP4')], 'wire');
  expect((await settled()).plan).toMatchObject({ name: 'Theirs', wires: { 'a:SDA': { end: { pin: 'GP4' } } } });
  server.plan = { ...server.plan, placements: [], wires: {} };
  server.revision += 1;
  doEdits(store, sheets, [wire('a:SCL', 'GP5')], 'wire');
  expect(await settled()).toMatchObject({ save: 'saved', plan: { placements: [] } });
  expect(told).toEqual([
    expect.stringMatching(/laid on top\.$/),
    expect.stringMatching(/1 of your edits no longer fit: terminal should be a terminal of a part in this plan, not a:SCL/),
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
          if (move === 'edit') doEdits(store, sheets, [add(`p${n}`, 'led-red-5mm')], 'add');
          else if (move === 'undo') undo(store, sheets);
          else if (move === 'redo') redo(store, sheets);
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
    doEdits(store, sheets, [edit], label);
    plans.push(store.getState().document.plan);
  }
  const done = (label: string) => ({ kind: 'done', label });
  expect(['remove', 'wire', 'add'].map(() => [undo(store, sheets), store.getState().document.plan])).toEqual([
    [done('remove'), plans[2]],
    [done('wire'), plans[1]],
    [done('add'), plans[0]],
  ]);
  expect(undo(store, sheets)).toEqual({ kind: 'none' });
  expect([1, 2, 3, 4].map(() => redo(store, sheets))).toEqual([done('add'), done('wire'), done('remove'), { kind: 'none' }]);
  expect(store.getState().document.plan).toEqual(plans[3]);
  stop();
});

test('a step that another’s change made impossible is named and dropped, the ones before it stay', async () => {
  const { store, server, settled, stop, saver } = setUp();
  doEdits(store, sheets, [add('a', 'led-red-5mm')], 'add lamp');
  doEdits(store, sheets, [wire('a:A', 'GP2')], 'wire lamp');
  await settled();
  server.plan = edited(server.plan, sheets, { kind: 'unwire', placement: 'a', terminal: 'A' });
  server.revision += 1;
  await saver.heard(server.plan.id, server.revision);
  expect(undo(store, sheets)).toEqual({ kind: 'unfit', label: 'wire lamp' });
  expect(undo(store, sheets)).toEqual({ kind: 'done', label: 'add lamp' });
  stop();
});

test('a plan that was deleted elsewhere keeps its edits here until it is back', async () => {
  const { store, server, told, settled, stop } = setUp();
  const { send } = server;
  let deleted = true;
  const saver = new Saver(
    store,
    () => sheets,
    { tell: () => undefined, gone: () => told.push('gone') },
    async (...args) => (deleted ? { kind: 'gone' } : send(...args)),
  );
  stop();
  const stopAgain = saver.watch();
  doEdits(store, sheets, rename('Still here'), 'rename');
  expect(await settled()).toMatchObject({ save: 'offline', waiting: [{}] });
  deleted = false;
  saver.retry();
  expect(await settled()).toMatchObject({ save: 'saved', waiting: [] });
  expect([told, server.plan.name]).toEqual([['gone'], 'Still here']);
  stopAgain();
});

test('a refused edit leaves the plan alone and says why', () => {
  const { store, stop } = setUp();
  expect(doEdits(store, sheets, [wire('a:A', 'GP2')], 'wire')).toEqual({
    ok: false,
    words: 'Not done: terminal should be a terminal of a part in this plan, not a:A.',
  });
  expect(store.getState().document).toMatchObject({ waiting: [], past: [] });
  stop();
});

test('rebasing leaves out what does not fit and keeps the order of the rest', () => {
  const batches = [rename('One'), [wire('gone:A', 'GP2')], rename('Two')].map((edits, n) => ({ id: String(n), edits }));
  const result = rebase(stick(), batches, sheets);
  expect([result.plan.name, result.waiting.map((b) => b.id), result.lost.map((l) => l.batch.id)]).toEqual(['Two', ['0', '2'], ['1']]);
});
