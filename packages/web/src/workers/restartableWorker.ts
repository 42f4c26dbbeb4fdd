import { type Remote, wrap } from 'comlink';
import type { BoardSheet } from '@roof-chart/core/sheets/boardSheet';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import type { Reviewer } from './review.worker';

/** Why a question has no answer: its worker was stopped. */
export class Stopped extends Error {
  constructor() {
    super('The search was stopped');
  }
}

/** Why a question has no answer: its worker died or did not answer in time, twice. */
export class WorkerFailed extends Error {}

/** The part of a worker that is needed here; a test puts its own in the place. */
export type WorkerLike = Worker;

export interface RestartableWorkerOptions {
  readonly sheets: readonly (BoardSheet | PartSheet)[];
  /** How long a question may take before its worker counts as stuck, in milliseconds. */
  readonly limitMs: number;
  readonly makeWorker?: () => WorkerLike;
}

interface OpenWorker {
  readonly worker: WorkerLike;
  readonly reviewer: Remote<Reviewer>;
  readonly ready: Promise<void>;
  /** Rejects when the worker is stopped, crashes or is stuck. */
  readonly ended: Promise<never>;
  readonly end: (reason: Error) => void;
}

const newWorker = (): WorkerLike => new Worker(new URL('./review.worker.ts', import.meta.url), { type: 'module', name: 'review' });

/** One worker with the sheets, started on first use; a crashed or stuck worker is replaced once per request. */
export class RestartableWorker {
  #open: OpenWorker | undefined;

  constructor(private readonly options: RestartableWorkerOptions) {}

  /** @throws Stopped when the worker was stopped; WorkerFailed when it failed twice; what the question threw */
  async ask<T>(question: (reviewer: Remote<Reviewer>) => Promise<T>): Promise<T> {
    try {
      return await this.#once(question);
    } catch (error) {
      if (!(error instanceof WorkerFailed)) throw error;
      return this.#once(question);
    }
  }

  stop(): void {
    this.#close(new Stopped());
  }

  async #once<T>(question: (reviewer: Remote<Reviewer>) => Promise<T>): Promise<T> {
    const open = (this.#open ??= this.#start());
    const timer = setTimeout(() => {
      if (this.#open === open) this.#close(new WorkerFailed('The checks did not finish in time.'));
    }, this.options.limitMs);
    try {
      await Promise.race([open.ready, open.ended]);
      return await Promise.race([question(open.reviewer), open.ended]);
    } finally {
      clearTimeout(timer);
    }
  }

  #start(): OpenWorker {
    const worker = (this.options.makeWorker ?? newWorker)();
    const reviewer = wrap<Reviewer>(worker);
    let end: (reason: Error) => void = () => undefined;
    const ended = new Promise<never>((_, reject) => {
      end = reject;
    });
    ended.catch(() => undefined);
    const open: OpenWorker = { worker, reviewer, ready: reviewer.load(this.options.sheets), ended, end };
    const died = () => {
      if (this.#open === open) this.#close(new WorkerFailed('The checks stopped unexpectedly.'));
    };
    worker.addEventListener('error', died);
    worker.addEventListener('messageerror', died);
    return open;
  }

  #close(reason: Error): void {
    this.#open?.worker.terminate();
    this.#open?.end(reason);
    this.#open = undefined;
  }
}
