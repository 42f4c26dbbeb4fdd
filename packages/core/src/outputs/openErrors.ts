import type { Finding } from '../checks/engine/check';
import { describeFinding } from '../text/describe';
import type { Plan } from '../plan/plan';
import { planFindingsOf } from '../review/review';
import { notedSheets } from '../sheets/notedSheets';
import type { Sheets } from '../sheets/sheetIndex';

/** The titles of the errors that are not accepted: the plan would not work as built or compiled. */
export const errorTitles = (plan: Plan, sheets: Sheets, findings: readonly Finding[]): readonly string[] =>
  findings
    .filter((finding) => finding.level === 'clash' && finding.accepted === undefined)
    .map((finding) => describeFinding(plan, sheets, finding).title);

/** The titles of the open errors of a plan, reviewing it first. */
export function openErrors(plan: Plan, kept: Sheets): readonly string[] {
  const sheets = notedSheets(kept, plan.benchNotes);
  return errorTitles(plan, sheets, planFindingsOf(plan, sheets));
}

/** Open errors as one line for the head of a file; empty where there is none.
 *  @example openErrorsLine(['GP4 carries 2 signals']) // '1 error is open in this plan: GP4 carries 2 signals.' */
export function openErrorsLine(errors: readonly string[]): string {
  if (errors.length === 0) return '';
  const more = errors.length > 5 ? `; and ${errors.length - 5} more` : '';
  return `${errors.length} open ${errors.length === 1 ? 'error' : 'errors'} in this plan: ${errors.slice(0, 5).join('; ')}${more}.`;
}
