import { PLAN_LIMITS } from '@roof-chart/core/plan/plan';
import type { StoredPlan } from './api';
import type { Batch, Waiting } from './documentSlice';
import { deviceName, tabId } from './tabIdentity';

/** Which revision an edit was made on, in which life of the server's database. */
export interface Seen {
  readonly revision: number;
  readonly epoch: string;
}

/** The server's response to batches. */
export type SaveAnswer =
  | { readonly kind: 'done'; readonly revision: number }
  | { readonly kind: 'stale'; readonly now: StoredPlan }
  /** The batch at this place will never be taken; those before it are done, at this revision. */
  | { readonly kind: 'refused'; readonly at: number; readonly revision: number; readonly message: string }
  | { readonly kind: 'gone' }
  /** Not now: it may be taken later. */
  | { readonly kind: 'wait'; readonly why: Exclude<Waiting, 'choice'> };

export type SendBatches = (planId: string, seen: Seen, batches: readonly Batch[]) => Promise<SaveAnswer>;

/** What browsers keep alive of a request when the page closes; beyond it they throw. */
const KEPT_ALIVE_BYTES = 60_000;
/** Under the server's limits of one request. */
const REQUEST = { edits: PLAN_LIMITS.editsPerBatch, batches: 400, characters: 1_500_000 } as const;

/** The first waiting batches that go in one request. */
export function nextBatches(waiting: readonly Batch[]): readonly Batch[] {
  let edits = 0;
  let characters = 0;
  const list: Batch[] = [];
  for (const batch of waiting.slice(0, REQUEST.batches)) {
    edits += batch.edits.length;
    characters += JSON.stringify(batch.edits).length;
    // The first one is sent alone, however large; the server decides.
    if (list.length > 0 && (edits > REQUEST.edits || characters > REQUEST.characters)) break;
    list.push(batch);
  }
  return list;
}

async function post(path: string, headers: Record<string, string>, body: string): Promise<Response> {
  const request = { method: 'POST', headers: { 'Content-Type': 'application/json', ...headers }, body };
  const small = new TextEncoder().encode(body).length < KEPT_ALIVE_BYTES;
  if (!small) return fetch(path, request);
  try {
    return await fetch(path, { ...request, keepalive: true });
  } catch {
    // The browser's room for requests that outlive a page may be taken: that is no reason to wait.
    return fetch(path, request);
  }
}

interface ErrorBody {
  readonly error?: { readonly message: string };
  readonly done?: number;
  readonly revision?: number;
}

/** A label within the server's limits. */
const labelOf = ({ label }: Batch) =>
  label === undefined
    ? {}
    : {
        label:
          label
            .replace(/[\p{Cc}\p{Cs}\u202a-\u202e\u2066-\u2069]/gu, ' ')
            .trim()
            .slice(0, 300) || 'Edit',
      };

/** Sends batches over HTTP. Small ones are kept alive when the page closes. */
export const sendBatches: SendBatches = async (planId, { revision, epoch }, batches) => {
  try {
    const body = {
      batches: batches.map((batch) => ({ batch: batch.id, edits: batch.edits, ...labelOf(batch) })),
      client: { device: deviceName(), tab: await tabId() },
    };
    const response = await post(`/api/plans/${planId}/edits`, { 'If-Match': `"${revision}-${epoch}"` }, JSON.stringify(body));
    const answer = (await response.json()) as ErrorBody & Partial<StoredPlan>;
    if (response.ok) return { kind: 'done', revision: answer.revision! };
    return failure(response.status, answer, revision);
  } catch {
    return { kind: 'wait', why: 'offline' };
  }
};

function failure(status: number, answer: ErrorBody & Partial<StoredPlan>, revision: number): SaveAnswer {
  if (status === 412) return { kind: 'stale', now: answer as StoredPlan };
  if (status === 404) return { kind: 'gone' };
  if (status === 401) return { kind: 'wait', why: 'signed-out' };
  if (status === 507) return { kind: 'wait', why: 'full' };
  // Only a 4xx means that the batch itself is invalid; other errors may be temporary.
  if (status >= 500 || status === 429) return { kind: 'wait', why: 'offline' };
  const message = answer.error?.message ?? `The server returned status ${status}.`;
  return { kind: 'refused', at: answer.done ?? 0, revision: answer.revision ?? revision, message };
}

export type PlanAnswer = StoredPlan | 'gone' | 'away' | 'signed-out' | { readonly trouble: string };
export type FetchPlan = (planId: string) => Promise<PlanAnswer>;

/** The plan as the server holds it, or why there is no answer. */
export const fetchPlan: FetchPlan = async (planId) => {
  try {
    const response = await fetch(`/api/plans/${encodeURIComponent(planId)}`);
    const body = (await response.json()) as StoredPlan & ErrorBody;
    if (response.ok) return body;
    if (response.status === 404 || response.status === 400) return 'gone';
    if (response.status === 401) return 'signed-out';
    return response.status === 500 && body.error ? { trouble: body.error.message } : 'away';
  } catch {
    return 'away';
  }
};

/** Which of these batches the server has; none where it does not answer. */
export async function fetchTaken(planId: string, batches: readonly Batch[]): Promise<ReadonlySet<string>> {
  if (batches.length === 0) return new Set();
  try {
    const response = await post(
      `/api/plans/${encodeURIComponent(planId)}/taken`,
      {},
      JSON.stringify({ batches: batches.map((b) => b.id) }),
    );
    return new Set(response.ok ? ((await response.json()) as { taken: string[] }).taken : []);
  } catch {
    return new Set();
  }
}
