import { expose } from 'comlink';
import type { Plan } from '@roof-chart/core/plan/plan';
import { additionOf } from '@roof-chart/core/review/addition';
import { fixSafe } from '@roof-chart/core/review/fixSafe';
import { previewEdits } from '@roof-chart/core/review/previewEdits';
import { reviewPlan } from '@roof-chart/core/review/review';
import type { Edit } from '@roof-chart/core/plan/edit';
import type { BoardSheet } from '@roof-chart/core/sheets/boardSheet';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import { indexSheets, type Sheets } from '@roof-chart/core/sheets/sheetIndex';

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
  fixSafe: (plan: Plan) => fixSafe(plan, sheets),
  preview: (plan: Plan, edits: readonly Edit[]) => previewEdits(plan, edits, sheets),
};

export type Reviewer = typeof reviewer;

expose(reviewer);
