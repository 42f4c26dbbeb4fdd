import { isAboutFacts, type Finding } from '../src/checks/engine/check';
import { describeFinding, describeFix } from '../src/text/describe';
import type { Edit } from '../src/plan/edit';
import type { Plan } from '../src/plan/plan';
import { policeRemedies } from '../src/review/policeRemedies';
import { previewEdits } from '../src/review/previewEdits';
import { reviewPlan } from '../src/review/review';
import type { Sheets } from '../src/sheets/sheetIndex';
import { edited } from './makePlan';

/** The findings of a plan but those about its sheets, which nearly every plan has; every remedy among them has been shown to keep its word.
 *  @throws Error when a remedy does not apply, changes nothing, or leaves its finding standing */
export const findingsOf = (plan: Plan, sheets: Sheets): readonly Finding[] =>
  allFindingsOf(plan, sheets).filter((finding) => !isAboutFacts(finding));

/** Every finding of a plan.
 *  @throws Error as findingsOf */
export function allFindingsOf(plan: Plan, sheets: Sheets): readonly Finding[] {
  const result = reviewPlan(plan, sheets);
  if (!result.ok) throw new Error(`no review: ${JSON.stringify(result.missing)}`);
  const failed = result.review.findings.find((finding) => finding.code === 'check-failed');
  if (failed) throw new Error(`a check failed: ${JSON.stringify(failed.data)}`);
  const faults = policeRemedies(plan, sheets, result.review.findings);
  if (faults.length > 0) throw new Error(faults.join('\n'));
  return result.review.findings;
}

export interface ExpectedFinding {
  readonly message: string;
  readonly level: Finding['level'];
  readonly title: string;
  readonly remedies: readonly string[];
}

/** Asserts that a check says exactly this about a plan, in order. */
export function expectCheck(code: string, plan: Plan, sheets: Sheets, expected: readonly ExpectedFinding[]): void {
  const found = allFindingsOf(plan, sheets).filter((finding) => finding.code === code);
  const said = found.map((finding) => ({
    message: finding.message,
    level: finding.level,
    title: describeFinding(plan, sheets, finding).title,
    remedies: finding.remedies.map((remedy) => describeFix(plan, sheets, code, remedy)),
  }));
  expect(said).toEqual(expected);
}

/** The plan after the first remedy of the first finding of a code; its wires are all still there. */
export function remedied(code: string, plan: Plan, sheets: Sheets): Plan {
  const remedy = findingsOf(plan, sheets).find((finding) => finding.code === code)?.remedies[0];
  if (!remedy) throw new Error(`no remedy for ${code}`);
  const preview = previewEdits(plan, remedy.edits, sheets);
  if (!preview.ok) throw new Error(JSON.stringify(preview.problem));
  return preview.preview.plan;
}

/** The codes found in a plan after these edits, without repeats, sorted. */
export function codesAfter(plan: Plan, sheets: Sheets, ...edits: readonly Edit[]): readonly string[] {
  return [...new Set(findingsOf(edited(plan, sheets, ...edits), sheets).map((finding) => finding.code))].sort();
}
