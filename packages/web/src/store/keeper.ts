import type { DocumentState } from './documentSlice';
import { type LocalCopy, writeLocal } from './localCopy';
import type { Store } from './store';

const copyOf = ({ plan, revision, waiting, past, future }: DocumentState): LocalCopy | null =>
  plan && { version: 1, plan, revision, waiting, past, future };

const kept = (a: DocumentState, b: DocumentState): boolean =>
  a.plan === b.plan && a.revision === b.revision && a.waiting === b.waiting && a.past === b.past && a.future === b.future;

/** Keeps the browser's copy of the open plan up to date: every change is written, the newest last;
 *  changes that come while one is being written are written together after it. */
export class Keeper {
  #seen: DocumentState;
  #running = false;
  #writing: Promise<void> = Promise.resolve();
  #told = false;

  constructor(
    private readonly store: Store,
    private readonly tell: (message: string) => void,
    private readonly write: (copy: LocalCopy) => Promise<void> = writeLocal,
  ) {
    this.#seen = store.getState().document;
  }

  /** @returns stops keeping */
  watch(): () => void {
    return this.store.subscribe(() => {
      if (!this.#running) this.#writing = this.#run();
    });
  }

  /** Resolves when everything up to now is written. */
  async settled(): Promise<void> {
    await this.#writing;
  }

  async #run(): Promise<void> {
    this.#running = true;
    // Between the last look at the store and this flag's end nothing else can run: no change falls between.
    for (let now = this.store.getState().document; !kept(now, this.#seen); now = this.store.getState().document) {
      this.#seen = now;
      const copy = copyOf(now);
      if (copy) await this.write(copy).catch(() => this.#full());
    }
    this.#running = false;
  }

  #full(): void {
    if (this.#told) return;
    this.#told = true;
    this.tell(
      'The browser’s storage is full or closed to this page. Your edits are safe as soon as the header says “Saved”; until then keep this tab open.',
    );
  }
}
