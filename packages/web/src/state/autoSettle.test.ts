import { shippedSheets } from '../../../core/tests/catalogue';
import { add, edited, stick, wire } from '../../../core/tests/makePlan';
import { assignPins } from '@roof-chart/core/assign/assignPins';
import type { Edit } from '@roof-chart/core/plan/edit';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { ReviewWorkers } from '../workers/reviewWorkers';
import { documentActions } from './documentSlice';
import { sessionActions } from './sessionSlice';
import { settleAfter } from './autoSettle';
import { createStore } from './store';

const sheets = shippedSheets();

/** A store that holds a plan, and workers that answer as they do in a browser; `meanwhile` changes the plan while they search. */
function bench(plan: Plan, auto: boolean, meanwhile?: Plan) {
  let asked = 0;
  const store = createStore();
  store.dispatch(documentActions.opened({ plan, revision: 1 }));
  store.dispatch(sessionActions.autoChosen(auto));
  const workers = {
    search: async (question: (reviewer: unknown) => Promise<unknown>) => {
      asked += 1;
      const answer = await question({
        settle: (of: Plan, _ms: number, scope: { keep?: readonly string[] }) => Promise.resolve(assignPins(of, sheets, scope)),
      });
      if (meanwhile) store.dispatch(documentActions.opened({ plan: meanwhile, revision: 2 }));
      return answer;
    },
  } as unknown as ReviewWorkers;
  return { after: (edits: readonly Edit[]) => store.dispatch(settleAfter(workers, edits)), asked: () => asked };
}

const lamp = add('lamp', 'led-red-5mm');
const plan = edited(stick(), sheets, lamp);

test('switched off it does nothing, not even ask', async () => {
  const { after, asked } = bench(plan, false);
  expect([await after([lamp]), asked()]).toEqual([[], 0]);
});

test('after a part is added its terminals are wired', async () => {
  const edits = await bench(plan, true).after([lamp]);
  expect(edits.map((e) => e.kind)).toEqual(['wire', 'wire']);
});

test('what has just been taken off, ticked or renamed does not bring wires back', async () => {
  const { after, asked } = bench(plan, true);
  const quiet: readonly Edit[] = [
    { kind: 'unwire', placement: 'lamp', terminal: 'A' },
    { kind: 'tick', placement: 'lamp', terminal: 'A', end: null },
    { kind: 'rename-plan', name: 'Other' },
    { kind: 'lock', placement: 'lamp', terminal: 'A', locked: true },
  ];
  for (const edit of quiet) expect(await after([edit])).toEqual([]);
  expect(asked()).toBe(0);
});

test('the wire that was just put there stays, and the other one gives way', async () => {
  const move = wire('key:C1', 'GP2');
  const clash = edited(plan, sheets, wire('lamp:A', 'GP2'), add('key', 'button-push'), move);
  const edits = await bench(clash, true).after([move]);
  const moved = edits.filter((e) => e.kind === 'wire' && e.end.to === 'pin').map((e) => (e as { placement: string }).placement);
  expect(moved).toEqual(['lamp']);
});

test('an answer for a plan that is no longer there is thrown away', async () => {
  const later = edited(plan, sheets, { kind: 'rename-plan', name: 'Later' });
  expect(await bench(plan, true, later).after([lamp])).toEqual([]);
});
