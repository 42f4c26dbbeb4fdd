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

/** One worker with the sheets; it starts when it is first asked. */
class Seat {
  #open:
    { readonly worker: Worker; readonly reviewer: Remote<Reviewer>; readonly ready: Promise<void>; readonly gone: () => void } | undefined;
  /** Fails when the worker is stopped: what was asked of it will never be answered. */
  #stopped: Promise<never> | undefined;

  constructor(private readonly sheets: readonly (BoardSheet | PartSheet)[]) {}

  async ask<T>(question: (reviewer: Remote<Reviewer>) => Promise<T>): Promise<T> {
    if (!this.#open) {
      const worker = new Worker(new URL('./review.worker.ts', import.meta.url), { type: 'module', name: 'review' });
      const reviewer = wrap<Reviewer>(worker);
      let gone: () => void = () => undefined;
      this.#stopped = new Promise<never>((_, reject) => {
        gone = () => reject(new Stopped());
      });
      this.#stopped.catch(() => undefined);
      this.#open = { worker, reviewer, ready: reviewer.load(this.sheets), gone };
    }
    const { ready, reviewer } = this.#open;
    const stopped = this.#stopped!;
    await Promise.race([ready, stopped]);
    return Promise.race([question(reviewer), stopped]);
  }

  stop(): void {
    this.#open?.worker.terminate();
    this.#open?.gone();
    this.#open = undefined;
  }
}

/** Why a question has no answer: its worker was stopped. */
export class Stopped extends Error {
  constructor() {
    super('The search was stopped');
  }
}

/** Reviews of the open plan, made in the worker. Only the latest plan matters: while one review runs,
 *  plans that are overtaken are dropped. */
export class ReviewFeed {
  readonly #seat: Seat;
  readonly #long: Seat;
  readonly #listeners = new Set<() => void>();
  #current: Reviewed | null = null;
  #wanted: Plan | null = null;
  #running = false;

  constructor(sheets: readonly (BoardSheet | PartSheet)[]) {
    this.#seat = new Seat(sheets);
    this.#long = new Seat(sheets);
  }

  /** Asks the reviewer, once its sheets are loaded. */
  ask<T>(question: (reviewer: Remote<Reviewer>) => Promise<T>): Promise<T> {
    return this.#seat.ask(question);
  }

  /** Asks for something that may take long and can be stopped; reviews go on meanwhile.
   *  @throws Stopped when it was */
  search<T>(question: (reviewer: Remote<Reviewer>) => Promise<T>): Promise<T> {
    return this.#long.ask(question);
  }

  /** Stops every search. */
  stopSearch(): void {
    this.#long.stop();
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
    this.#seat.stop();
    this.#long.stop();
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
    } catch (error) {
      if (!(error instanceof Stopped)) throw error;
    } finally {
      this.#running = false;
    }
  }
}
