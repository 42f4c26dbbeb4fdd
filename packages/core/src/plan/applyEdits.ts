import { notedSheets } from '../sheets/notedSheets';
import type { Sheets } from '../sheets/sheetIndex';
import { refuse, type Edit, type EditKind, type EditProblem, type EditResult, type EditRule } from './edit';
import { accept } from './edits/accept';
import { addPlacement } from './edits/addPlacement';
import { benchNote } from './edits/benchNote';
import { built } from './edits/built';
import { busSettings } from './edits/busSettings';
import { colour } from './edits/colour';
import { cutPullUps } from './edits/cutPullUps';
import { drawer } from './edits/drawer';
import { lock } from './edits/lock';
import { movePlacement } from './edits/movePlacement';
import { capacitors } from './edits/capacitors';
import { driver } from './edits/driver';
import { ladder } from './edits/ladder';
import { load } from './edits/load';
import { readout } from './edits/readout';
import { pull } from './edits/pull';
import { series } from './edits/series';
import { rate } from './edits/rate';
import { removePlacement } from './edits/removePlacement';
import { radio } from './edits/radio';
import { renamePlacement } from './edits/renamePlacement';
import { renamePlan } from './edits/renamePlan';
import { step } from './edits/step';
import { strap } from './edits/strap';
import { switchBoard } from './edits/switchBoard';
import { takeSheet } from './edits/takeSheet';
import { tick } from './edits/tick';
import { together } from './edits/together';
import { unwire } from './edits/unwire';
import { wish } from './edits/wish';
import { wire } from './edits/wire';
import type { Plan } from './plan';

const RULES: { readonly [K in EditKind]: EditRule<K> } = {
  accept,
  'bench-note': benchNote,
  'add-placement': addPlacement,
  colour,
  lock,
  'move-placement': movePlacement,
  'bus-settings': busSettings,
  'cut-pull-ups': cutPullUps,
  drawer,
  pull,
  built,
  capacitors,
  ladder,
  step,
  driver,
  load,
  readout,
  series,
  radio,
  rate,
  'remove-placement': removePlacement,
  'rename-placement': renamePlacement,
  'rename-plan': renamePlan,
  strap,
  'switch-board': switchBoard,
  'take-sheet': takeSheet,
  tick,
  together,
  unwire,
  wire,
  wish,
};

export const EDIT_KINDS = Object.keys(RULES) as readonly EditKind[];

/** One edit applied to a plan. */
export function applyEdit(plan: Plan, edit: Edit, sheets: Sheets): EditResult {
  // The table pairs each kind with its own rule; the compiler cannot follow the pairing through an index.
  const rule = Object.hasOwn(RULES, edit.kind) ? (RULES[edit.kind] as EditRule<EditKind>) : undefined;
  return rule
    ? rule.apply(plan, edit as never, notedSheets(sheets, plan.benchNotes))
    : refuse('kind', EDIT_KINDS.join(', '), String(edit.kind));
}

export type BatchResult =
  | { readonly ok: true; readonly plan: Plan; readonly inverse: readonly Edit[] }
  | { readonly ok: false; readonly at: number; readonly problem: EditProblem };

/** A batch of edits: all of them, or none.
 *  @returns the new plan with the batch that takes it back, or the first edit that failed and why */
export function applyEdits(plan: Plan, edits: readonly Edit[], sheets: Sheets): BatchResult {
  let current = plan;
  let inverse: readonly Edit[] = [];
  for (const [at, edit] of edits.entries()) {
    const result = applyEdit(current, edit, sheets);
    if (!result.ok) return { ok: false, at, problem: result.problem };
    current = result.plan;
    inverse = [...result.inverse, ...inverse];
  }
  return { ok: true, plan: current, inverse };
}
