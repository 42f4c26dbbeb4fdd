import { notifications } from '@mantine/notifications';
import { lazy, Suspense, useEffect, useState } from 'react';
import { Outlet, useParams } from 'react-router';
import { documentActions } from '../state/documentSlice';
import { useAppDispatch, useAppSelector } from '../state/store';
import type { GoneEvent, RevisionEvent } from '@roof-chart/api/planEvents';
import { type NotOpened, openPlan } from '../state/openPlan';
import { takeOverBatches } from '../state/orphanBatches';
import { Frame } from './Frame';
import { Message } from './Message';
import { awaited, loaded } from './loaded';
import { PlanSheets, useWorkbench } from '../state/workbench';

const PlanChoice = lazy(() => awaited(async () => (await loaded(import('./PlanChoice'))).PlanChoice));

type Loading = 'loading' | 'ready' | NotOpened;

const tell = (message: string) => void notifications.show({ message, autoClose: false });

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
    const abort = new AbortController();
    void dispatch(openPlan({ id, sheets, requests, tell, signal: abort.signal })).then((answer) => {
      if (!abort.signal.aborted) setAnswer({ of: ask, loading: answer });
    });
    return () => abort.abort();
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
