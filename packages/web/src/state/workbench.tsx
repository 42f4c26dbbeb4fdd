import { createContext, type ReactNode, useContext, useMemo } from 'react';
import type { Edit } from '@roof-chart/core/plan/edit';
import type { BenchNotes } from '@roof-chart/core/sheets/benchNote';
import { notedSheets } from '@roof-chart/core/sheets/notedSheets';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import type { ReviewWorkers } from '../workers/reviewWorkers';
import type { PlanRequests } from './planRequests';
import type { Saver } from './saver';

/** Tools that every view of a plan uses, around the sheets of this session. */
export interface Workbench {
  readonly sheets: Sheets;
  readonly workers: ReviewWorkers;
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
