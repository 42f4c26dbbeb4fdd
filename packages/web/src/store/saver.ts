import { applyEdits } from '@roof-chart/core/plan/applyEdits';
import type { EditProblem } from '@roof-chart/core/plan/edit';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { type Batch, documentActions } from './documentSlice';
import type { Store } from './store';

/** What the server said to a batch. */
export type SaveAnswer =
  | { readonly kind: 'done'; readonly revision: number }
  | { readonly kind: 'stale'; readonly plan: Plan; readonly revision: number }
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
    const body = (await response.json()) as { revision?: number; plan?: Plan; error?: { message: string } };
    if (response.ok) return { kind: 'done', revision: body.revision! };
    if (response.status === 412) return { kind: 'stale', plan: body.plan!, revision: body.revision! };
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
}

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
  ) {}

  /** Starts watching the document. @returns stops watching */
  watch(): () => void {
    const unsubscribe = this.store.subscribe(() => void this.#pump());
    const retry = () => {
      this.#tries = 0;
      void this.#pump(true);
    };
    globalThis.addEventListener?.('online', retry);
    return () => {
      unsubscribe();
      clearTimeout(this.#timer);
      globalThis.removeEventListener?.('online', retry);
    };
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
      if (this.store.getState().document.plan?.id === plan.id) this.#take(answer, plan.id);
    } finally {
      this.#busy = false;
    }
    void this.#pump();
  }

  #take(answer: SaveAnswer, planId: string): void {
    if (answer.kind !== 'away') this.#tries = 0;
    switch (answer.kind) {
      case 'done':
        return void this.store.dispatch(documentActions.saved({ revision: answer.revision, batches: 1 }));
      case 'stale':
        return this.#rebaseOn(answer.plan, answer.revision, 'The plan was changed elsewhere; your latest edits were laid on top.');
      case 'refused':
        return void this.#recover(planId, answer.message);
      case 'gone':
        this.store.dispatch(documentActions.offline());
        return this.events.tell(
          'This plan was deleted elsewhere. Restore it from Plans, or keep this tab open: your edits are still here.',
        );
      case 'away':
        this.store.dispatch(documentActions.offline());
        this.#timer = setTimeout(() => void this.#pump(true), RETRY_MS[Math.min(this.#tries++, RETRY_MS.length - 1)]);
    }
  }

  #rebaseOn(ground: Plan, revision: number, words: string): void {
    const { waiting } = this.store.getState().document;
    const result = rebase(ground, waiting, this.sheets());
    this.store.dispatch(documentActions.rebased({ plan: result.plan, revision, waiting: result.waiting }));
    const lost = result.lost.map(({ problem }) => `${problem.path} should be ${problem.expected}, not ${problem.got}`);
    this.events.tell(lost.length > 0 ? `${words} ${lost.length} of them no longer fit: ${lost.join('; ')}.` : words);
  }

  /** The server will never take this batch: go back to what it holds, without it. */
  async #recover(planId: string, message: string): Promise<void> {
    this.#busy = true;
    try {
      const response = await fetch(`/api/plans/${planId}`);
      const { plan, revision } = (await response.json()) as { plan: Plan; revision: number };
      this.store.dispatch(documentActions.saved({ revision, batches: 1 }));
      this.#rebaseOn(plan, revision, `An edit was refused and taken back: ${message}`);
    } catch {
      this.store.dispatch(documentActions.offline());
    } finally {
      this.#busy = false;
    }
  }
}
