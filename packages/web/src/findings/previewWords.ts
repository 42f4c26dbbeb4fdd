import { sayFinding, sayTerminal } from '@roof-chart/core/checks/say';
import { planChanges } from '@roof-chart/core/outputs/planChanges';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { Preview } from '@roof-chart/core/review/previewEdits';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { endWords } from '../app/editWords';

/** One changed wire in words.
 *  @example 'Status LED anode: GP22 → GP2' */
export function wireWords(plan: Plan, sheets: Sheets, wire: Preview['wires'][number]): string {
  const say = (end: typeof wire.from) => (end ? endWords(plan, sheets, end) : 'open');
  return `${sayTerminal(plan, sheets, wire.terminal)}: ${say(wire.from)} → ${say(wire.to)}`;
}

export interface PreviewWords {
  readonly wires: readonly string[];
  readonly others: readonly string[];
  readonly solved: readonly string[];
  readonly caused: readonly string[];
}

/** What edits would change and what that costs, in words. */
export function previewWords(before: Plan, sheets: Sheets, preview: Preview): PreviewWords {
  return {
    wires: preview.wires.map((wire) => wireWords(preview.plan, sheets, wire)),
    others: planChanges(before, preview.plan, sheets),
    solved: preview.gone.map((finding) => sayFinding(before, sheets, finding).title),
    caused: preview.added.map((finding) => sayFinding(preview.plan, sheets, finding).title),
  };
}
