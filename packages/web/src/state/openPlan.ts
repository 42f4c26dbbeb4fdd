import { counted } from '@roof-chart/core/quantity/format';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import type { StoredPlan } from '@roof-chart/api/storedPlan';
import { type Batch, documentActions } from './documentSlice';
import { pruneSteps, readGround, readSteps } from './localCopy';
import { openingOf, openingOffline, type Opened } from './opening';
import { takeOverBatches } from './orphanBatches';
import type { PlanAnswer, PlanRequests } from './planRequests';
import { sessionActions } from './sessionSlice';
import type { AppThunk } from './store';
import { tabId } from './tabIdentity';

/** Why a plan is not open. */
export type NotOpened = Exclude<PlanAnswer, StoredPlan>;

/** What opening a plan needs. */
export interface OpenPlan {
  readonly id: string;
  readonly sheets: Sheets;
  readonly requests: PlanRequests;
  /** Words for the user about what could not be kept. */
  readonly tell: (message: string) => void;
  /** Aborted where another plan is requested meanwhile: this one is not opened then. */
  readonly signal: AbortSignal;
}

/** What this browser kept of a plan; batches that another open tab sends stay with it. */
async function readKept({ id, requests, tell }: OpenPlan) {
  const [read, steps, waiting] = await Promise.all([
    readGround(id),
    tabId().then((tab) => readSteps(id, tab)),
    takeOverBatches(requests, id, true).catch((): readonly Batch[] => []),
  ]);
  if (read.kind === 'damaged')
    tell('The edits stored in this browser could not be read and were set aside. The plan is opened as saved on the server.');
  void pruneSteps(id);
  return { ground: read.kind === 'ground' ? read.ground : null, waiting, ...steps };
}

/** The plan from the server and from what this browser kept of it. */
async function read(request: OpenPlan): Promise<Opened | NotOpened> {
  const [server, kept] = await Promise.all([request.requests.read(request.id), readKept(request)]);
  const { ground } = kept;
  if (server === 'away' || server === 'signed-out') return ground ? openingOffline({ ...kept, ground }, request.sheets) : server;
  if (typeof server === 'string' || 'trouble' in server) return server;
  const { document, lost } = openingOf(server, kept, new Set(), request.sheets);
  if (lost > 0)
    request.tell(
      `${counted(lost, 'edit')} stored in this browser no longer ${lost === 1 ? 'applies' : 'apply'} to the plan and ${lost === 1 ? 'was' : 'were'} left out.`,
    );
  return document;
}

/** Opens a plan: the server's state with the edits on top that this browser had not sent; from the browser alone while the server is away.
 *  @returns why it is not open, or 'ready' */
export const openPlan =
  (request: OpenPlan): AppThunk<Promise<'ready' | NotOpened>> =>
  async (dispatch) => {
    const found = await read(request);
    if (typeof found === 'string' || !('plan' in found)) return found;
    if (!request.signal.aborted) {
      dispatch(sessionActions.sessionCleared());
      dispatch(documentActions.opened(found));
    }
    return 'ready';
  };
