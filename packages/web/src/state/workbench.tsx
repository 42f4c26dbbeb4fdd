import { createContext, type ReactNode, useContext, useEffect, useMemo, useSyncExternalStore } from 'react';
import type { Edit } from '@roof-chart/core/plan/edit';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { BenchNotes } from '@roof-chart/core/sheets/benchNote';
import { notedSheets } from '@roof-chart/core/sheets/notedSheets';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import type { Reviewed, ReviewFeed } from '../workers/reviewFeed';
import type { PlanRequests } from './planRequests';
import type { Saver } from './saver';
import { useAppSelector } from './store';

/** Tools that every view of a plan uses, around the sheets of this session. */
export interface Workbench {
  readonly sheets: Sheets;
  readonly feed: ReviewFeed;
  readonly saver: Saver;
  readonly requests: PlanRequests;
  /** Applies edits as one undoable step; reports why if they cannot be applied.
   *  @param label of what has a name of its own, such as "assign pins"; all else is named by what differs afterwards */
  edit(edits: readonly Edit[], label?: string): boolean;
  undo(): void;
  redo(): void;
}

/** Held by `WorkbenchProvider`; tests of components put their own workbench there. */
export const WorkbenchContext = createContext<Workbench | null>(null);

export function useWorkbench(): Workbench {
  const bench = useContext(WorkbenchContext);
  if (!bench) throw new Error('useWorkbench outside of its provider');
  return bench;
}

/** The workbench inside of a plan: its sheets are those with the plan's bench notes. */
export function PlanSheets({ notes, children }: { readonly notes: BenchNotes; readonly children: ReactNode }) {
  const bench = useWorkbench();
  const sheets = notedSheets(bench.sheets, notes);
  const own = useMemo(() => (sheets === bench.sheets ? bench : { ...bench, sheets }), [bench, sheets]);
  return <WorkbenchContext.Provider value={own}>{children}</WorkbenchContext.Provider>;
}

/** Requests a review of the open plan whenever it changes. Used once, by the frame. */
export function useReviewing(plan: Plan | null): void {
  const { feed } = useWorkbench();
  useEffect(() => {
    if (plan) feed.want(plan);
  }, [feed, plan]);
}

/** The newest review of the open plan, or null until the first is there. It may be of the plan a moment ago. */
export function useReviewed(): Reviewed | null {
  const { feed } = useWorkbench();
  const id = useAppSelector((state) => state.document.plan?.id);
  const reviewed = useSyncExternalStore(feed.subscribe, feed.current);
  return reviewed && reviewed.plan.id === id ? reviewed : null;
}

/** Why the open plan is not checked; null where it is, or will be soon. */
export function useReviewFailure(): string | null {
  const { feed } = useWorkbench();
  return useSyncExternalStore(feed.subscribe, feed.failure);
}
