import { atOrThrow } from '../collections/orThrow';
import { notedSheets } from '../sheets/notedSheets';
import type { Sheets } from '../sheets/sheetIndex';
import { refuse, type Edit, type EditKind, type EditProblem, type EditResult, type EditRule } from './edit';
import { accept } from './edits/accept';
import { addPlacement } from './edits/addPlacement';
import { arrange } from './edits/arrange';
import { benchNote } from './edits/benchNote';
import { breadboard } from './edits/breadboard';
import { built } from './edits/built';
import { busSettings } from './edits/busSettings';
import { colour } from './edits/colour';
import { cutPullUps } from './edits/cutPullUps';
import { valuesOnHand } from './edits/valuesOnHand';
import { lock } from './edits/lock';
import { movePlacement } from './edits/movePlacement';
import { place } from './edits/place';
import { capacitors } from './edits/capacitors';
import { driver } from './edits/driver';
import { ladder } from './edits/ladder';
import { load } from './edits/load';
import { readout } from './edits/readout';
import { pull } from './edits/pull';
import { wireNote } from './edits/wireNote';
import { series } from './edits/series';
import { rate } from './edits/rate';
import { reference } from './edits/reference';
import { removePlacement } from './edits/removePlacement';
import { radio } from './edits/radio';
import { softwareBus } from './edits/softwareBus';
import { softwarePwm } from './edits/softwarePwm';
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
import { applyWires, wire } from './edits/wire';
import { noteIncrement } from './increment';
import type { Plan } from './plan';

const RULES: { readonly [K in EditKind]: EditRule<K> } = {
  accept,
  'bench-note': benchNote,
  'add-placement': addPlacement,
  colour,
  lock,
  'move-placement': movePlacement,
  'bus-settings': busSettings,
  'software-bus': softwareBus,
  'software-pwm': softwarePwm,
  'cut-pull-ups': cutPullUps,
  'values-on-hand': valuesOnHand,
  pull,
  'wire-note': wireNote,
  arrange,
  breadboard,
  place,
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
  reference,
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
  if (!rule) return refuse('kind', EDIT_KINDS.join(', '), String(edit.kind));
  const result = rule.apply(plan, edit as never, notedSheets(sheets, plan.benchNotes));
  if (result.ok) noteIncrement(plan, [edit], result.plan);
  return result;
}

export type BatchResult =
  | { readonly ok: true; readonly plan: Plan; readonly inverse: readonly Edit[] }
  | { readonly ok: false; readonly at: number; readonly problem: EditProblem };

/** Applies a batch of edits, all or none.
 *  @returns the new plan with the inverse batch, or the first edit that failed and why */
export function applyEdits(plan: Plan, edits: readonly Edit[], sheets: Sheets): BatchResult {
  let current = plan;
  let inverse: readonly Edit[] = [];
  for (let at = 0; at < edits.length;) {
    const wires = wiresFrom(edits, at);
    const result = wires.length > 1 ? applyWireRun(current, wires, sheets) : applyOne(current, atOrThrow(edits, at), sheets);
    if (!result.ok) return { ...result, at: at + result.at };
    current = result.plan;
    inverse = [...result.inverse, ...inverse];
    at += Math.max(1, wires.length);
  }
  return { ok: true, plan: current, inverse };
}

function applyOne(plan: Plan, edit: Edit, sheets: Sheets): BatchResult {
  const result = applyEdit(plan, edit, sheets);
  return result.ok ? result : { ...result, at: 0 };
}

type WireEdit = Extract<Edit, { readonly kind: 'wire' }>;

function applyWireRun(plan: Plan, edits: readonly WireEdit[], sheets: Sheets): BatchResult {
  const result = applyWires(plan, edits, notedSheets(sheets, plan.benchNotes));
  if (result.ok) noteIncrement(plan, edits, result.plan);
  return result;
}

/** The wire edits from a place on that follow one another. */
function wiresFrom(edits: readonly Edit[], at: number): readonly WireEdit[] {
  let end = at;
  while (edits[end]?.kind === 'wire') end += 1;
  return edits.slice(at, end) as readonly WireEdit[];
}
