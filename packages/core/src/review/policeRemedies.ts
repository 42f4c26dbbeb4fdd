import { dequal } from 'dequal';
import { atOrThrow } from '../collections/orThrow';
import type { Sheets } from '../sheets/sheetIndex';
import type { Finding } from '../checks/engine/check';
import { checkOf } from '../checks/engine/registry';
import { describeFinding, describeFix } from '../text/describe';
import type { Plan } from '../plan/plan';
import { previewEdits } from './previewEdits';

/** The faults of one remedy: it must apply, change something, remove its finding, harm nothing, and be sayable. Wiring what was open may show
 *  what the wires meet. */
function faultsOf(plan: Plan, sheets: Sheets, finding: Finding, index: number): readonly string[] {
  const remedy = atOrThrow(finding.remedies, index);
  const name = `${finding.id} fix ${remedy.label}`;
  const result = previewEdits(plan, remedy.edits, sheets);
  if (!result.ok) return [`${name} does not apply: ${result.problem.path} expected ${result.problem.expected}`];
  const faults: string[] = [];
  if (result.preview.plan === plan || dequal(result.preview.plan, plan)) faults.push(`${name} changes nothing`);
  if (!result.preview.gone.some((f) => f.id === finding.id)) faults.push(`${name} does not remove its finding`);
  const harm = result.preview.added.filter((f) => f.level !== 'hint' && f.code !== finding.code && checkOf(f.code).harm);
  if (harm.length > 0 && finding.code !== 'terminal-unwired') faults.push(`${name} brings ${harm.map((f) => f.id).join(', ')}`);
  if (!describeFix(plan, sheets, finding.code, remedy)) faults.push(`${name} has no text`);
  return faults;
}

/** What is wrong with the remedies of these findings; empty when all keep their word. For tests and the workshop. */
export function policeRemedies(plan: Plan, sheets: Sheets, findings: readonly Finding[]): readonly string[] {
  return findings.flatMap((finding) => {
    describeFinding(plan, sheets, finding);
    return finding.remedies.flatMap((_, index) => faultsOf(plan, sheets, finding, index));
  });
}
