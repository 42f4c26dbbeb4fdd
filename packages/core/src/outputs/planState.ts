import { isAboutFacts } from '../checks/engine/check';
import { type Plan, sameEnd } from '../plan/plan';
import { reviewPlan } from '../review/review';
import type { Sheets } from '../sheets/sheetIndex';

/** How far a plan is, in numbers. */
export interface PlanState {
  /** Wires of the plan, and those done on the bench. */
  readonly wires: number;
  readonly ticked: number;
  /** Open findings, accepted ones and those about unverified sheets left out. */
  readonly errors: number;
  readonly warnings: number;
}

/** Undefined for a plan that cannot be reviewed because a sheet is missing. */
export function planState(plan: Plan, sheets: Sheets): PlanState | undefined {
  const reviewed = reviewPlan(plan, sheets);
  if (!reviewed.ok) return undefined;
  const soldered = plan.placements.filter(({ onBoard }) => onBoard).map(({ id }) => `${id}:`);
  const wires = Object.entries(plan.wires).filter(([key]) => !soldered.some((id) => key.startsWith(id)));
  const open = reviewed.review.findings.filter((finding) => finding.accepted === undefined && !isAboutFacts(finding));
  return {
    wires: wires.length,
    ticked: wires.filter(([key, { end }]) => sameEnd(plan.ticks[key], end)).length,
    errors: open.filter(({ level }) => level === 'clash').length,
    warnings: open.filter(({ level }) => level === 'risk').length,
  };
}
