import { fakeWorker, type Mood } from '../../tests/fakeWorker';
import { stick } from '../../../core/tests/makePlan';
import { ReviewWorkers } from '../workers/reviewWorkers';
import { documentActions } from './documentSlice';
import { startReviewing } from './reviewing';
import { reviewActions } from './reviewSlice';
import { selectReviewed } from './selectors';
import { createStore } from './store';

// A review is told after the picture of its edit is painted: here nothing is.
globalThis.requestAnimationFrame ??= (run: FrameRequestCallback) => Number(setTimeout(() => run(0), 0));
globalThis.addEventListener ??= () => undefined;
globalThis.removeEventListener ??= () => undefined;

const until = async (met: () => boolean) => {
  for (let n = 0; n < 200 && !met(); n += 1) await new Promise((resolve) => setTimeout(resolve, 10));
  expect(met()).toBe(true);
};

/** A store with a plan that is reviewed by workers of these moods. */
function reviewing(...moods: Mood[]) {
  const store = createStore();
  const workers = new ReviewWorkers([], () => fakeWorker(moods.shift()!));
  const open = (name: string) => {
    const plan = { ...stick(), name };
    store.dispatch(documentActions.opened({ plan, revision: 1 }));
    return plan;
  };
  return { store, workers, open, stop: startReviewing(store, workers), review: () => store.getState().review };
}

test('the open plan is reviewed, and again after each change', async () => {
  const { open, review, stop, workers, store } = reviewing('well');
  const first = open('First');
  await until(() => review().latest?.plan === first);
  const second = open('Second');
  // Until the answer is there, that about the plan a moment ago is shown; for another plan there is none.
  expect(selectReviewed(store.getState())).toMatchObject({ plan: { name: 'First' } });
  await until(() => review().latest?.plan === second);
  store.dispatch(documentActions.opened({ plan: { ...stick(), id: 'another' }, revision: 1 }));
  expect(selectReviewed(store.getState())).toBeNull();
  stop();
  workers.close();
});

test('of plans that come while a review runs only the last is reviewed', async () => {
  const { store, open, stop } = (() => {
    const made = createStore();
    const asked: string[] = [];
    const answers: (() => void)[] = [];
    const workers = {
      ask: async <T>(question: (reviewer: never) => Promise<T>) =>
        question({
          review: async (plan: { name: string }) => {
            asked.push(plan.name);
            await new Promise<void>((resolve) => answers.push(resolve));
            return { ok: false, missing: { kind: 'board', id: plan.name } };
          },
        } as never),
    };
    const end = startReviewing(made, workers);
    return {
      store: { state: () => made.getState().review, asked, answer: () => answers.shift()!() },
      open: (name: string) => made.dispatch(documentActions.opened({ plan: { ...stick(), name }, revision: 1 })),
      stop: end,
    };
  })();
  for (const name of ['A', 'B', 'C']) open(name);
  expect(store.asked).toEqual(['A']);
  store.answer();
  await until(() => store.asked.length === 2);
  store.answer();
  await until(() => store.state().latest?.plan.name === 'C');
  expect(store.asked).toEqual(['A', 'C']);
  // What comes after the end is not reviewed, and an answer under way is dropped.
  open('D');
  await until(() => store.asked.length === 3);
  stop();
  store.answer();
  open('E');
  await new Promise((resolve) => setTimeout(resolve, 100));
  expect([store.asked, store.state().latest?.plan.name]).toEqual([['A', 'C', 'D'], 'C']);
});

test('a failed review never leaves an old one in its place, and is asked for again on demand', async () => {
  const { store, workers, open, review, stop } = reviewing('well', 'dies', 'dies', 'well');
  open('First');
  await until(() => review().latest !== null);
  // The one that answered is gone before the next question.
  workers.close();
  const next = open('Later');
  await until(() => review().failure !== null);
  expect(review().latest).toBeNull();
  store.dispatch(reviewActions.requested());
  await until(() => review().latest?.plan === next);
  expect(review().failure).toBeNull();
  stop();
  workers.close();
});

test('after a failure nothing but a change of the plan, or a request, begins another review', async () => {
  const store = createStore();
  let reviews = 0;
  const ask = () => {
    reviews += 1;
    return Promise.reject(new Error('out of memory'));
  };
  const stop = startReviewing(store, { ask });
  store.dispatch(documentActions.opened({ plan: stick(), revision: 1 }));
  await until(() => store.getState().review.failure !== null);
  expect(reviews).toBe(1);
  store.dispatch(documentActions.saving());
  store.dispatch(documentActions.held('offline'));
  await new Promise((resolve) => setTimeout(resolve, 50));
  expect(reviews).toBe(1);
  store.dispatch(reviewActions.requested());
  await until(() => reviews === 2);
  stop();
});
