import { MantineProvider } from '@mantine/core';
import { Notifications } from '@mantine/notifications';
import { render } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ReactNode } from 'react';
import { Provider } from 'react-redux';
import { MemoryRouter } from 'react-router';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { type Workbench, WorkbenchContext } from '../src/state/workbench';
import { type Reviewer, reviewer } from '../src/workers/review.worker';
import type { ReviewWorkers } from '../src/workers/reviewWorkers';
import { editPlan, redoStep, undoStep } from '../src/state/commands';
import { documentActions } from '../src/state/documentSlice';
import { reviewActions } from '../src/state/reviewSlice';
import { addAppListener, createStore, type Store } from '../src/state/store';

/** The reviewer of the worker, asked in this thread. */
function directWorkers({ boards, parts }: Sheets) {
  reviewer.load([...boards.values(), ...parts.values()].map(({ sheet }) => sheet));
  const ask = <T,>(question: (reviewer: Reviewer) => T): Promise<T> => Promise.resolve(question(reviewer));
  return { ask, search: ask } as unknown as ReviewWorkers;
}

/** Reviews the open plan whenever it changes, at once, until a failure is told. */
function reviewAtOnce(store: Store): void {
  store.dispatch(
    addAppListener({
      predicate: (_, now, before) => now.document.plan !== before.document.plan && now.review.failure === null,
      effect: (_, { dispatch, getState }) => {
        const { plan } = getState().document;
        if (plan) dispatch(reviewActions.reviewed({ plan, result: reviewer.review(plan) }));
      },
    }),
  );
}

export interface Mounted {
  readonly store: Store;
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
  const workers = directWorkers(sheets);
  reviewAtOnce(store);
  store.dispatch(documentActions.opened({ plan, revision: 1 }));
  const bench = {
    sheets,
    workers,
    edit: (edits, label) => store.dispatch(editPlan(sheets, edits, label)).ok,
    undo: () => void store.dispatch(undoStep(sheets)),
    redo: () => void store.dispatch(redoStep(sheets)),
  } satisfies Omit<Workbench, 'saver' | 'requests'> as unknown as Workbench;
  void prepare?.(store);
  render(
    <Provider store={store}>
      <MantineProvider env="test">
        <Notifications />
        <MemoryRouter initialEntries={[path]}>
          <WorkbenchContext.Provider value={bench}>{component}</WorkbenchContext.Provider>
        </MemoryRouter>
      </MantineProvider>
    </Provider>,
  );
  return {
    store,
    user: userEvent.setup(),
    plan: () => store.getState().document.plan!,
    steps: () => store.getState().document.past.map(({ label }) => label),
    undo: bench.undo,
  };
}
