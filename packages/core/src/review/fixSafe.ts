import type { Sheets } from '../sheets/sheetIndex';
import type { Finding, Remedy } from '../checks/engine/check';
import { applyEdits } from '../plan/applyEdits';
import type { Edit } from '../plan/edit';
import type { Plan } from '../plan/plan';
import { reviewPlan } from './review';

export interface SafeFix {
  readonly plan: Plan;
  readonly edits: readonly Edit[];
  readonly fixed: readonly { readonly finding: Finding; readonly remedy: Remedy }[];
  /** `done`: no safe remedy is left. `loop`: remedies undo each other. `ceiling`: more than `most` would be needed. */
  readonly end: 'done' | 'loop' | 'ceiling';
}

/** The first safe remedy of the first finding that has one. Accepted findings are left as they are. */
function nextSafe(plan: Plan, sheets: Sheets): { finding: Finding; remedy: Remedy } | undefined {
  const result = reviewPlan(plan, sheets);
  const findings = result.ok ? result.review.findings : [];
  for (const finding of findings) {
    const remedy = finding.accepted === undefined ? finding.remedies.find((r) => r.grade === 'safe') : undefined;
    if (remedy) return { finding, remedy };
  }
  return undefined;
}

/** Applies safe fixes one after another, reviewing after each, until none is left.
 *  @param most maximum number of fixes
 *  @returns the applied fixes; on `loop` and `ceiling` those up to that point, each safe on its own */
export function fixSafe(plan: Plan, sheets: Sheets, most = 200): SafeFix {
  const seen = new Set([JSON.stringify(plan)]);
  const fixed: SafeFix['fixed'][number][] = [];
  let edits: readonly Edit[] = [];
  let now = plan;
  for (let step = nextSafe(now, sheets); step; step = nextSafe(now, sheets)) {
    if (fixed.length >= most) return { plan: now, edits, fixed, end: 'ceiling' };
    const result = applyEdits(now, step.remedy.edits, sheets);
    if (!result.ok) throw new Error(`${step.finding.id}: its fix does not apply: ${result.problem.path}`);
    const key = JSON.stringify(result.plan);
    if (seen.has(key)) return { plan: now, edits, fixed, end: 'loop' };
    seen.add(key);
    now = result.plan;
    edits = [...edits, ...step.remedy.edits];
    fixed.push(step);
  }
  return { plan: now, edits, fixed, end: 'done' };
}
