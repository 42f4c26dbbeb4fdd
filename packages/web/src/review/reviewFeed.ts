import { type Remote, wrap } from 'comlink';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { ReviewResult } from '@roof-chart/core/review/review';
import type { BoardSheet } from '@roof-chart/core/sheets/boardSheet';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import { afterPaint } from '../store/afterPaint';
import type { Reviewer } from './review.worker';

/** The newest review, with the very plan it is of: texts must be made from that plan, not from a later one. */
export interface Reviewed {
  readonly plan: Plan;
  readonly result: ReviewResult;
}

/** Reviews of the open plan, made in the worker. Only the latest plan matters: while one review runs,
 *  plans that are overtaken are dropped. */
export class ReviewFeed {
  #open: { readonly worker: Worker; readonly reviewer: Remote<Reviewer>; readonly ready: Promise<void> } | undefined;
  readonly #listeners = new Set<() => void>();
  #current: Reviewed | null = null;
  #wanted: Plan | null = null;
  #running = false;

  constructor(private readonly sheets: readonly (BoardSheet | PartSheet)[]) {}

  /** Asks the reviewer, once its sheets are loaded; the worker starts when it is first asked. */
  async ask<T>(question: (reviewer: Remote<Reviewer>) => Promise<T>): Promise<T> {
    if (!this.#open) {
      const worker = new Worker(new URL('./review.worker.ts', import.meta.url), { type: 'module', name: 'review' });
      const reviewer = wrap<Reviewer>(worker);
      this.#open = { worker, reviewer, ready: reviewer.load(this.sheets) };
    }
    const { ready, reviewer } = this.#open;
    await ready;
    return question(reviewer);
  }

  readonly current = (): Reviewed | null => this.#current;

  readonly subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  };

  /** Asks for the review of a plan; listeners hear when it is there. */
  want(plan: Plan): void {
    if (this.#wanted === plan) return;
    this.#wanted = plan;
    void this.#run();
  }

  close(): void {
    this.#open?.worker.terminate();
    this.#open = undefined;
  }

  async #run(): Promise<void> {
    if (this.#running) return;
    this.#running = true;
    try {
      while (this.#wanted && this.#wanted !== this.#current?.plan) {
        const plan = this.#wanted;
        const result = await this.ask<ReviewResult>((reviewer) => reviewer.review(plan));
        await afterPaint();
        this.#current = { plan, result };
        for (const listener of this.#listeners) listener();
      }
    } finally {
      this.#running = false;
    }
  }
}
