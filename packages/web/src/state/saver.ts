import { dequal } from 'dequal';
import { counted } from '@roof-chart/core/quantity/format';
import { applyEdits } from '@roof-chart/core/plan/applyEdits';
import type { EditProblem } from '@roof-chart/core/plan/edit';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import type { StoredPlan } from '@roof-chart/api/storedPlan';
import { type Batch, documentActions } from './documentSlice';
import { nextBatches, type PlanRequests, type SaveAnswer } from './planRequests';
import { addAppListener, type Store } from './store';

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
  /** The server requires sign-in. */
  signedOut(): void;
}

/** A server notification on a plan: its revision or that it is deleted, and the epoch. */
export interface Heard {
  readonly revision: number | null;
  readonly epoch: string;
}

/** Sends waiting batches in their order, as many at once as fit a request, for as long as there are any; never gives one up
 *  silently. */
export class Saver {
  #busy = false;
  #tries = 0;
  #timer: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly store: Store,
    private readonly sheets: () => Sheets,
    private readonly events: SaverEvents,
    private readonly requests: Pick<PlanRequests, 'send' | 'read'>,
  ) {}

  /** Starts watching the document. @returns stops watching */
  watch(): () => void {
    const stopListening = this.store.dispatch(
      addAppListener({ predicate: (_, now, before) => now.document !== before.document, effect: () => this.#pump() }),
    );
    const retry = () => this.retry();
    globalThis.addEventListener?.('online', retry);
    void this.#pump();
    return () => {
      stopListening();
      clearTimeout(this.#timer);
      globalThis.removeEventListener?.('online', retry);
    };
  }

  /** Tries again at once, for example because the server was heard of. */
  retry(): void {
    this.#tries = 0;
    const { save, waiting, revision } = this.store.getState().document;
    if (isHeld(save) && waiting.length === 0) this.store.dispatch(documentActions.saved({ revision, batches: 0 }));
    void this.#pump(true);
  }

  /** Handles a notification. A newer revision is loaded, unless own batches are under way, whose response will contain it. A different
   *  epoch is always handled. */
  async heard(planId: string, { revision, epoch }: Heard): Promise<void> {
    const { document } = this.store.getState();
    if (document.plan?.id !== planId || document.choice) return;
    const isSameLife = epoch === document.epoch;
    if (revision === null) {
      if (!isSameLife) return void this.store.dispatch(documentActions.choiceAsked('gone'));
      return this.events.gone(planId);
    }
    if (document.save === 'offline') this.retry();
    if (isSameLife && (revision <= document.revision || document.waiting.length > 0 || this.#busy)) return;
    const now = await this.requests.read(planId);
    const after = this.store.getState().document;
    if (typeof now === 'string' || 'trouble' in now || after.plan?.id !== planId) return;
    if (now.epoch !== after.epoch) this.#otherLife(now);
    else if (now.revision > after.revision && !this.#busy) this.#rebaseOn(now, null);
  }

  /** Lays batches that a tab left behind on top of the open plan. */
  adopt(planId: string, batches: readonly Batch[]): void {
    const { plan, ground, revision, epoch, waiting, choice } = this.store.getState().document;
    const known = new Set(waiting.map((batch) => batch.id));
    const fresh = batches.filter((batch) => !known.has(batch.id));
    if (plan?.id !== planId || !ground || choice || fresh.length === 0) return;
    this.#lay({ plan: ground, revision, epoch }, [...waiting, ...fresh], 'Unsaved edits of a closed tab were added.');
  }

  async #pump(now = false): Promise<void> {
    const { plan, revision, epoch, waiting, save, choice } = this.store.getState().document;
    if (!plan || choice || waiting.length === 0 || this.#busy || (isHeld(save) && !now)) return;
    this.#busy = true;
    clearTimeout(this.#timer);
    try {
      if (save !== 'saving') this.store.dispatch(documentActions.saving());
      const batches = nextBatches(waiting);
      const answer = await this.requests.send(plan.id, { revision, epoch }, batches);
      // The user may have opened another plan meanwhile; this answer is not for that one.
      if (this.store.getState().document.plan?.id === plan.id) await this.#take(answer, plan.id, batches.length);
    } finally {
      this.#busy = false;
    }
    void this.#pump();
  }

  async #take(answer: SaveAnswer, planId: string, sent: number): Promise<void> {
    if (answer.kind !== 'wait') this.#tries = 0;
    switch (answer.kind) {
      case 'done':
        return this.#saved(answer.revision, sent);
      case 'stale':
        if (answer.now.epoch !== this.store.getState().document.epoch) return this.#otherLife(answer.now);
        return this.#rebaseOn(answer.now, 'The plan was changed in another window; your edits were applied on top.');
      case 'refused':
        this.#saved(answer.revision, answer.at);
        return this.#withoutFirst(planId, answer.message);
      case 'gone':
        this.store.dispatch(documentActions.held('offline'));
        return this.events.gone(planId);
      case 'wait':
        this.store.dispatch(documentActions.held(answer.why));
        if (answer.why === 'signed-out') this.events.signedOut();
        this.#timer = setTimeout(() => void this.#pump(true), RETRY_MS[Math.min(this.#tries++, RETRY_MS.length - 1)]);
    }
  }

  /** The first waiting batches are in: the ground has them now. */
  #saved(revision: number, batches: number): void {
    const { plan, ground, waiting } = this.store.getState().document;
    if (!ground || !plan) return;
    // With nothing left waiting the plan is the ground; otherwise the batches are laid on it once more.
    const next = waiting.length === batches ? plan : rebase(ground, waiting.slice(0, batches), this.sheets()).plan;
    this.store.dispatch(documentActions.saved({ revision, batches, ground: next }));
  }

  /** @param words reported when own edits were applied on top of others; null without own edits */
  #rebaseOn(now: StoredPlan, words: string | null): void {
    const taken = new Set(now.recent);
    this.#lay(
      now,
      this.store.getState().document.waiting.filter((batch) => !taken.has(batch.id)),
      words,
    );
  }

  #lay(now: Pick<StoredPlan, 'plan' | 'revision' | 'epoch'>, waiting: readonly Batch[], words: string | null): void {
    const result = rebase(now.plan, waiting, this.sheets());
    const { revision, epoch } = now;
    this.store.dispatch(documentActions.rebased({ plan: result.plan, ground: now.plan, revision, epoch, waiting: result.waiting }));
    const lost = result.lost.map(({ problem }) => `${problem.path} must be ${problem.expected}, not ${problem.got}`);
    if (lost.length > 0)
      this.events.tell(
        `The plan was changed in another window. ${counted(lost.length, 'edit')} of yours no longer ${lost.length === 1 ? 'applies' : 'apply'}: ${lost.join('; ')}.`,
      );
    else if (words && waiting.length > 0) this.events.tell(words);
  }

  /** The server's database was restored or reset. If its plan equals the one shown, nothing is asked; otherwise nothing is sent or
   *  discarded before the user has chosen. */
  #otherLife(now: StoredPlan): void {
    const { plan } = this.store.getState().document;
    const { plan: ground, revision, epoch } = now;
    // Compared as it would be sent, in whatever order its wires were made.
    if (dequal(JSON.parse(JSON.stringify(plan)), ground))
      this.store.dispatch(documentActions.rebased({ plan: ground, ground, revision, epoch, waiting: [] }));
    else this.store.dispatch(documentActions.choiceAsked(now));
  }

  /** The server rejects the first batch permanently: reload its state without it. */
  async #withoutFirst(planId: string, message: string): Promise<void> {
    const now = await this.requests.read(planId);
    if (typeof now === 'string' || 'trouble' in now) return void this.store.dispatch(documentActions.held('offline'));
    this.store.dispatch(documentActions.saved({ revision: now.revision, batches: 1 }));
    this.#rebaseOn(now, null);
    this.events.tell(`The server rejected an edit; it was undone: ${message}`);
  }
}

const isHeld = (save: string): boolean => save !== 'saved' && save !== 'saving';
