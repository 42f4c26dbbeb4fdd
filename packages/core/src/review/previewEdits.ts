import type { Sheets } from '../sheets/sheetIndex';
import type { Finding } from '../checks/engine/check';
import { applyEdits } from '../plan/applyEdits';
import type { Edit, EditProblem } from '../plan/edit';
import { type Plan, sameEnd, type TerminalKey, type WireEnd } from '../plan/plan';
import { findingsOf } from './review';

/** What edits would do, before they are done. */
export interface Preview {
  readonly plan: Plan;
  readonly wires: readonly { readonly terminal: TerminalKey; readonly from: WireEnd | undefined; readonly to: WireEnd | undefined }[];
  readonly gone: readonly Finding[];
  readonly added: readonly Finding[];
}

export type PreviewResult = { readonly ok: true; readonly preview: Preview } | { readonly ok: false; readonly problem: EditProblem };

/** Wires that differ between two plans. */
export function changedWires(before: Plan, after: Plan): Preview['wires'] {
  const come = Object.keys(after.wires).filter((key) => !before.wires[key]);
  return [...Object.keys(before.wires), ...come].flatMap((terminal) => {
    const [from, to] = [before.wires[terminal]?.end, after.wires[terminal]?.end];
    return sameEnd(from, to) ? [] : [{ terminal, from, to }];
  });
}

/** The wires and findings that edits would change.
 *  @param find which findings to compare
 *  @returns the problem of the first edit that no longer applies, a normal outcome when the plan has moved on */
export function previewEdits(plan: Plan, edits: readonly Edit[], sheets: Sheets, find = findingsOf): PreviewResult {
  const result = applyEdits(plan, edits, sheets);
  return result.ok ? { ok: true, preview: previewOf(plan, result.plan, sheets, find) } : { ok: false, problem: result.problem };
}

/** What differs between two plans, of which one follows from the other. */
export function previewOf(plan: Plan, next: Plan, sheets: Sheets, find = findingsOf): Preview {
  const [before, after] = [find(plan, sheets), find(next, sheets)];
  const ids = (findings: readonly Finding[]) => new Set(findings.map((f) => f.id));
  const [had, has] = [ids(before), ids(after)];
  return {
    plan: next,
    wires: changedWires(plan, next),
    gone: before.filter((f) => !has.has(f.id)),
    added: after.filter((f) => !had.has(f.id)),
  };
}
