import { followValues } from '@roof-chart/core/electrics/reports/followValues';
import { applyEdits } from '@roof-chart/core/plan/applyEdits';
import type { Edit } from '@roof-chart/core/plan/edit';
import { PLAN_LIMITS } from '@roof-chart/core/plan/plan';
import { changeText } from '@roof-chart/core/text/planChanges';
import { counted } from '@roof-chart/core/quantity/format';
import { notedSheets } from '@roof-chart/core/sheets/notedSheets';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { type Batch, documentActions, type Step } from './documentSlice';
import type { AppThunk } from './store';

export type Done = { readonly ok: true; readonly label: string } | { readonly ok: false; readonly words: string };

const newBatch = (edits: readonly Edit[], label: string): Batch => ({ id: crypto.randomUUID(), edits, label });

/** Does edits to the open plan as one undoable step, with the component values that follow from them.
 *  @param label what the user did, in words, for "Undo: …" and the history; without it what differs afterwards */
export const editPlan =
  (sheets: Sheets, requested: readonly Edit[], label?: string): AppThunk<Done> =>
  (dispatch, getState) => {
    const { plan } = getState().document;
    if (!plan || requested.length === 0) return { ok: false, words: 'Nothing to change.' };
    if (requested.length > PLAN_LIMITS.editsPerBatch)
      return { ok: false, words: `Not done: ${requested.length} edits at once, the limit is ${PLAN_LIMITS.editsPerBatch}.` };
    const first = applyEdits(plan, requested, sheets);
    if (!first.ok) {
      const { path, expected, got } = first.problem;
      return { ok: false, words: `Not done: ${path} must be ${expected}, not ${got}.` };
    }
    const following = followValues(plan, first.plan, notedSheets(sheets, plan.benchNotes)).slice(
      0,
      PLAN_LIMITS.editsPerBatch - requested.length,
    );
    const rest = following.length > 0 ? applyEdits(first.plan, following, sheets) : undefined;
    const whole = rest?.ok
      ? { edits: [...requested, ...following], plan: rest.plan, inverse: [...rest.inverse, ...first.inverse] }
      : { edits: requested, plan: first.plan, inverse: first.inverse };
    const text = label ?? changeText(plan, first.plan, sheets);
    const words = rest?.ok ? `${text}, ${counted(following.length, 'value')} recalculated` : text;
    const step = { label: words, edits: whole.edits, inverse: whole.inverse };
    dispatch(documentActions.did({ plan: whole.plan, batch: newBatch(whole.edits, words), step }));
    return { ok: true, label: text };
  };

/** What became of an undo or redo: done, nothing to do, or a step that other changes have made impossible. */
export type Stepped = { readonly kind: 'done' | 'unfit'; readonly label: string } | { readonly kind: 'none' };

/** The two ways through the steps: where the next one is, what it does, and what it is called in the history. */
const WAYS = {
  undo: { from: 'past', editsOf: ({ inverse }: Step) => inverse, taken: documentActions.undid, word: 'Undo' },
  redo: { from: 'future', editsOf: ({ edits }: Step) => edits, taken: documentActions.redid, word: 'Redo' },
} as const;

const walk =
  (way: keyof typeof WAYS, sheets: Sheets): AppThunk<Stepped> =>
  (dispatch, getState) => {
    const { from, editsOf, taken, word } = WAYS[way];
    const { document } = getState();
    const step = document[from].at(-1);
    if (!document.plan || !step) return { kind: 'none' };
    const result = applyEdits(document.plan, editsOf(step), sheets);
    if (result.ok) dispatch(taken({ plan: result.plan, batch: newBatch(editsOf(step), `${word}: ${step.label}`) }));
    else dispatch(documentActions.stepDropped(from));
    return { kind: result.ok ? 'done' : 'unfit', label: step.label };
  };

/** Undoes the last step. A step that no longer applies is dropped and reported. */
export const undoStep = (sheets: Sheets): AppThunk<Stepped> => walk('undo', sheets);

/** Does the last undone step again. A step that no longer fits is dropped, and named. */
export const redoStep = (sheets: Sheets): AppThunk<Stepped> => walk('redo', sheets);
