import { notifications } from '@mantine/notifications';
import { lazy, Suspense, useEffect, useState } from 'react';
import { Outlet, useParams } from 'react-router';
import { counted } from '@roof-chart/core/quantity/format';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { documentActions } from '../state/documentSlice';
import { sessionActions } from '../state/sessionSlice';
import { useAppDispatch, useAppSelector } from '../state/store';
import type { GoneEvent, RevisionEvent } from '@roof-chart/api/planEvents';
import type { StoredPlan } from '@roof-chart/api/storedPlan';
import type { Batch } from '../state/documentSlice';
import { pruneSteps, readGround, readSteps } from '../state/localCopy';
import { openingOf, openingOffline, type Opened } from '../state/opening';
import { takeOverBatches } from '../state/orphanBatches';
import type { PlanAnswer, PlanRequests } from '../state/planRequests';
import { tabId } from '../state/tabIdentity';
import { Frame } from './Frame';
import { Message } from './Message';
import { awaited, loaded } from './loaded';
import { PlanSheets, useWorkbench } from '../state/workbench';

const PlanChoice = lazy(() => awaited(async () => (await loaded(import('./PlanChoice'))).PlanChoice));

type Loading = 'loading' | 'ready' | Exclude<PlanAnswer, StoredPlan>;

/** What this browser kept of a plan; batches that another open tab sends stay with it. */
async function readKept(requests: PlanRequests, id: string) {
  const [read, steps, waiting] = await Promise.all([
    readGround(id),
    tabId().then((tab) => readSteps(id, tab)),
    takeOverBatches(requests, id, true).catch((): readonly Batch[] => []),
  ]);
  if (read.kind === 'damaged')
    notifications.show({
      message: 'The edits stored in this browser could not be read and were set aside. The plan is opened as saved on the server.',
      autoClose: false,
    });
  void pruneSteps(id);
  return { ground: read.kind === 'ground' ? read.ground : null, waiting, ...steps };
}

/** The plan of an address, from the server and from what this browser kept of it. */
async function openPlan(requests: PlanRequests, id: string, sheets: Sheets): Promise<Opened | Exclude<PlanAnswer, StoredPlan>> {
  const [server, kept] = await Promise.all([requests.read(id), readKept(requests, id)]);
  const { ground } = kept;
  if (server === 'away' || server === 'signed-out') return ground ? openingOffline({ ...kept, ground }, sheets) : server;
  if (typeof server === 'string' || 'trouble' in server) return server;
  const { document, lost } = openingOf(server, kept, new Set(), sheets);
  if (lost > 0)
    notifications.show({
      message: `${counted(lost, 'edit')} stored in this browser no longer ${lost === 1 ? 'applies' : 'apply'} to the plan and ${lost === 1 ? 'was' : 'were'} left out.`,
      autoClose: false,
    });
  return document;
}

/** Listens to the server for changes made elsewhere, for as long as the plan is open. */
function useLiveChanges(id: string, ready: boolean): void {
  const { saver } = useWorkbench();
  const signedOut = useAppSelector((state) => state.session.signedOut);
  useEffect(() => {
    if (!ready || signedOut) return undefined;
    const source = new EventSource(`/api/plans/${encodeURIComponent(id)}/events`);
    const hear = (event: Event) => {
      const { revision = null, epoch } = JSON.parse((event as MessageEvent<string>).data) as Partial<RevisionEvent> & GoneEvent;
      void saver.heard(id, { revision, epoch });
    };
    source.addEventListener('revision', hear);
    source.addEventListener('gone', hear);
    return () => source.close();
  }, [id, ready, saver, signedOut]);
}

const ADOPT_MS = 15_000;

/** Takes over the unsent edits of a closed tab of this plan. */
function useLeftBatches(id: string, ready: boolean): void {
  const { saver, requests } = useWorkbench();
  useEffect(() => {
    if (!ready) return undefined;
    const take = () =>
      void takeOverBatches(requests, id, false)
        .then((batches) => saver.adopt(id, batches))
        .catch(() => undefined);
    const timer = setInterval(take, ADOPT_MS);
    globalThis.addEventListener('online', take);
    return () => {
      clearInterval(timer);
      globalThis.removeEventListener('online', take);
    };
  }, [id, ready, saver, requests]);
}

/** Always the same element: the frame is not drawn anew because of it. */
const OUTLET = <Outlet />;

/** Opens the plan of the address and keeps it open while its views change. */
export function PlanPage() {
  const { id = '' } = useParams();
  const dispatch = useAppDispatch();
  const { sheets, requests } = useWorkbench();
  const planId = useAppSelector((state) => state.document.plan?.id);
  const notes = useAppSelector((state) => state.document.plan?.benchNotes);
  const missing = useAppSelector(({ document: { plan } }) => plan && missingSheet(plan.board.id, plan.placements, sheets));
  const [attempt, setAttempt] = useState(0);
  const [answer, setAnswer] = useState<{ readonly of: string; readonly loading: Loading }>({ of: '', loading: 'loading' });
  const ask = `${id}#${attempt}`;
  const loading = answer.of === ask ? answer.loading : 'loading';
  useEffect(() => {
    let current = true;
    void openPlan(requests, id, sheets).then((found) => {
      if (!current) return;
      const isOpened = typeof found !== 'string' && 'plan' in found;
      if (isOpened) {
        dispatch(sessionActions.sessionCleared());
        dispatch(documentActions.opened(found));
      }
      setAnswer({ of: ask, loading: isOpened ? 'ready' : found });
    });
    return () => {
      current = false;
    };
  }, [id, ask, dispatch, sheets, requests]);
  useEffect(() => () => void dispatch(documentActions.closed()), [id, dispatch]);
  useLiveChanges(id, loading === 'ready');
  useLeftBatches(id, loading === 'ready');

  if (loading === 'gone') return <Message title="Plan not found" action={{ label: 'Go to Plans', href: '/' }} />;
  if (typeof loading !== 'string') {
    return (
      <Message title="This plan cannot be opened" action={{ label: 'Go to Plans', href: '/' }}>
        {loading.trouble}
      </Message>
    );
  }
  if (loading === 'away' || loading === 'signed-out') {
    return (
      <Message title="The server is not responding" action={{ label: 'Try again', run: () => setAttempt(attempt + 1) }}>
        The plan cannot be opened at the moment. Nothing is lost.
      </Message>
    );
  }
  if (!notes || planId !== id) return <Message title="Opening the plan" />;
  if (missing) {
    return (
      <Message title="A sheet of this plan is missing" action={{ label: 'Go to Plans', href: '/' }}>
        The plan requires the sheet {missing}, which is not on this server. The plan itself is unchanged. Import the sheet in the Library.
      </Message>
    );
  }
  return (
    <PlanSheets notes={notes}>
      <Frame planId={planId}>{OUTLET}</Frame>
      <Suspense fallback={null}>
        <PlanChoice />
      </Suspense>
    </PlanSheets>
  );
}

function missingSheet(
  board: string,
  placements: readonly { sheet: { id: string } }[],
  sheets: ReturnType<typeof useWorkbench>['sheets'],
): string | undefined {
  if (!sheets.boards.has(board)) return board;
  return placements.find((p) => !sheets.parts.has(p.sheet.id))?.sheet.id;
}
