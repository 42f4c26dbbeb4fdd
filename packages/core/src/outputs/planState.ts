import { isAboutFacts } from '../checks/engine/check';
import type { Plan } from '../plan/plan';
import { reviewPlan } from '../review/review';
import type { Sheets } from '../sheets/sheetIndex';
import { type BuildProgress, buildProgress } from './buildProgress';

/** How far a plan is, in numbers. */
export interface PlanState extends BuildProgress {
  /** Open findings, accepted ones and those about unverified sheets left out. */
  readonly errors: number;
  readonly warnings: number;
}

/** Undefined for a plan that cannot be reviewed because a sheet is missing. */
export function planState(plan: Plan, sheets: Sheets): PlanState | undefined {
  const reviewed = reviewPlan(plan, sheets);
  if (!reviewed.ok) return undefined;
  const open = reviewed.review.findings.filter((finding) => finding.accepted === undefined && !isAboutFacts(finding));
  return {
    ...buildProgress(plan, sheets),
    errors: open.filter(({ level }) => level === 'clash').length,
    warnings: open.filter(({ level }) => level === 'risk').length,
  };
}
