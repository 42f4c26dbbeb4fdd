import { MantineProvider } from '@mantine/core';
import { Notifications } from '@mantine/notifications';
import { render } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ReactNode } from 'react';
import { Provider } from 'react-redux';
import { MemoryRouter } from 'react-router';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { useReviewing, type Workbench, WorkbenchContext } from '../src/state/workbench';
import { type Reviewer, reviewer } from '../src/workers/review.worker';
import type { Reviewed, ReviewFeed } from '../src/workers/reviewFeed';
import { doEdits, redo, undo } from '../src/state/commands';
import { documentActions } from '../src/state/documentSlice';
import { createStore, type Store, useAppSelector } from '../src/state/store';

/** The reviewer of the worker, asked at once and in this thread. */
class DirectFeed {
  #current: Reviewed | null = null;
  #failure: string | null = null;
  readonly #listeners = new Set<() => void>();
  constructor({ boards, parts }: Sheets) {
    reviewer.load([...boards.values(), ...parts.values()].map(({ sheet }) => sheet));
  }

  readonly current = () => this.#current;
  readonly failure = () => this.#failure;
  readonly subscribe = (listener: () => void) => {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  };
  want(plan: Plan): void {
    if (this.#failure !== null) return;
    this.#current = { plan, result: reviewer.review(plan) };
    this.#tell();
  }
  /** As a worker that died would leave it. */
  fail(reason: string | null): void {
    [this.#current, this.#failure] = [null, reason];
    this.#tell();
  }
  retries = 0;
  retry(): void {
    this.retries += 1;
  }
  ask<T>(question: (reviewer: Reviewer) => T): Promise<T> {
    return Promise.resolve(question(reviewer));
  }
  search<T>(question: (reviewer: Reviewer) => T): Promise<T> {
    return this.ask(question);
  }
  #tell(): void {
    for (const listener of this.#listeners) listener();
  }
}

function Reviewing({ children }: { readonly children: ReactNode }) {
  useReviewing(useAppSelector((state) => state.document.plan));
  return children;
}

export interface Mounted {
  readonly store: Store;
  readonly feed: DirectFeed;
  readonly user: ReturnType<typeof userEvent.setup>;
  /** The plan as it is now. */
  plan(): Plan;
  /** What was done, by its label, the latest last. */
  steps(): readonly string[];
  undo(): void;
}

/** Draws a component in an open plan, with a store and a workbench of its own: edits are applied, and the plan is reviewed at once.
 *  @param prepare puts answers of the server into the store */
export function mount(
  component: ReactNode,
  plan: Plan,
  sheets: Sheets,
  { path = '/', prepare }: { readonly path?: string; readonly prepare?: (store: Store) => Promise<unknown> } = {},
): Mounted {
  const store = createStore();
  const feed = new DirectFeed(sheets);
  store.dispatch(documentActions.opened({ plan, revision: 1 }));
  const bench = {
    sheets,
    feed: feed as unknown as ReviewFeed,
    edit: (edits, label) => doEdits(store, sheets, edits, label).ok,
    undo: () => void undo(store, sheets),
    redo: () => void redo(store, sheets),
  } satisfies Omit<Workbench, 'saver' | 'requests'> as unknown as Workbench;
  void prepare?.(store);
  render(
    <Provider store={store}>
      <MantineProvider env="test">
        <Notifications />
        <MemoryRouter initialEntries={[path]}>
          <WorkbenchContext.Provider value={bench}>
            <Reviewing>{component}</Reviewing>
          </WorkbenchContext.Provider>
        </MemoryRouter>
      </MantineProvider>
    </Provider>,
  );
  return {
    store,
    feed,
    user: userEvent.setup(),
    plan: () => store.getState().document.plan!,
    steps: () => store.getState().document.past.map(({ label }) => label),
    undo: bench.undo,
  };
}
