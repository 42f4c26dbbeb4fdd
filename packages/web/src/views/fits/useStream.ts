import { useEffect, useState } from 'react';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { Remote } from 'comlink';
import { useWorkbench } from '../../app/workbench';
import type { Reviewer } from '../../review/review.worker';
import { Stopped } from '../../review/reviewFeed';

/** How long a portion may keep the next edit's answers waiting, in milliseconds; portions grow and shrink to it. */
const TURN = 30;
const FIRST_PORTION = 4;
/** How often the answers so far are shown, in milliseconds: to draw a long list costs more than to fill it. */
const SHOW = 150;

/** Answers about one plan for each of a list of ids, in the order of the list. They come from the worker portion by
 *  portion; the next edit throws them away and starts anew.
 *  @param ask must be the same function at every drawing */
export function useStream<T>(
  plan: Plan,
  ids: readonly string[],
  ask: (reviewer: Remote<Reviewer>, plan: Plan, ids: readonly string[]) => Promise<readonly T[]>,
): readonly T[] {
  const { feed } = useWorkbench();
  const [state, setState] = useState<{ readonly plan: Plan; readonly found: readonly T[] } | null>(null);
  const key = ids.join();
  useEffect(() => {
    let current = true;
    const list = key.split(',').filter(Boolean);
    const work = async () => {
      let found: readonly T[] = [];
      let portion = FIRST_PORTION;
      let shown = performance.now();
      for (let at = 0; current && at < list.length;) {
        const from = performance.now();
        const part = list.slice(at, at + portion);
        // Apart from the reviews, which an edit waits for. One that is stopped has no answer, and nobody to wait for it.
        const answers = await feed
          .search((reviewer) => ask(reviewer, plan, part))
          .catch((error: unknown) => {
            if (error instanceof Stopped) return null;
            throw error;
          });
        if (!current || !answers) return;
        at += part.length;
        found = [...found, ...answers];
        if (at >= list.length || performance.now() - shown > SHOW) {
          setState({ plan, found });
          shown = performance.now();
        }
        portion = Math.max(1, Math.min(40, Math.round((portion * TURN) / Math.max(1, performance.now() - from))));
      }
    };
    void work();
    return () => {
      current = false;
    };
  }, [feed, plan, key, ask]);
  return state?.plan === plan ? state.found : NONE;
}

const NONE: readonly never[] = [];
