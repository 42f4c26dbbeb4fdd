import { applyEdits } from '@roof-chart/core/plan/applyEdits';
import type { Edit } from '@roof-chart/core/plan/edit';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { EXIT, type ExitCode, InputFault, type Io } from './io';
import type { OpenPlan } from './planFile';

/** Where the changed plan goes: back into its file, to another, or to standard output. */
export interface Target {
  readonly out?: string;
}

export const asJson = (value: unknown): string => JSON.stringify(value, null, 2);

/** Standard input has no place to write back to: its plan goes to standard output. */
export function deliver(
  io: Io,
  plan: Plan,
  { file, carried = [] }: Pick<OpenPlan, 'file'> & Partial<Pick<OpenPlan, 'carried'>>,
  { out = file }: Target = {},
): ExitCode {
  const document = carried.length > 0 ? { ...plan, sheets: carried } : plan;
  if (out === '-') io.out(asJson(document));
  else io.write(out, `${asJson(document)}\n`);
  return EXIT.clean;
}

/** @throws InputFault naming the edit, the place in it, and what was expected */
export function applied(plan: Plan, edits: readonly Edit[], sheets: Sheets): Plan {
  const result = applyEdits(plan, edits, sheets);
  if (result.ok) return result.plan;
  const { path, expected, got } = result.problem;
  throw new InputFault(`edit ${result.at + 1}: ${path} must be ${expected}, not ${got}; nothing was changed`);
}

/** What could have been meant, for a refusal. */
export const nearest = (ids: Iterable<string>): string => [...ids].join(', ');
