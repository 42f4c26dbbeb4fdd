import { applyEdits } from '@roof-chart/core/plan/applyEdits';
import type { EditProblem } from '@roof-chart/core/plan/edit';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import type { StoredPlan } from './api';
import { type Batch, documentActions } from './documentSlice';
import type { Store } from './store';

/** What the server said to a batch. */
export type SaveAnswer =
  | { readonly kind: 'done'; readonly revision: number }
  | { readonly kind: 'stale'; readonly now: StoredPlan }
  | { readonly kind: 'refused'; readonly message: string }
  | { readonly kind: 'gone' }
  | { readonly kind: 'away' };

export type SendBatch = (planId: string, revision: number, batch: Batch) => Promise<SaveAnswer>;

/** Sends a batch over HTTP. It is kept alive when the page closes. */
export const sendBatch: SendBatch = async (planId, revision, batch) => {
  try {
    const response = await fetch(`/api/plans/${planId}/edits`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', 'If-Match': `"${revision}"` },
      body: JSON.stringify({ batch: batch.id, edits: batch.edits }),
      keepalive: true,
    });
    const body = (await response.json()) as Partial<StoredPlan> & { error?: { message: string } };
    if (response.ok) return { kind: 'done', revision: body.revision! };
    if (response.status === 412) return { kind: 'stale', now: body as StoredPlan };
    if (response.status === 404) return { kind: 'gone' };
    // A server in trouble may recover: only a 4xx says that the batch itself is wrong.
    if (response.status >= 500 || response.status === 429) return { kind: 'away' };
    return { kind: 'refused', message: body.error?.message ?? `The server answered ${response.status}.` };
  } catch {
    return { kind: 'away' };
  }
};

export interface Rebased {
  readonly plan: Plan;
  readonly waiting: readonly Batch[];
  readonly lost: readonly { readonly batch: Batch; readonly problem: EditProblem }[];
}

/** Waiting batches laid again on another revision. A batch that no longer fits is left out and reported. */
export function rebase(ground: Plan, waiting: readonly Batch[], sheets: Sheets): Rebased {
  let plan = ground;
  const kept: Batch[] = [];
  const lost: Rebased['lost'][number][] = [];
  for (const batch of waiting) {
    const result = applyEdits(plan, batch.edits, sheets);
    if (result.ok) {
      plan = result.plan;
      kept.push(batch);
    } else lost.push({ batch, problem: result.problem });
  }
  return { plan, waiting: kept, lost };
}

const RETRY_MS = [1000, 2000, 5000, 10000] as const;

export interface SaverEvents {
  /** Words for the user about something that could not be kept as it was. */
  tell(message: string): void;
  /** The plan was deleted elsewhere. */
  gone(planId: string): void;
}

export type FetchPlan = (planId: string) => Promise<StoredPlan | null>;

/** The plan as the server holds it, or null when there is no answer. */
export const fetchStored: FetchPlan = async (planId) => {
  try {
    const response = await fetch(`/api/plans/${planId}`);
    return response.ok ? ((await response.json()) as StoredPlan) : null;
  } catch {
    return null;
  }
};

/** Sends waiting batches one at a time, in order, for as long as there are any; never gives one up silently. */
export class Saver {
  #busy = false;
  #tries = 0;
  #timer: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly store: Store,
    private readonly sheets: () => Sheets,
    private readonly events: SaverEvents,
    private readonly send: SendBatch = sendBatch,
    private readonly fetchPlan: FetchPlan = fetchStored,
  ) {}

  /** Starts watching the document. @returns stops watching */
  watch(): () => void {
    const unsubscribe = this.store.subscribe(() => void this.#pump());
    const retry = () => this.retry();
    globalThis.addEventListener?.('online', retry);
    void this.#pump();
    return () => {
      unsubscribe();
      clearTimeout(this.#timer);
      globalThis.removeEventListener?.('online', retry);
    };
  }

  /** Tries again at once, for example because the server was heard of. */
  retry(): void {
    this.#tries = 0;
    const { save, waiting, revision } = this.store.getState().document;
    if (save === 'offline' && waiting.length === 0) this.store.dispatch(documentActions.saved({ revision, batches: 0 }));
    void this.#pump(true);
  }

  /** The server told a revision. A newer one than ours is taken in; with batches of our own under way, their answer will tell. */
  async heard(planId: string, revision: number): Promise<void> {
    const { document } = this.store.getState();
    if (document.save === 'offline') this.retry();
    if (document.plan?.id !== planId || revision <= document.revision || document.waiting.length > 0 || this.#busy) return;
    const now = await this.fetchPlan(planId);
    const after = this.store.getState().document;
    if (now && after.plan?.id === planId && now.revision > after.revision && !this.#busy) this.#rebaseOn(now, null);
  }

  async #pump(now = false): Promise<void> {
    const { plan, revision, waiting, save } = this.store.getState().document;
    const batch = waiting[0];
    if (!plan || !batch || this.#busy || (save === 'offline' && !now)) return;
    this.#busy = true;
    clearTimeout(this.#timer);
    try {
      if (save !== 'saving') this.store.dispatch(documentActions.saving());
      const answer = await this.send(plan.id, revision, batch);
      // The user may have opened another plan meanwhile; this answer is not for that one.
      if (this.store.getState().document.plan?.id === plan.id) await this.#take(answer, plan.id);
    } finally {
      this.#busy = false;
    }
    void this.#pump();
  }

  async #take(answer: SaveAnswer, planId: string): Promise<void> {
    if (answer.kind !== 'away') this.#tries = 0;
    switch (answer.kind) {
      case 'done':
        return void this.store.dispatch(documentActions.saved({ revision: answer.revision, batches: 1 }));
      case 'stale':
        return this.#rebaseOn(answer.now, 'The plan was changed elsewhere; your latest edits were laid on top.');
      case 'refused':
        return this.#withoutFirst(planId, answer.message);
      case 'gone':
        this.store.dispatch(documentActions.offline());
        return this.events.gone(planId);
      case 'away':
        this.store.dispatch(documentActions.offline());
        this.#timer = setTimeout(() => void this.#pump(true), RETRY_MS[Math.min(this.#tries++, RETRY_MS.length - 1)]);
    }
  }

  /** @param words said when our own edits were laid on someone else's; null when there were none */
  #rebaseOn(now: StoredPlan, words: string | null): void {
    const taken = new Set(now.recent);
    const waiting = this.store.getState().document.waiting.filter((batch) => !taken.has(batch.id));
    const result = rebase(now.plan, waiting, this.sheets());
    this.store.dispatch(documentActions.rebased({ plan: result.plan, revision: now.revision, waiting: result.waiting }));
    const lost = result.lost.map(({ problem }) => `${problem.path} should be ${problem.expected}, not ${problem.got}`);
    if (lost.length > 0)
      this.events.tell(`The plan was changed elsewhere. ${lost.length} of your edits no longer fit: ${lost.join('; ')}.`);
    else if (words && waiting.length > 0) this.events.tell(words);
  }

  /** The server will never take the first batch: go back to what it holds, without it. */
  async #withoutFirst(planId: string, message: string): Promise<void> {
    const now = await this.fetchPlan(planId);
    if (!now) return void this.store.dispatch(documentActions.offline());
    this.store.dispatch(documentActions.saved({ revision: now.revision, batches: 1 }));
    this.#rebaseOn(now, null);
    this.events.tell(`An edit was refused by the server and taken back: ${message}`);
  }
}
