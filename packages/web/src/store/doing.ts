import { applyEdits } from '@roof-chart/core/plan/applyEdits';
import type { Edit } from '@roof-chart/core/plan/edit';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { documentActions } from './documentSlice';
import type { Store } from './store';

export type Done = { readonly ok: true } | { readonly ok: false; readonly words: string };

const newBatch = (edits: readonly Edit[]) => ({ id: crypto.randomUUID(), edits });

/** Does edits to the open plan as one undoable step.
 *  @param label what the user did, in words, for "Undo: …" */
export function doEdits(store: Store, sheets: Sheets, edits: readonly Edit[], label: string): Done {
  const { plan } = store.getState().document;
  if (!plan || edits.length === 0) return { ok: false, words: 'There is nothing to do.' };
  const result = applyEdits(plan, edits, sheets);
  if (!result.ok) {
    const { path, expected, got } = result.problem;
    return { ok: false, words: `Not done: ${path} should be ${expected}, not ${got}.` };
  }
  const step = { label, edits, inverse: result.inverse };
  store.dispatch(documentActions.did({ plan: result.plan, batch: newBatch(edits), step }));
  return { ok: true };
}

/** Takes the last step back. @returns its label, or undefined when there is none or it no longer fits */
export function undo(store: Store, sheets: Sheets): string | undefined {
  const { plan, past } = store.getState().document;
  const step = past.at(-1);
  const result = plan && step && applyEdits(plan, step.inverse, sheets);
  if (!result?.ok) return undefined;
  store.dispatch(documentActions.undid({ plan: result.plan, batch: newBatch(step!.inverse) }));
  return step!.label;
}

/** Does the last undone step again. */
export function redo(store: Store, sheets: Sheets): string | undefined {
  const { plan, future } = store.getState().document;
  const step = future.at(-1);
  const result = plan && step && applyEdits(plan, step.edits, sheets);
  if (!result?.ok) return undefined;
  store.dispatch(documentActions.redid({ plan: result.plan, batch: newBatch(step!.edits) }));
  return step!.label;
}
