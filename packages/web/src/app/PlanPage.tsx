import { notifications } from '@mantine/notifications';
import { useEffect, useState } from 'react';
import { Outlet, useParams } from 'react-router';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { documentActions } from '../store/documentSlice';
import { sessionActions } from '../store/sessionSlice';
import { useAppDispatch, useAppSelector } from '../store/store';
import type { StoredPlan } from '../store/api';
import { openingOf, openingOffline, type Opened } from '../store/opening';
import { readLocal } from '../store/localCopy';
import { Frame } from './Frame';
import { Message } from './Message';
import { PlanSheets, useWorkbench } from './workbench';

type Loading = 'loading' | 'ready' | 'gone' | 'away';

async function fetchPlan(id: string): Promise<StoredPlan | 'gone' | 'away'> {
  try {
    const response = await fetch(`/api/plans/${encodeURIComponent(id)}`);
    if (response.ok) return (await response.json()) as StoredPlan;
    return response.status === 404 || response.status === 400 ? 'gone' : 'away';
  } catch {
    return 'away';
  }
}

/** The plan of an address, from the server and from what this browser kept of it. */
async function openPlan(id: string, sheets: Sheets): Promise<Opened | 'gone' | 'away'> {
  const [server, local] = await Promise.all([fetchPlan(id), readLocal(id)]);
  const copy = local.kind === 'copy' ? local.copy : null;
  if (local.kind === 'damaged')
    notifications.show({
      message: 'What this browser had kept of the plan could not be read and was set aside. The plan is opened as the server holds it.',
      autoClose: false,
    });
  if (server === 'away') return copy ? openingOffline(copy) : 'away';
  if (server === 'gone') return 'gone';
  const { document, lost } = openingOf(server, copy, sheets);
  if (lost > 0)
    notifications.show({ message: `${lost} edits kept in this browser no longer fit the plan and were left out.`, autoClose: false });
  return document;
}

/** Listens to the server for changes made elsewhere, for as long as the plan is open. */
function useLiveChanges(id: string, ready: boolean): void {
  const { saver } = useWorkbench();
  useEffect(() => {
    if (!ready) return undefined;
    const source = new EventSource(`/api/plans/${encodeURIComponent(id)}/events`);
    source.addEventListener('revision', (event) => void saver.heard(id, Number((event as MessageEvent<string>).data)));
    return () => source.close();
  }, [id, ready, saver]);
}

/** Always the same element: the frame is not drawn anew because of it. */
const OUTLET = <Outlet />;

/** Opens the plan of the address and keeps it open while its views change. */
export function PlanPage() {
  const { id = '' } = useParams();
  const dispatch = useAppDispatch();
  const { sheets } = useWorkbench();
  const planId = useAppSelector((state) => state.document.plan?.id);
  const notes = useAppSelector((state) => state.document.plan?.benchNotes);
  const missing = useAppSelector(({ document: { plan } }) => plan && missingSheet(plan.board.id, plan.placements, sheets));
  const [attempt, setAttempt] = useState(0);
  const [answer, setAnswer] = useState<{ readonly of: string; readonly loading: Loading }>({ of: '', loading: 'loading' });
  const ask = `${id}#${attempt}`;
  const loading = answer.of === ask ? answer.loading : 'loading';
  useEffect(() => {
    let current = true;
    void openPlan(id, sheets).then((found) => {
      if (!current) return;
      if (typeof found !== 'string') {
        dispatch(sessionActions.sessionCleared());
        dispatch(documentActions.opened(found));
      }
      setAnswer({ of: ask, loading: typeof found === 'string' ? found : 'ready' });
    });
    return () => {
      current = false;
    };
  }, [id, ask, dispatch, sheets]);
  useEffect(() => () => void dispatch(documentActions.closed()), [id, dispatch]);
  useLiveChanges(id, loading === 'ready');

  if (loading === 'gone') return <Message title="There is no such plan" action={{ label: 'Go to Plans', href: '/' }} />;
  if (loading === 'away') {
    return (
      <Message title="The server does not answer" action={{ label: 'Try again', run: () => setAttempt(attempt + 1) }}>
        The plan cannot be opened just now. Nothing is lost.
      </Message>
    );
  }
  if (!notes || planId !== id) return <Message title="Opening the plan" />;
  if (missing) {
    return (
      <Message title="A sheet of this plan is missing" action={{ label: 'Go to Plans', href: '/' }}>
        The plan needs the sheet {missing}, which this server does not have. The plan itself is kept as it is.
      </Message>
    );
  }
  return (
    <PlanSheets notes={notes}>
      <Frame planId={planId}>{OUTLET}</Frame>
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
