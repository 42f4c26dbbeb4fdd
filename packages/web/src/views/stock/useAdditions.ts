import { useEffect, useState } from 'react';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { CompleteAddition } from '@roof-chart/core/review/additionNeeds';
import { useWorkbench } from '../../state/workbench';

/** Parts per batch: small, so that a review never waits long. */
const PORTION = 5;

/** What adding each listed part would do to the plan: answers stream in from the worker in the order of the list,
 *  and start anew with every edit. */
export function useAdditions(plan: Plan, parts: readonly string[]): ReadonlyMap<string, CompleteAddition> {
  const { workers } = useWorkbench();
  const [state, setState] = useState<{ readonly plan: Plan; readonly byPart: ReadonlyMap<string, CompleteAddition> } | null>(null);
  const key = parts.join();
  useEffect(() => {
    let current = true;
    const ids = key.split(',').filter(Boolean);
    const work = async () => {
      for (let at = 0; current && at < ids.length; at += PORTION) {
        const list = await workers.ask((reviewer) => reviewer.additions(plan, ids.slice(at, at + PORTION)));
        if (!current) return;
        setState((before) => ({
          plan,
          byPart: new Map([...(before?.plan === plan ? before.byPart : []), ...list.map((a): [string, CompleteAddition] => [a.part, a])]),
        }));
      }
    };
    void work();
    return () => {
      current = false;
    };
  }, [workers, plan, key]);
  return state?.plan === plan ? state.byPart : NONE;
}

const NONE: ReadonlyMap<string, CompleteAddition> = new Map();
