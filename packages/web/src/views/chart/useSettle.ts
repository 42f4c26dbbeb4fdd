import { notifications } from '@mantine/notifications';
import { proxy } from 'comlink';
import { useCallback, useEffect, useState } from 'react';
import type { Costs } from '@roof-chart/core/assign/model/instance';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { WayOut } from '@roof-chart/core/review/ways/waysOut';
import { useAnnounce } from '../../ui/announcer';
import { useWorkbench } from '../../state/workbench';
import { Stopped } from '../../workers/restartableWorker';
import type { Settled } from '../../workers/review.worker';

/** Time after which the best found is shown, in milliseconds. */
const LIMIT = 8000;
const WAYS_LIMIT = 15_000;
/** Shorter searches show no progress: it would only flicker. */
const QUIET = 300;

export interface Settling {
  /** Shown until it is accepted, refused, or the plan changes under it. */
  readonly proposal: Settled | null;
  /** Ways out, where something finds no place; null while they are looked for. */
  readonly ways: readonly WayOut[] | null;
  readonly busy: boolean;
  /** A search that takes longer: the costs of the best plan so far. */
  readonly progress: { readonly best: Costs | null } | null;
  ask(): void;
  accept(): void;
  take(way: WayOut, words: string): void;
  refuse(): void;
  cancel(): void;
}

interface Shown {
  readonly of: Plan;
  readonly settled: Settled;
  readonly ways: readonly WayOut[] | null;
}

function sayNothingToDo(announce: (text: string) => void, proved: boolean): void {
  announce('Pins are already assigned: no better assignment exists.');
  notifications.show({
    message: proved ? 'Pins are already assigned: proved optimal.' : 'No better assignment found in the time.',
  });
}

/** Pin assignment: requested, previewed, accepted as one undoable step or refused. */
export function useSettle(plan: Plan): Settling {
  const { workers, edit } = useWorkbench();
  const announce = useAnnounce();
  const [shown, setShown] = useState<Shown | null>(null);
  const [running, setRunning] = useState<{ readonly of: Plan; readonly best: Costs | null; readonly long: boolean } | null>(null);
  const current = shown?.of === plan ? shown : null;
  const busy = running?.of === plan;
  // An edit makes the answer of a search worthless.
  useEffect(() => {
    if (running && running.of !== plan) workers.stopSearch();
  }, [workers, plan, running]);
  const ask = useCallback(() => {
    setRunning({ of: plan, best: null, long: false });
    const slow = setTimeout(() => setRunning((now) => now && { ...now, long: true }), QUIET);
    const onBetter = proxy((best: Costs) => setRunning((now) => now && { ...now, best }));
    const search = async () => {
      const settled = await workers.search<Settled | undefined>((reviewer) => reviewer.settle(plan, LIMIT, {}, onBetter));
      if (!settled) return;
      if (settled.edits.length === 0 && settled.open.length === 0) return sayNothingToDo(announce, settled.proved);
      setShown({ of: plan, settled, ways: settled.open.length > 0 ? null : [] });
      if (settled.open.length === 0) return;
      const ways = await workers.search<readonly WayOut[]>((reviewer) => reviewer.ways(plan, WAYS_LIMIT));
      setShown((now) => (now?.of === plan ? { ...now, ways } : now));
    };
    void search()
      .catch((error: unknown) => {
        if (!(error instanceof Stopped)) throw error;
        setShown((now) => (now?.of === plan ? { ...now, ways: now.ways ?? [] } : now));
      })
      .finally(() => {
        clearTimeout(slow);
        setRunning((now) => (now?.of === plan ? null : now));
      });
  }, [announce, workers, plan]);
  const cancel = useCallback(() => {
    workers.stopSearch();
    announce('Stopped.');
  }, [announce, workers]);
  const refuse = useCallback(() => {
    workers.stopSearch();
    setShown(null);
  }, [workers]);
  const proposal = current?.settled ?? null;
  const accept = useCallback(() => {
    if (proposal && proposal.edits.length > 0) edit(proposal.edits, 'assign pins');
    setShown(null);
  }, [proposal, edit]);
  const take = useCallback(
    (way: WayOut, words: string) => {
      edit(way.edits, words);
      setShown(null);
    },
    [edit],
  );
  const progress = busy && running.long && !current ? { best: running.best } : null;
  return { proposal, ways: current?.ways ?? null, busy: busy && !current, progress, ask, accept, take, refuse, cancel };
}
