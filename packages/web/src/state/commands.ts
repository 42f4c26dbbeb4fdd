import { followValues } from '@roof-chart/core/electrics/reports/followValues';
import { applyEdits } from '@roof-chart/core/plan/applyEdits';
import type { Edit } from '@roof-chart/core/plan/edit';
import { PLAN_LIMITS } from '@roof-chart/core/plan/plan';
import { changeText } from '@roof-chart/core/text/planChanges';
import { counted } from '@roof-chart/core/quantity/format';
import { notedSheets } from '@roof-chart/core/sheets/notedSheets';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { type Batch, documentActions } from './documentSlice';
import type { AppThunk } from './store';

export type Done = { readonly ok: true; readonly label: string } | { readonly ok: false; readonly words: string };

const newBatch = (edits: readonly Edit[], label: string): Batch => ({ id: crypto.randomUUID(), edits, label });

/** Does edits to the open plan as one undoable step, with the component values that follow from them.
 *  @param label what the user did, in words, for "Undo: …" and the history; without it what differs afterwards */
export const editPlan =
  (sheets: Sheets, asked: readonly Edit[], label?: string): AppThunk<Done> =>
  (dispatch, getState) => {
    const { plan } = getState().document;
    if (!plan || asked.length === 0) return { ok: false, words: 'Nothing to change.' };
    if (asked.length > PLAN_LIMITS.editsPerBatch)
      return { ok: false, words: `Not done: ${asked.length} edits at once, the limit is ${PLAN_LIMITS.editsPerBatch}.` };
    const first = applyEdits(plan, asked, sheets);
    if (!first.ok) {
      const { path, expected, got } = first.problem;
      return { ok: false, words: `Not done: ${path} must be ${expected}, not ${got}.` };
    }
    const following = followValues(plan, first.plan, notedSheets(sheets, plan.benchNotes)).slice(
      0,
      PLAN_LIMITS.editsPerBatch - asked.length,
    );
    const rest = following.length > 0 ? applyEdits(first.plan, following, sheets) : undefined;
    const whole = rest?.ok
      ? { edits: [...asked, ...following], plan: rest.plan, inverse: [...rest.inverse, ...first.inverse] }
      : { edits: asked, plan: first.plan, inverse: first.inverse };
    const told = label ?? changeText(plan, first.plan, sheets);
    const words = rest?.ok ? `${told}, ${counted(following.length, 'value')} recalculated` : told;
    const step = { label: words, edits: whole.edits, inverse: whole.inverse };
    dispatch(documentActions.did({ plan: whole.plan, batch: newBatch(whole.edits, words), step }));
    return { ok: true, label: told };
  };

/** What became of an undo or redo: done, nothing to do, or a step that other changes have made impossible. */
export type Stepped = { readonly kind: 'done' | 'unfit'; readonly label: string } | { readonly kind: 'none' };

/** Undoes the last step. A step that no longer applies is dropped and reported. */
export const undoStep =
  (sheets: Sheets): AppThunk<Stepped> =>
  (dispatch, getState) => {
    const { plan, past } = getState().document;
    const step = past.at(-1);
    if (!plan || !step) return { kind: 'none' };
    const result = applyEdits(plan, step.inverse, sheets);
    if (result.ok) dispatch(documentActions.undid({ plan: result.plan, batch: newBatch(step.inverse, `Undo: ${step.label}`) }));
    else dispatch(documentActions.stepDropped('past'));
    return { kind: result.ok ? 'done' : 'unfit', label: step.label };
  };

/** Does the last undone step again. A step that no longer fits is dropped, and named. */
export const redoStep =
  (sheets: Sheets): AppThunk<Stepped> =>
  (dispatch, getState) => {
    const { plan, future } = getState().document;
    const step = future.at(-1);
    if (!plan || !step) return { kind: 'none' };
    const result = applyEdits(plan, step.edits, sheets);
    if (result.ok) dispatch(documentActions.redid({ plan: result.plan, batch: newBatch(step.edits, `Redo: ${step.label}`) }));
    else dispatch(documentActions.stepDropped('future'));
    return { kind: result.ok ? 'done' : 'unfit', label: step.label };
  };
