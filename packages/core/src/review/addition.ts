import { proposeWires } from '../allocate/proposeWires';
import type { Finding } from '../checks/check';
import { isAboutFacts } from '../checks/registry';
import { applyEdits } from '../plan/applyEdits';
import { boardOf, type Edit } from '../plan/edit';
import { newPlacement } from '../plan/newPlacement';
import type { Plan } from '../plan/plan';
import type { PartSheet } from '../sheets/partSheet';
import { notedSheets } from '../sheets/notedSheets';
import type { Sheets } from '../sheets/sheetIndex';
import { ledgersOf } from './ledgers';
import { contextOf } from './review';
import { previewEdits } from './previewEdits';

/** What adding a part, wired where it fits, would do to a plan. */
export interface Addition {
  readonly part: string;
  readonly placement: string;
  /** Adds the part, then its wires. */
  readonly edits: readonly Edit[];
  /** Signal pins that are free now and would not be. */
  readonly pins: number;
  readonly added: readonly Finding[];
  readonly plan: Plan;
}

function usedPins(plan: Plan, sheets: Sheets): number {
  const context = contextOf(plan, sheets);
  return context ? ledgersOf(context.board, context.nets, context.terminals).pins.used : 0;
}

/** The addition of one part. Undefined where the plan's board is not known. */
export function additionOf(plan: Plan, kept: Sheets, part: PartSheet): Addition | undefined {
  const sheets = notedSheets(kept, plan.benchNotes);
  const board = boardOf(plan, sheets);
  if (!board) return undefined;
  const placement = newPlacement(plan, part);
  const add: Edit = { kind: 'add-placement', placement };
  const bare = applyEdits(plan, [add], sheets);
  if (!bare.ok) return undefined;
  const edits = [add, ...proposeWires(bare.plan, sheets, board, placement)];
  const result = previewEdits(plan, edits, sheets);
  if (!result.ok) throw new Error(`A proposed addition does not apply: ${JSON.stringify(result.problem)}`);
  const { preview } = result;
  return {
    part: part.id,
    placement: placement.id,
    edits,
    pins: usedPins(preview.plan, sheets) - usedPins(plan, sheets),
    added: preview.added.filter((finding) => !isAboutFacts(finding)),
    plan: preview.plan,
  };
}
