import { createContext, type ReactNode, useContext, useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import { useStore } from 'react-redux';
import { notifications } from '@mantine/notifications';
import type { Edit } from '@roof-chart/core/plan/edit';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { BoardSheet } from '@roof-chart/core/sheets/boardSheet';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import type { BenchNotes } from '@roof-chart/core/sheets/benchNote';
import { notedSheets } from '@roof-chart/core/sheets/notedSheets';
import { indexSheets, type Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { type Reviewed, ReviewFeed } from '../review/reviewFeed';
import { afterPaint } from '../store/afterPaint';
import { settleAfter } from '../store/autoSettle';
import { doEdits, redo, type Stepped, undo } from '../store/doing';
import { browserStorage, Keeper } from '../store/keeper';
import { sendOrphans } from '../store/orphanBatches';
import { sendBatches } from '../store/planRequests';
import { Saver } from '../store/saver';
import { sessionActions } from '../store/sessionSlice';
import { type Store, useAppSelector } from '../store/store';
import { tabId } from '../store/tabIdentity';
import { announce } from './announcer';
import { offerRestore } from './offerRestore';
import { reloadForUpgrades } from './reloadForUpgrades';

/** Tools that every view of a plan uses, around the sheets of this session. */
export interface Workbench {
  readonly sheets: Sheets;
  readonly feed: ReviewFeed;
  readonly saver: Saver;
  /** Applies edits as one undoable step; reports why if they cannot be applied. */
  edit(edits: readonly Edit[], label: string): boolean;
  undo(): void;
  redo(): void;
}

/** Held by `WorkbenchProvider`; tests of components put their own workbench there. */
export const WorkbenchContext = createContext<Workbench | null>(null);

export function useWorkbench(): Workbench {
  const bench = useContext(WorkbenchContext);
  if (!bench) throw new Error('useWorkbench outside of its provider');
  return bench;
}

/** Brings a plan back that was deleted elsewhere; what waits here is then sent. */
async function bringBack(planId: string): Promise<void> {
  const response = await fetch(`/api/plans/${planId}/restore`, { method: 'POST' }).catch(() => null);
  if (!response?.ok) notifications.show({ message: 'The plan could not be restored. Your edits are still kept here.', color: 'brick' });
}

function makeWorkbench(store: Store, sheets: Sheets, feed: ReviewFeed): Workbench {
  return {
    sheets,
    feed,
    saver: new Saver(
      store,
      () => sheets,
      {
        tell: (message) => void notifications.show({ message, autoClose: false }),
        gone: (id) => offerRestore(id, () => void bringBack(id)),
        signedOut: () => void store.dispatch(sessionActions.signedOutChanged(true)),
      },
      async (...batches) => {
        await afterPaint();
        return sendBatches(...batches);
      },
    ),
    edit(edits, label) {
      const done = doEdits(store, sheets, edits, label);
      if (done.ok) {
        announce(label);
        void settleAfter(store, feed, edits).then((more) => {
          if (more.length > 0 && doEdits(store, sheets, more, `assign pins after: ${label}`).ok) announce(`Pins assigned after: ${label}`);
        });
      }
      if (!done.ok) notifications.show({ message: done.words, color: 'brick' });
      return done.ok;
    },
    undo: () => tellStep(undo(store, sheets), 'Undone'),
    redo: () => tellStep(redo(store, sheets), 'Redone'),
  };
}

const FLUSH_MS = 30_000;

/** Sends what closed tabs left behind, at once, when the network is back, and now and then. @returns stops it */
function flushOrphans(store: Store): () => void {
  const flush = () => void sendOrphans(store.getState().document.plan?.id).catch(() => undefined);
  flush();
  const timer = setInterval(flush, FLUSH_MS);
  globalThis.addEventListener('online', flush);
  return () => {
    clearInterval(timer);
    globalThis.removeEventListener('online', flush);
  };
}

function tellStep(stepped: Stepped, word: string): void {
  if (stepped.kind === 'done') announce(`${word}: ${stepped.label}`);
  else if (stepped.kind === 'unfit')
    notifications.show({ message: `“${stepped.label}” can no longer be undone: later changes depend on it.`, color: 'brick' });
}

/** One workbench for as long as the application runs: its sheets do not change under it. */
export function WorkbenchProvider({
  list,
  children,
}: {
  readonly list: readonly (BoardSheet | PartSheet)[];
  readonly children: ReactNode;
}) {
  const store = useStore() as Store;
  const [bench] = useState(() => makeWorkbench(store, indexSheets(list), new ReviewFeed(list)));
  useEffect(() => {
    const tell = (message: string) => void notifications.show({ message, autoClose: false });
    const storage = browserStorage(tabId);
    const keeper = new Keeper(store, tell, {
      ...storage,
      keepBatches: async (...batches) => {
        await afterPaint();
        await storage.keepBatches(...batches);
      },
    });
    const stopKeeping = keeper.watch();
    const stopSaving = bench.saver.watch();
    const stopFlushing = flushOrphans(store);
    const stopReloading = reloadForUpgrades(() => keeper.settled());
    return () => {
      stopReloading();
      stopFlushing();
      stopSaving();
      stopKeeping();
      bench.feed.close();
    };
  }, [bench, store]);
  return <WorkbenchContext.Provider value={bench}>{children}</WorkbenchContext.Provider>;
}

/** The workbench inside of a plan: its sheets are those with the plan's bench notes. */
export function PlanSheets({ notes, children }: { readonly notes: BenchNotes; readonly children: ReactNode }) {
  const bench = useWorkbench();
  const sheets = notedSheets(bench.sheets, notes);
  const own = useMemo(() => (sheets === bench.sheets ? bench : { ...bench, sheets }), [bench, sheets]);
  return <WorkbenchContext.Provider value={own}>{children}</WorkbenchContext.Provider>;
}

/** Requests a review of the open plan whenever it changes. Used once, by the frame. */
export function useReviewing(plan: Plan | null): void {
  const { feed } = useWorkbench();
  useEffect(() => {
    if (plan) feed.want(plan);
  }, [feed, plan]);
}

/** The newest review of the open plan, or null until the first is there. It may be of the plan a moment ago. */
export function useReviewed(): Reviewed | null {
  const { feed } = useWorkbench();
  const id = useAppSelector((state) => state.document.plan?.id);
  const reviewed = useSyncExternalStore(feed.subscribe, feed.current);
  return reviewed && reviewed.plan.id === id ? reviewed : null;
}

/** Why the open plan is not checked; null where it is, or will be soon. */
export function useReviewFailure(): string | null {
  const { feed } = useWorkbench();
  return useSyncExternalStore(feed.subscribe, feed.failure);
}
