import { partOf } from '../plan/edit';
import { type Plan, splitKey, type TerminalKey } from '../plan/plan';
import type { Level } from '../checks/engine/check';
import type { Sheets } from '../sheets/sheetIndex';

/** What the levels of findings are called. */
export const LEVEL_TEXT: { readonly [L in Level]: string } = { clash: 'error', risk: 'warning', hint: 'note' };

/** "Encoder SW": the part's name in the plan and the printed label. */
export function terminalText(plan: Plan, sheets: Sheets, key: TerminalKey): string {
  const { placement, terminal } = splitKey(key);
  const name = plan.placements.find((p) => p.id === placement)?.name ?? placement;
  return `${name} ${partOf(plan, placement, sheets)?.terminals.get(terminal)?.label ?? terminal}`;
}

/** The name of a placement; its ID if it is not in the plan. */
export function placementText(plan: Plan, id: string): string {
  return plan.placements.find((p) => p.id === id)?.name ?? id;
}

/** A bus member: a part, the board, or the lines themselves if they rise too slowly. */
export function memberText(plan: Plan, id: string | undefined): string {
  if (id === undefined) return 'a part';
  if (id === 'board') return 'the board';
  return id === 'pull-ups' ? 'the rise of the lines' : placementText(plan, id);
}

/** @example listText(['A', 'B', 'C']) // 'A, B and C' */
export function listText(items: readonly string[]): string {
  if (items.length < 2) return items.join('');
  return `${items.slice(0, -1).join(', ')} and ${items[items.length - 1]}`;
}
