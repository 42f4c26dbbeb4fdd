import { notifications } from '@mantine/notifications';
import { useCallback, useState } from 'react';
import type { Plan } from '@roof-chart/core/plan/plan';
import { announce } from '../../app/announcer';
import { useWorkbench } from '../../app/workbench';
import type { Settled } from '../../review/review.worker';

/** Time after which the best found is shown, in milliseconds. */
const LIMIT = 2000;

export interface Settling {
  /** Shown until it is accepted, refused, or the plan changes under it. */
  readonly proposal: Settled | null;
  readonly busy: boolean;
  ask(): void;
  accept(): void;
  refuse(): void;
}

/** Settling a plan: asked for, looked at, accepted as one undoable step or refused. */
export function useSettle(plan: Plan): Settling {
  const { feed, edit } = useWorkbench();
  const [shown, setShown] = useState<{ readonly of: Plan; readonly settled: Settled } | null>(null);
  const [busy, setBusy] = useState(false);
  const proposal = shown?.of === plan ? shown.settled : null;
  const ask = useCallback(() => {
    setBusy(true);
    void feed
      .ask<Settled | undefined>((reviewer) => reviewer.settle(plan, LIMIT))
      .then((settled) => {
        if (!settled) return;
        if (settled.edits.length > 0 || settled.open.length > 0) setShown({ of: plan, settled });
        else announce('Settled already: no plan of these parts is better.');
        if (settled.edits.length === 0 && settled.open.length === 0)
          notifications.show({
            message: settled.proved
              ? 'Settled already: it is proved that no plan of these parts is better.'
              : 'Nothing better was found in the time.',
          });
      })
      .finally(() => setBusy(false));
  }, [feed, plan]);
  const refuse = useCallback(() => setShown(null), []);
  const accept = useCallback(() => {
    if (proposal && proposal.edits.length > 0) edit(proposal.edits, 'settle the plan');
    setShown(null);
  }, [proposal, edit]);
  return { proposal, busy, ask, accept, refuse };
}
