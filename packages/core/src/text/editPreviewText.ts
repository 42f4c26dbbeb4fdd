import type { Plan } from '../plan/plan';
import type { Preview } from '../review/previewEdits';
import type { Sheets } from '../sheets/sheetIndex';
import { describeFinding } from './describe';
import { planChanges } from './planChanges';

export interface PreviewText {
  readonly changes: readonly string[];
  readonly solved: readonly string[];
  readonly caused: readonly string[];
}

/** What edits would change and what that costs, in words. */
export function previewText(before: Plan, sheets: Sheets, preview: Preview): PreviewText {
  return {
    changes: planChanges(before, preview.plan, sheets),
    solved: preview.gone.map((finding) => describeFinding(before, sheets, finding).title),
    caused: preview.added.map((finding) => describeFinding(preview.plan, sheets, finding).title),
  };
}
