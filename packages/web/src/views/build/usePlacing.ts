import { notifications } from '@mantine/notifications';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { HolePlacement, Scope } from '@roof-chart/core/outputs/holes/placeHoles';
import type { Edit } from '@roof-chart/core/plan/edit';
import type { Plan } from '@roof-chart/core/plan/plan';
import { noRoomText } from '@roof-chart/core/text/views/holeText';
import { useWorkbench } from '../../state/workbench';
import { useAnnounce } from '../../ui/announcer';
import type { PlacedHoles } from '../../workers/review.worker';
import { Stopped } from '../../workers/restartableWorker';

export interface Placing {
  readonly isBusy: boolean;
  /** The last placement, until the plan is another one. */
  readonly last: HolePlacement | null;
  /** Places what is not locked, after some edits, as one undoable step. It takes the place of a search that runs.
   *  @param label of that step */
  place(first: readonly Edit[], scope: Scope, label: string): void;
  stop(): void;
}

interface Found {
  readonly placement: HolePlacement;
  /** The plan that was searched, and the one that its edits made of it. */
  readonly before: Plan;
  readonly after: Plan | null;
}

/** Places on the breadboard, found by the worker. A search belongs to one plan: an edit, another view or plan ends it, and nothing is changed. */
export function usePlacing(plan: Plan): Placing {
  const { sheets, workers, edit } = useWorkbench();
  const announce = useAnnounce();
  const [isBusy, setBusy] = useState(false);
  const [found, setFound] = useState<Found | null>(null);
  if (found && !found.after && (found.placement.edits.length === 0 || plan !== found.before)) setFound({ ...found, after: plan });
  /** The search that runs, with its plan. */
  const search = useRef<{ readonly plan: Plan } | null>(null);
  useEffect(() => {
    if (search.current !== null && search.current.plan !== plan) workers.stopSearch();
  }, [workers, plan]);
  useEffect(
    () => () => {
      if (search.current !== null) workers.stopSearch();
    },
    [workers],
  );
  const place = useCallback(
    (first: readonly Edit[], scope: Scope, label: string) => {
      if (search.current !== null) workers.stopSearch();
      const own = { plan };
      search.current = own;
      setBusy(true);
      const end = () => {
        if (search.current !== own) return;
        search.current = null;
        setBusy(false);
      };
      workers
        .search<PlacedHoles>((reviewer) => reviewer.placeHoles(plan, first, scope))
        .then((answer) => {
          // Before its edits: they make another plan, whose change would stop the search.
          end();
          if ('locked' in answer) {
            notifications.show({ message: noRoomText(plan, sheets, answer.locked) });
            return;
          }
          if (answer.edits.length > 0) edit(answer.edits, label);
          else announce('Nothing to move: no better placement was found.');
          setFound({ placement: answer, before: plan, after: null });
        })
        .catch((error: unknown) => {
          end();
          if (!(error instanceof Stopped)) throw error;
        });
    },
    [announce, edit, workers, plan, sheets],
  );
  return { isBusy, last: found?.after === plan ? found.placement : null, place, stop: () => workers.stopSearch() };
}
