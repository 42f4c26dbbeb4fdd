import { useEffect, useState } from 'react';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { Addition } from '@roof-chart/core/review/addition';
import { useWorkbench } from '../../app/workbench';

/** What adding each listed part would do to the plan, from the worker; empty until it has answered. */
export function useAdditions(plan: Plan, parts: readonly string[]): ReadonlyMap<string, Addition> {
  const { feed } = useWorkbench();
  const [state, setState] = useState<{ readonly plan: Plan; readonly byPart: ReadonlyMap<string, Addition> } | null>(null);
  const key = parts.join();
  useEffect(() => {
    let current = true;
    void feed
      .ask((reviewer) => reviewer.additions(plan, key.split(',').filter(Boolean)))
      .then((list) => {
        if (current) setState({ plan, byPart: new Map(list.map((a) => [a.part, a])) });
      });
    return () => {
      current = false;
    };
  }, [feed, plan, key]);
  return state?.plan === plan ? state.byPart : new Map();
}
