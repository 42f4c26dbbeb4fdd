import type { Batch, DocumentState } from './documentSlice';
import { writeGround, writeSteps } from './localCopy';
import { addAppListener, type Store } from './store';
import { forgetBatches, keepBatches } from './waitingBatches';

/** Where the keeper writes. */
export interface LocalStorage {
  keepBatches(planId: string, batches: readonly Batch[]): Promise<void>;
  forgetBatches(planId: string, ids: readonly string[]): Promise<void>;
  writeGround: typeof writeGround;
  writeSteps(planId: string, steps: Pick<DocumentState, 'past' | 'future'>): Promise<void>;
}

/** The browser's storage, for this tab. */
export const browserStorage = (tab: () => Promise<string>): LocalStorage => ({
  keepBatches: async (planId, batches) => keepBatches(planId, await tab(), batches),
  forgetBatches,
  writeGround,
  writeSteps: async (planId, steps) => writeSteps(planId, await tab(), steps),
});

const isKept = (a: DocumentState, b: DocumentState): boolean =>
  a.plan === b.plan &&
  a.ground === b.ground &&
  a.revision === b.revision &&
  a.epoch === b.epoch &&
  a.waiting === b.waiting &&
  a.past === b.past &&
  a.future === b.future;

/** Keeps the browser's copy of the open plan up to date: waiting batches first, each as a record of its own, then what the
 *  server gave, then undo. Changes that come while one is being written are written together after it. */
export class LocalPersistence {
  #seen: DocumentState;
  #running = false;
  #writing: Promise<void> = Promise.resolve();
  #hasWarned = false;

  constructor(
    private readonly store: Store,
    private readonly tell: (message: string) => void,
    private readonly storage: LocalStorage,
  ) {
    this.#seen = store.getState().document;
  }

  /** Keeps every change of the open document. @returns stops keeping */
  watch(): () => void {
    return this.store.dispatch(
      addAppListener({
        predicate: (_, now, before) => !isKept(now.document, before.document),
        effect: () => {
          if (!this.#running) this.#writing = this.#run();
        },
      }),
    );
  }

  /** Resolves when everything up to now is written. */
  async settled(): Promise<void> {
    await this.#writing;
  }

  async #run(): Promise<void> {
    this.#running = true;
    // Between the last look at the store and this flag's end nothing else can run: no change falls between.
    for (let now = this.store.getState().document; !isKept(now, this.#seen); now = this.store.getState().document) {
      const before = this.#seen;
      this.#seen = now;
      await this.#keep(before, now).catch(() => this.#full());
    }
    this.#running = false;
  }

  async #keep(before: DocumentState, now: DocumentState): Promise<void> {
    const { plan, ground, revision, epoch, waiting, past, future } = now;
    if (!plan) return;
    const isSame = before.plan?.id === plan.id;
    // The batches of a plan that was closed stay: they are sent when it is opened again, or in the background.
    const known = new Set(isSame ? before.waiting.map((batch) => batch.id) : []);
    const here = new Set(waiting.map((batch) => batch.id));
    const fresh = waiting.filter((batch) => !known.has(batch.id));
    const gone = [...known].filter((id) => !here.has(id));
    if (fresh.length > 0) await this.storage.keepBatches(plan.id, fresh);
    const isGroundNew = !isSame || before.ground !== ground || before.revision !== revision || before.epoch !== epoch;
    if (ground && isGroundNew) await this.storage.writeGround({ version: 2, plan: ground, revision, epoch });
    // Only after the ground that has them in: cut off between, they are still known to be unsent.
    if (gone.length > 0) await this.storage.forgetBatches(plan.id, gone);
    if (!isSame || before.past !== past || before.future !== future) await this.storage.writeSteps(plan.id, { past, future });
  }

  #full(): void {
    if (this.#hasWarned) return;
    this.#hasWarned = true;
    this.tell('Browser storage is full or blocked. Keep this tab open until the header shows “Saved”.');
  }
}
