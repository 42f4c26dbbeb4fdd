import { type ReactNode, useEffect, useState } from 'react';
import { useStore } from 'react-redux';
import { notifications } from '@mantine/notifications';
import type { BoardSheet } from '@roof-chart/core/sheets/boardSheet';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import { indexSheets, type Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { api } from '../state/api';
import { settleAfter } from '../state/autoSettle';
import { editPlan, redoStep, type Stepped, undoStep } from '../state/commands';
import { browserStorage, LocalPersistence } from '../state/localPersistence';
import { sendOrphans } from '../state/orphanBatches';
import { type PlanRequests, planRequests } from '../state/planRequests';
import { startReviewing } from '../state/reviewing';
import { Saver } from '../state/saver';
import { sessionActions } from '../state/sessionSlice';
import type { Store } from '../state/store';
import { tabId } from '../state/tabIdentity';
import { type Workbench, WorkbenchContext } from '../state/workbench';
import { afterPaint } from '../workers/afterPaint';
import { ReviewWorkers } from '../workers/reviewWorkers';
import { offerRestore } from './offerRestore';
import { startOffline } from './offline';
import { reloadForUpgrades } from './reloadForUpgrades';

/** Brings a plan back that was deleted elsewhere; what waits here is then sent. */
async function bringBack(store: Store, planId: string): Promise<void> {
  const { error } = await store.dispatch(api.endpoints.restorePlan.initiate(planId));
  if (error) notifications.show({ message: 'The plan could not be restored. Your edits are still kept here.', color: 'brick' });
}

function makeWorkbench(store: Store, sheets: Sheets, workers: ReviewWorkers): Workbench {
  const requests = planRequests(store.dispatch);
  const announce = (text: string) => void store.dispatch(sessionActions.announced(text));
  const tellStep = (stepped: Stepped, word: string) => {
    if (stepped.kind === 'done') announce(`${word}: ${stepped.label}`);
    else if (stepped.kind === 'unfit')
      notifications.show({ message: `“${stepped.label}” can no longer be undone: later changes depend on it.`, color: 'brick' });
  };
  return {
    sheets,
    workers,
    requests,
    saver: new Saver(
      store,
      () => sheets,
      {
        tell: (message) => void notifications.show({ message, autoClose: false }),
        gone: (id) => offerRestore(id, () => void bringBack(store, id)),
        signedOut: () => void store.dispatch(sessionActions.signedOutChanged(true)),
      },
      {
        ...requests,
        send: async (...batches) => {
          await afterPaint();
          return requests.send(...batches);
        },
      },
    ),
    edit(edits, label) {
      const done = store.dispatch(editPlan(sheets, edits, label));
      if (done.ok) {
        announce(done.label);
        void store.dispatch(settleAfter(workers, edits)).then((more) => {
          if (more.length > 0 && store.dispatch(editPlan(sheets, more, `assign pins after: ${done.label}`)).ok)
            announce(`Pins assigned after: ${done.label}`);
        });
      }
      if (!done.ok) notifications.show({ message: done.words, color: 'brick' });
      return done.ok;
    },
    undo: () => tellStep(store.dispatch(undoStep(sheets)), 'Undone'),
    redo: () => tellStep(store.dispatch(redoStep(sheets)), 'Redone'),
  };
}

const FLUSH_MS = 30_000;

/** Sends what closed tabs left behind, at once, when the network is back, and now and then. @returns stops it */
function flushOrphans(store: Store, requests: PlanRequests): () => void {
  const flush = () => void sendOrphans(requests, store.getState().document.plan?.id).catch(() => undefined);
  flush();
  const timer = setInterval(flush, FLUSH_MS);
  globalThis.addEventListener('online', flush);
  return () => {
    clearInterval(timer);
    globalThis.removeEventListener('online', flush);
  };
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
  const [bench] = useState(() => makeWorkbench(store, indexSheets(list), new ReviewWorkers(list)));
  useEffect(() => {
    const tell = (message: string) => void notifications.show({ message, autoClose: false });
    const storage = browserStorage(tabId);
    const keeper = new LocalPersistence(store, tell, {
      ...storage,
      keepBatches: async (...batches) => {
        await afterPaint();
        await storage.keepBatches(...batches);
      },
    });
    const stopKeeping = keeper.watch();
    const stopReviewing = startReviewing(store, bench.workers);
    const stopSaving = bench.saver.watch();
    const stopFlushing = flushOrphans(store, bench.requests);
    const stopReloading = reloadForUpgrades(
      () => keeper.settled(),
      async () => !(await store.dispatch(api.endpoints.session.initiate(undefined, { forceRefetch: true, subscribe: false }))).error,
    );
    startOffline(() => keeper.settled());
    return () => {
      stopReloading();
      stopFlushing();
      stopSaving();
      stopReviewing();
      stopKeeping();
      bench.workers.close();
    };
  }, [bench, store]);
  return <WorkbenchContext.Provider value={bench}>{children}</WorkbenchContext.Provider>;
}
