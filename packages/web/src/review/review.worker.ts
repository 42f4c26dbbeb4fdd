import { expose } from 'comlink';
import { type Conflict, conflictOf } from '@roof-chart/core/allocate/explain';
import { settle, type Settlement } from '@roof-chart/core/allocate/settle';
import type { Finding } from '@roof-chart/core/checks/check';
import { notedSheets } from '@roof-chart/core/sheets/notedSheets';
import type { Plan } from '@roof-chart/core/plan/plan';
import { additionOf } from '@roof-chart/core/review/addition';
import { type BoardFit, boardFit } from '@roof-chart/core/review/boardFit';
import { fixSafe } from '@roof-chart/core/review/fixSafe';
import { previewEdits } from '@roof-chart/core/review/previewEdits';
import { reviewPlan } from '@roof-chart/core/review/review';
import type { Edit } from '@roof-chart/core/plan/edit';
import type { BoardSheet } from '@roof-chart/core/sheets/boardSheet';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import { indexSheets, type Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { type PartFit, partFitOf } from '../views/fits/partFit';

let sheets: Sheets = indexSheets([]);

/** The reviewer: holds the sheets, answers for one plan at a time. */
export const reviewer = {
  load(list: readonly (BoardSheet | PartSheet)[]): void {
    sheets = indexSheets(list);
  },
  review: (plan: Plan) => reviewPlan(plan, sheets),
  /** What adding each of these parts would do, in their order; unknown ids are left out. */
  additions: (plan: Plan, parts: readonly string[]) =>
    parts.flatMap((id) => {
      const part = sheets.parts.get(id);
      return (part && additionOf(plan, sheets, part.sheet)) ?? [];
    }),
  /** The plan settled within so many milliseconds, with what stands in the way where something stays open. */
  settle: (plan: Plan, milliseconds: number): Settled | undefined => {
    const noted = notedSheets(sheets, plan.benchNotes);
    const end = performance.now() + milliseconds;
    const stop = () => performance.now() >= end;
    const result = settle(plan, noted, { stop });
    if (!result) return undefined;
    const conflict =
      result.costs.unwired > 0 ? conflictOf(result.instance, { stop: () => performance.now() >= end + milliseconds }) : undefined;
    const preview = previewEdits(plan, result.edits, sheets);
    const { edits, plan: after, costs, bound, proved, open } = result;
    return {
      edits,
      plan: after,
      costs,
      bound,
      proved,
      open,
      conflict,
      added: preview.ok ? preview.preview.added : [],
      gone: preview.ok ? preview.preview.gone : [],
    };
  },
  /** How the plan's parts fit on one board. */
  boardFit: (plan: Plan, board: string): BoardFit | undefined => boardFit(plan, sheets, board, { nodes: BOARD_NODES }),
  /** In short what adding each of these parts would do. */
  sweep: (plan: Plan, parts: readonly string[]): readonly PartFit[] =>
    parts.flatMap((id) => {
      const part = sheets.parts.get(id);
      const addition = part && additionOf(plan, sheets, part.sheet);
      return addition ? partFitOf(addition, sheets) : [];
    }),
  fixSafe: (plan: Plan) => fixSafe(plan, sheets),
  preview: (plan: Plan, edits: readonly Edit[]) => previewEdits(plan, edits, sheets),
};

/** Nodes after which a board's best found is shown. */
const BOARD_NODES = 3000;

/** What settling a plan would do. */
export interface Settled extends Omit<Settlement, 'instance' | 'nodes'> {
  readonly conflict: Conflict | undefined;
  readonly added: readonly Finding[];
  readonly gone: readonly Finding[];
}

export type Reviewer = typeof reviewer;

expose(reviewer);
