import { useEffect, useState } from 'react';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { Remote } from 'comlink';
import { useWorkbench } from '../../state/workbench';
import type { Reviewer } from '../../workers/review.worker';
import { Stopped } from '../../workers/restartableWorker';

/** How long a portion may keep the next edit's answers waiting, in milliseconds; portions grow and shrink to it. */
const TURN = 30;
const FIRST_PORTION = 4;
/** How often the answers so far are shown, in milliseconds: to draw a long list costs more than to fill it. */
const SHOW = 150;

/** @param held the number under which the worker holds the plan */
type Ask<T> = (reviewer: Remote<Reviewer>, held: number, ids: readonly string[]) => Promise<readonly T[]>;

let holds = 0;

/** Answers that come in portion by portion. */
export interface Stream<T> {
  /** Those about the plan as it is now, in the order of the list. */
  readonly found: readonly T[];
  /** By id: those about the plan as it is now, and, until they are there, those about how it was before. */
  readonly known: ReadonlyMap<string, T>;
}

/** Results for a list of IDs and one plan, computed by the workers in batches; the next edit restarts it.
 *  @param ask must be a stable function
 *  @param idOf the ID of a result; must be a stable function
 *  @param each whether one result takes far less than a batch: then the review worker helps, and an edit waits for at most one batch */
export function useStream<T>(
  plan: Plan,
  ids: readonly string[],
  ask: Ask<T>,
  idOf: (answer: T) => string,
  each: 'quick' | 'slow',
): Stream<T> {
  const { workers } = useWorkbench();
  const [state, setState] = useState<(Stream<T> & { readonly plan: Plan }) | null>(null);
  const key = ids.join();
  useEffect(() => {
    let current = true;
    const list = key.split(',').filter(Boolean);
    const hold = (holds += 1);
    const answers = new Map<number, readonly T[]>();
    let next = 0;
    let shown = performance.now();
    const show = () => {
      const found = [...answers].sort(([a], [b]) => a - b).flatMap(([, found]) => found);
      const now = found.map((answer) => [idOf(answer), answer] as const);
      setState((before) => ({ plan, found, known: new Map([...(before?.plan.id === plan.id ? before.known : []), ...now]) }));
      shown = performance.now();
    };
    const work = async (who: Asker) => {
      let portion = FIRST_PORTION;
      let first = true;
      while (current && next < list.length) {
        const from = performance.now();
        const at = next;
        const part = list.slice(at, at + portion);
        next += part.length;
        // A stopped request has no result.
        const found = await who(async (reviewer) => {
          // Once for all portions: what the worker finds out about the plan stays.
          if (first) void reviewer.hold(hold, plan);
          first = false;
          return ask(reviewer, hold, part);
        }).catch((error: unknown) => {
          if (error instanceof Stopped) return null;
          throw error;
        });
        if (!current || !found) return;
        answers.set(at, found);
        if (performance.now() - shown > SHOW) show();
        portion = Math.max(1, Math.min(40, Math.round((portion * TURN) / Math.max(1, performance.now() - from))));
      }
    };
    type Asker = (question: (reviewer: Remote<Reviewer>) => Promise<readonly T[]>) => Promise<readonly T[]>;
    const search: Asker = (question) => workers.search(question);
    const review: Asker = (question) => workers.ask(question);
    void Promise.all((each === 'quick' ? [search, review] : [search]).map(work)).then(() => {
      if (current) show();
    });
    return () => {
      current = false;
    };
  }, [workers, plan, key, ask, idOf, each]);
  if (state?.plan === plan) return state;
  return state?.plan.id === plan.id ? { found: [], known: state.known } : NONE;
}

const NONE: Stream<never> = { found: [], known: new Map<string, never>() };
