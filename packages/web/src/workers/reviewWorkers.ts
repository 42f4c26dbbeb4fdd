import type { Remote } from 'comlink';
import type { BoardSheet } from '@roof-chart/core/sheets/boardSheet';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import type { Reviewer } from './review.worker';
import { type WorkerLike, RestartableWorker } from './restartableWorker';

/** Timeout of a stuck worker: reviews take milliseconds and searches have their own limits. */
const REVIEW_LIMIT_MS = 20_000;
const SEARCH_LIMIT_MS = 120_000;
const READ_LIMIT_MS = 30_000;

/** The workers of this tab, each with the sheets: one for reviews and short questions, one for searches that can be stopped, one that reads
 *  pasted texts. Each is started on first use. */
export class ReviewWorkers {
  readonly #review: RestartableWorker;
  readonly #search: RestartableWorker;
  readonly #reader: RestartableWorker;

  /** @param makeWorker puts another worker in the place, for tests */
  constructor(sheets: readonly (BoardSheet | PartSheet)[], makeWorker?: () => WorkerLike) {
    const more = makeWorker ? { makeWorker } : {};
    this.#review = new RestartableWorker({ sheets, limitMs: REVIEW_LIMIT_MS, ...more });
    this.#search = new RestartableWorker({ sheets, limitMs: SEARCH_LIMIT_MS, ...more });
    this.#reader = new RestartableWorker({ sheets, limitMs: READ_LIMIT_MS, ...more });
  }

  /** Calls the reviewer once its sheets are loaded. */
  ask<T>(question: (reviewer: Remote<Reviewer>) => Promise<T>): Promise<T> {
    return this.#review.ask(question);
  }

  /** Runs a long, stoppable task in parallel with reviews.
   *  @throws Stopped when it was */
  search<T>(question: (reviewer: Remote<Reviewer>) => Promise<T>): Promise<T> {
    return this.#search.ask(question);
  }

  /** Stops every search. */
  stopSearch(): void {
    this.#search.stop();
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

  close(): void {
    this.#review.stop();
    this.#search.stop();
    this.#reader.stop();
  }
}
