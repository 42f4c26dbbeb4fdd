import type { Remote } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import type { Reviewer } from '../workers/review.worker';
import { Stopped } from '../workers/restartableWorker';
import { useWorkbench } from '../state/workbench';

/** A pasted text, as it was understood. */
export interface Reading<T> {
  /** The newest result; undefined before the first. It may be of the text a moment ago. */
  readonly value: T | undefined;
  /** Whether `value` is of the text as it is now. */
  readonly isCurrent: boolean;
  /** Why the text was not read; null where it was, or will be. */
  readonly failure: string | null;
  /** Whether it takes long enough to offer a stop button. */
  readonly isSlow: boolean;
  stop(): void;
}

const SLOW_MS = 300;

interface State<T> {
  readonly of: unknown;
  readonly value: T | undefined;
  readonly failure: string | null;
}

/** Reads a text in the worker, anew whenever it changes; of texts that follow quickly only the last is read.
 *  @param subject what is read: a new value is read anew
 *  @param ask the question to the worker about it */
export function useReading<T>(subject: unknown, ask: (reviewer: Remote<Reviewer>) => Promise<T>): Reading<T> {
  const { workers } = useWorkbench();
  const [state, setState] = useState<State<T>>({ of: undefined, value: undefined, failure: null });
  const [slow, setSlow] = useState<unknown>();
  const question = useRef(ask);
  useEffect(() => {
    question.current = ask;
  });
  useEffect(() => {
    let isWanted = true;
    const timer = setTimeout(() => setSlow(subject), SLOW_MS);
    const finish = (next: (before: State<T>) => State<T>) => {
      clearTimeout(timer);
      if (isWanted) setState(next);
    };
    // Debounced: while typing, only the last text is read.
    const start = setTimeout(() => {
      workers
        .read<T>((reviewer) => question.current(reviewer))
        .then(
          (value) => finish(() => ({ of: subject, value, failure: null })),
          (error: unknown) => {
            const failure = error instanceof Stopped ? 'Stopped. Change the text to start again.' : (error as Error).message;
            finish((before) => ({ ...before, of: subject, failure }));
          },
        );
    });
    return () => {
      isWanted = false;
      clearTimeout(timer);
      clearTimeout(start);
    };
  }, [workers, subject]);
  const isCurrent = state.of === subject;
  return {
    value: state.value,
    isCurrent,
    failure: isCurrent ? state.failure : null,
    isSlow: !isCurrent && slow === subject,
    stop: () => workers.stopReading(),
  };
}
