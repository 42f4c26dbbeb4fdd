import { sayFinding } from '../checks/say';
import type { Plan } from '../plan/plan';
import { planFindingsOf } from '../review/review';
import { notedSheets } from '../sheets/notedSheets';
import type { Sheets } from '../sheets/sheetIndex';

/** The titles of the errors of a plan that nobody has accepted: what is built or compiled from it would not work.
 *  @returns in the order of the findings; empty where there is none */
export function openErrors(plan: Plan, kept: Sheets): readonly string[] {
  const sheets = notedSheets(kept, plan.benchNotes);
  return planFindingsOf(plan, sheets)
    .filter((finding) => finding.level === 'clash' && finding.accepted === undefined)
    .map((finding) => sayFinding(plan, sheets, finding).title);
}

/** Open errors as one line for the head of a file; empty where there is none.
 *  @example openErrorsLine(['GP4 carries 2 signals']) // '1 error is open in this plan: GP4 carries 2 signals.' */
export function openErrorsLine(errors: readonly string[]): string {
  if (errors.length === 0) return '';
  const more = errors.length > 5 ? `; and ${errors.length - 5} more` : '';
  return `${errors.length} ${errors.length === 1 ? 'error is' : 'errors are'} open in this plan: ${errors.slice(0, 5).join('; ')}${more}.`;
}
