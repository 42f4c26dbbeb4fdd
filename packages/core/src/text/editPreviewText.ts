import { describeFinding } from './describe';
import { terminalText } from './names';
import { planChanges } from '../outputs/planChanges';
import type { Plan } from '../plan/plan';
import type { Preview } from '../review/previewEdits';
import type { Sheets } from '../sheets/sheetIndex';
import { wireEndText } from './wireEndText';

/** One changed wire in words.
 *  @example 'Status LED anode: GP22 → GP2' */
export function wireText(plan: Plan, sheets: Sheets, wire: Preview['wires'][number]): string {
  const say = (end: typeof wire.from) => (end ? wireEndText(plan, sheets, end) : 'open');
  return `${terminalText(plan, sheets, wire.terminal)}: ${say(wire.from)} → ${say(wire.to)}`;
}

export interface PreviewText {
  readonly wires: readonly string[];
  readonly others: readonly string[];
  readonly solved: readonly string[];
  readonly caused: readonly string[];
}

/** What edits would change and what that costs, in words. */
export function previewText(before: Plan, sheets: Sheets, preview: Preview): PreviewText {
  return {
    wires: preview.wires.map((wire) => wireText(preview.plan, sheets, wire)),
    others: planChanges(before, preview.plan, sheets),
    solved: preview.gone.map((finding) => describeFinding(before, sheets, finding).title),
    caused: preview.added.map((finding) => describeFinding(preview.plan, sheets, finding).title),
  };
}
