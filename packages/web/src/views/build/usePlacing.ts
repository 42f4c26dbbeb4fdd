import { notifications } from '@mantine/notifications';
import { useCallback, useState } from 'react';
import type { HolePlacement, Scope } from '@roof-chart/core/outputs/holes/placeHoles';
import type { Edit } from '@roof-chart/core/plan/edit';
import type { Plan } from '@roof-chart/core/plan/plan';
import { useWorkbench } from '../../state/workbench';
import { announce } from '../../ui/announcer';
import { Stopped } from '../../workers/workerSeat';

export interface Placing {
  readonly isBusy: boolean;
  /** The last placement, while the plan still has it. */
  readonly last: HolePlacement | null;
  /** Places what is not locked, after some edits, as one undoable step.
   *  @param label of that step */
  place(first: readonly Edit[], scope: Scope, label: string): void;
  stop(): void;
}

/** Places on the breadboard, found by the worker. */
export function usePlacing(plan: Plan): Placing {
  const { feed, edit } = useWorkbench();
  const [isBusy, setBusy] = useState(false);
  const [found, setFound] = useState<{ readonly placement: HolePlacement; readonly places: string } | null>(null);
  const place = useCallback(
    (first: readonly Edit[], scope: Scope, label: string) => {
      setBusy(true);
      feed
        .search<HolePlacement | undefined>((reviewer) => reviewer.placeHoles(plan, first, scope))
        .then((placement) => {
          if (!placement) {
            notifications.show({ message: 'No room there: another part is locked in its place, or the breadboard ends.' });
            return;
          }
          if (placement.edits.length > 0) edit(placement.edits, label);
          else announce('Nothing to move: no better placement was found.');
          const places = placement.edits.reduce<Record<string, unknown>>(
            (all, one) => (one.kind === 'place' ? { ...all, [one.item]: one.place } : all),
            { ...plan.places },
          );
          setFound({ placement, places: JSON.stringify(places) });
        })
        .catch((error: unknown) => {
          if (!(error instanceof Stopped)) throw error;
        })
        .finally(() => setBusy(false));
    },
    [edit, feed, plan],
  );
  const isCurrent = found !== null && sameEntries(JSON.parse(found.places) as Record<string, unknown>, plan.places);
  return { isBusy, last: isCurrent ? found.placement : null, place, stop: () => feed.stopSearch() };
}

const sameEntries = (a: Record<string, unknown>, b: Plan['places']): boolean =>
  Object.keys(a).length === Object.keys(b).length &&
  Object.entries(a).every(([key, value]) => JSON.stringify(value) === JSON.stringify(b[key]));
