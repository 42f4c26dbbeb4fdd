import { createStore, promisifyRequest, type UseStore } from 'idb-keyval';
import { upgradeEdits } from '@roof-chart/core/plan/upgradePlan';
import type { Batch } from './documentSlice';

/** A batch that the server has not acknowledged yet, as a record of its own: two tabs never write the same one. */
interface BatchRecord {
  readonly planId: string;
  /** The tab that sends it. */
  readonly tab: string;
  /** Sorts the batches of a plan as they were made. */
  readonly order: number;
  readonly batch: Batch;
}

const STORE = 'batches';
let store: UseStore | undefined;
/** Opened when it is first used: in a private window that may fail. */
const batches = (): UseStore => (store ??= createStore('roof-chart-waiting', STORE));

const keyOf = (planId: string, batchId: string): string => `${planId}/${batchId}`;
/** Everything under a plan: '0' is the character after '/'. */
const rangeOf = (planId: string): IDBKeyRange => IDBKeyRange.bound(`${planId}/`, `${planId}0`, false, true);

let lastOrder = 0;
const nextOrder = (): number => (lastOrder = Math.max(lastOrder + 1, Date.now() * 1000));

export function isBatch(value: unknown): value is Batch {
  const { id, edits } = (value ?? {}) as Partial<Batch>;
  return typeof id === 'string' && Array.isArray(edits);
}

function isRecord(value: unknown): value is BatchRecord {
  const { planId, tab, order, batch } = (value ?? {}) as Partial<BatchRecord>;
  return typeof planId === 'string' && typeof tab === 'string' && typeof order === 'number' && isBatch(batch);
}

const sorted = (values: readonly unknown[]): readonly BatchRecord[] => values.filter(isRecord).sort((a, b) => a.order - b.order);

/** Keeps batches until they are acknowledged.
 *  @throws DOMException when the browser's storage is full or refused */
export function keepBatches(planId: string, tab: string, list: readonly Batch[]): Promise<void> {
  return batches()('readwrite', (objects) => {
    for (const batch of list) {
      const record: BatchRecord = { planId, tab, order: nextOrder(), batch };
      objects.put(record, keyOf(planId, batch.id));
    }
    return promisifyRequest(objects.transaction);
  });
}

/** Deletes batches that are stored on the server, or no longer apply and were reported. */
export function forgetBatches(planId: string, ids: readonly string[]): Promise<void> {
  return batches()('readwrite', (objects) => {
    for (const id of ids) objects.delete(keyOf(planId, id));
    return promisifyRequest(objects.transaction);
  });
}

/** Takes over the batches of closed tabs. Concurrent tabs never get the same one.
 *  @param isOpen whether another tab is still open
 *  @returns these batches, and with `own` this tab's; never its own while they may be in transit */
export async function adoptBatches(
  planId: string,
  tab: string,
  { isOpen, own }: { readonly isOpen: (tab: string) => boolean; readonly own: boolean },
): Promise<readonly Batch[]> {
  const mine = await batches()('readwrite', async (objects) => {
    const all = sorted(await promisifyRequest<unknown[]>(objects.getAll(rangeOf(planId))));
    const left = all.filter((record) => record.tab !== tab && !isOpen(record.tab));
    for (const record of left) objects.put({ ...record, tab }, keyOf(planId, record.batch.id));
    return own ? all.filter((record) => record.tab === tab || left.includes(record)) : left;
  });
  // An earlier version may have made them.
  return mine.map(({ batch }) => ({ ...batch, edits: upgradeEdits(batch.edits) }));
}

/** The plans that have batches which no open tab sends. */
export async function plansWithOrphans(isOpen: (tab: string) => boolean): Promise<readonly string[]> {
  const all = await batches()('readonly', (objects) => promisifyRequest<unknown[]>(objects.getAll()));
  return [...new Set(sorted(all).flatMap((record) => (isOpen(record.tab) ? [] : [record.planId])))];
}
