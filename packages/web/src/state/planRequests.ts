import { PLAN_LIMITS } from '@roof-chart/core/plan/plan';
import type { SerializedError } from '@reduxjs/toolkit';
import type { FetchBaseQueryError } from '@reduxjs/toolkit/query';
import type { StoredPlan } from '@roof-chart/api/storedPlan';
import { api } from './api';
import type { Batch, Waiting } from './documentSlice';
import type { Store } from './store';
import { deviceName, tabId } from './tabIdentity';

/** Which revision an edit was made on, in which life of the server's database. */
interface Seen {
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
type FetchPlan = (planId: string) => Promise<PlanAnswer>;

/** What saving and opening ask of the server. */
export interface PlanRequests {
  /** Sends batches. Small ones are kept alive when the page closes. */
  readonly send: SendBatches;
  /** The plan as the server holds it, or why there is no answer. */
  readonly read: FetchPlan;
  /** Which of these batches the server has; none where it does not answer. */
  readonly taken: (planId: string, batches: readonly Batch[]) => Promise<ReadonlySet<string>>;
}

type Failed = FetchBaseQueryError | SerializedError;
/** The status of an answer that the server gave; none where it gave none, or not as JSON. */
const statusOf = (error: Failed): number | undefined => ('status' in error && typeof error.status === 'number' ? error.status : undefined);
const bodyOf = (error: Failed) => ('data' in error ? error.data : undefined) as ErrorBody & Partial<StoredPlan>;

/** The requests of a store: all of them go through its API. Nothing of their answers is kept there. */
export function planRequests(dispatch: Store['dispatch']): PlanRequests {
  const { readPlan, sendBatches, takenBatches } = api.endpoints;
  const once = { track: false } as const;
  return {
    async send(planId, { revision, epoch }, batches) {
      const body = JSON.stringify({
        batches: batches.map((batch) => ({ batch: batch.id, edits: batch.edits, ...labelOf(batch) })),
        client: { device: deviceName(), tab: await tabId() },
      });
      const isSmall = new TextEncoder().encode(body).length < KEPT_ALIVE_BYTES;
      const ask = (keepalive: boolean) => dispatch(sendBatches.initiate({ planId, revision, epoch, body, keepalive }, once));
      let result = await ask(isSmall);
      // The browser's room for requests that outlive a page may be taken: that is no reason to wait.
      if (isSmall && result.error && statusOf(result.error) === undefined) result = await ask(false);
      if (!result.error) return { kind: 'done', revision: result.data.revision };
      const status = statusOf(result.error);
      return status === undefined ? { kind: 'wait', why: 'offline' } : failure(status, bodyOf(result.error), revision);
    },
    async read(planId) {
      const { data, error } = await dispatch(readPlan.initiate(planId, once));
      if (!error) return data;
      const status = statusOf(error);
      if (status === 404 || status === 400) return 'gone';
      if (status === 401) return 'signed-out';
      const message = bodyOf(error)?.error?.message;
      return status === 500 && message !== undefined ? { trouble: message } : 'away';
    },
    async taken(planId, batches) {
      if (batches.length === 0) return new Set();
      const { data } = await dispatch(takenBatches.initiate({ planId, batches: batches.map(({ id }) => id) }, once));
      return new Set(data?.taken);
    },
  };
}
