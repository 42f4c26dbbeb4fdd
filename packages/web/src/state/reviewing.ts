import type { ReviewResult } from '@roof-chart/core/review/review';
import { afterPaint } from '../workers/afterPaint';
import type { ReviewWorkers } from '../workers/reviewWorkers';
import { Stopped } from '../workers/restartableWorker';
import { reviewActions } from './reviewSlice';
import { addAppListener, type Store } from './store';

/** Has the open plan reviewed whenever it changes. Only the latest plan matters: of those that come while one review runs, all but the last
 *  are skipped.
 *  @returns stops it */
export function startReviewing(store: Store, workers: Pick<ReviewWorkers, 'ask'>): () => void {
  const stop = store.dispatch(
    addAppListener({
      predicate: (action, now, before) =>
        reviewActions.requested.match(action) || (now.document.plan !== null && now.document.plan !== before.document.plan),
      effect: async (_, { getState, dispatch, signal, unsubscribe, subscribe }) => {
        unsubscribe();
        try {
          for (let { plan } = getState().document; plan && plan !== getState().review.latest?.plan; { plan } = getState().document) {
            const reviewedPlan = plan;
            const result = await workers.ask<ReviewResult>((reviewer) => reviewer.review(reviewedPlan));
            await afterPaint();
            if (signal.aborted) return;
            dispatch(reviewActions.reviewed(Object.freeze({ plan: reviewedPlan, result: Object.freeze(result) })));
          }
        } catch (error) {
          if (!(error instanceof Stopped) && !signal.aborted)
            dispatch(reviewActions.failed(error instanceof Error ? error.message : String(error)));
        } finally {
          // From the last look at the store to here nothing else can run: no change falls between.
          if (!signal.aborted) subscribe();
        }
      },
    }),
  );
  store.dispatch(reviewActions.requested());
  return () => stop({ cancelActive: true });
}
