import type { Remote } from 'comlink';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { ReviewResult } from '@roof-chart/core/review/review';
import type { BoardSheet } from '@roof-chart/core/sheets/boardSheet';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import { afterPaint } from './afterPaint';
import type { Reviewer } from './review.worker';
import { Stopped, type WorkerLike, WorkerSeat } from './workerSeat';

/** The newest review, with the very plan it is of: texts must be made from that plan, not from a later one. */
export interface Reviewed {
  readonly plan: Plan;
  readonly result: ReviewResult;
}

/** Timeout of a stuck worker: reviews take milliseconds and searches have their own limits. */
const REVIEW_LIMIT_MS = 20_000;
const SEARCH_LIMIT_MS = 120_000;
const READ_LIMIT_MS = 30_000;

/** Reviews of the open plan, made in the worker. Only the latest plan matters: while one review runs,
 *  plans that are overtaken are dropped. */
export class ReviewFeed {
  readonly #seat: WorkerSeat;
  readonly #long: WorkerSeat;
  readonly #reader: WorkerSeat;
  readonly #listeners = new Set<() => void>();
  #current: Reviewed | null = null;
  #wanted: Plan | null = null;
  #running = false;
  #failure: string | null = null;

  /** @param makeWorker puts another worker in the place, for tests */
  constructor(sheets: readonly (BoardSheet | PartSheet)[], makeWorker?: () => WorkerLike) {
    const more = makeWorker ? { makeWorker } : {};
    this.#seat = new WorkerSeat({ sheets, limitMs: REVIEW_LIMIT_MS, ...more });
    this.#long = new WorkerSeat({ sheets, limitMs: SEARCH_LIMIT_MS, ...more });
    this.#reader = new WorkerSeat({ sheets, limitMs: READ_LIMIT_MS, ...more });
  }

  /** Calls the reviewer once its sheets are loaded. */
  ask<T>(question: (reviewer: Remote<Reviewer>) => Promise<T>): Promise<T> {
    return this.#seat.ask(question);
  }

  /** Runs a long, stoppable task in parallel with reviews.
   *  @throws Stopped when it was */
  search<T>(question: (reviewer: Remote<Reviewer>) => Promise<T>): Promise<T> {
    return this.#long.ask(question);
  }

  /** Stops every search. */
  stopSearch(): void {
    this.#long.stop();
  }

  /** Reads a pasted text in parallel with reviews and searches.
   *  @throws Stopped when it was stopped */
  read<T>(question: (reviewer: Remote<Reviewer>) => Promise<T>): Promise<T> {
    return this.#reader.ask(question);
  }

  /** Stops reading. */
  stopReading(): void {
    this.#reader.stop();
  }

  readonly current = (): Reviewed | null => this.#current;

  /** Why the current plan has no review; null if it has one or will have one soon. */
  readonly failure = (): string | null => this.#failure;

  readonly subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  };

  /** Requests the review of a plan; listeners are notified when it is ready. */
  want(plan: Plan): void {
    if (this.#wanted === plan) return;
    this.#wanted = plan;
    void this.#run();
  }

  /** Repeats a failed review. */
  retry(): void {
    this.#tell(this.#current, null);
    void this.#run();
  }

  close(): void {
    this.#seat.stop();
    this.#long.stop();
    this.#reader.stop();
  }

  #tell(current: Reviewed | null, failure: string | null): void {
    this.#current = current;
    this.#failure = failure;
    for (const listener of this.#listeners) listener();
  }

  async #run(): Promise<void> {
    if (this.#running) return;
    this.#running = true;
    try {
      while (this.#wanted && this.#wanted !== this.#current?.plan) {
        const plan = this.#wanted;
        const result = await this.ask<ReviewResult>((reviewer) => reviewer.review(plan));
        await afterPaint();
        this.#tell({ plan, result }, null);
      }
    } catch (error) {
      // The review of an earlier plan must not pass for that of this one.
      if (!(error instanceof Stopped)) this.#tell(null, error instanceof Error ? error.message : String(error));
    } finally {
      this.#running = false;
    }
  }
}
