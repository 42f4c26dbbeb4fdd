import { sayCosts } from '@roof-chart/core/allocate/sayCosts';
import type { Conflict } from '@roof-chart/core/allocate/explain';
import { sayList, sayPlacement, sayTerminal } from '@roof-chart/core/checks/say';
import { boardOf } from '@roof-chart/core/plan/edit';
import { type Plan, sameEnd } from '@roof-chart/core/plan/plan';
import { formatAddress } from '@roof-chart/core/quantity/format';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import type { Settled } from '../../review/review.worker';

export interface WireCounts {
  readonly added: number;
  readonly moved: number;
  readonly removed: number;
}

/** How many wires differ between two plans, and how. */
export function wireCounts(before: Plan, after: Plan): WireCounts {
  const keys = new Set([...Object.keys(before.wires), ...Object.keys(after.wires)]);
  let [added, moved, removed] = [0, 0, 0];
  for (const key of keys) {
    const [from, to] = [before.wires[key]?.end, after.wires[key]?.end];
    if (sameEnd(from, to)) continue;
    if (!from) added += 1;
    else if (!to) removed += 1;
    else moved += 1;
  }
  return { added, moved, removed };
}

/** "12 wires added, 1 moved". */
export function countWords({ added, moved, removed }: WireCounts): string {
  const words = [added > 0 ? `${added} added` : '', moved > 0 ? `${moved} moved` : '', removed > 0 ? `${removed} removed` : ''].filter(
    Boolean,
  );
  return words.length > 0 ? `Wires: ${words.join(', ')}` : 'No wire changes';
}

/** What was proved of a proposal. */
export function proofWords({ proved, costs, bound }: Pick<Settled, 'proved' | 'costs' | 'bound'>): string {
  if (!proved) return `Best found in the time (${sayCosts(costs)}); nothing can cost less than ${sayCosts(bound)}.`;
  if (costs.unwired > 0) return `Proved: no plan leaves fewer terminals open than ${costs.unwired}.`;
  return `Proved: no plan moves fewer wires (${costs.moved}), then needs fewer pins with caution (${costs.caution}), then spares scarce pins better.`;
}

/** Who stands in whose way, in one sentence. */
export function conflictWords(plan: Plan, sheets: Sheets, conflict: Conflict): string {
  const board = boardOf(plan, sheets)!;
  const wanting = [
    ...conflict.terminals.map((key) => sayTerminal(plan, sheets, key)),
    ...conflict.members.map(
      (m) => `${sayPlacement(plan, m.placement)}${m.addresses.length > 0 ? ` (${m.addresses.map(formatAddress).join(' or ')})` : ''}`,
    ),
  ];
  const buses = [...new Set(conflict.members.flatMap((m) => m.controllers))].map((id) => board.controllers.get(id)?.title ?? id);
  const pins = conflict.pins.map((pin) => board.pins.get(pin)?.label ?? pin);
  const places =
    conflict.terminals.length === 0 && buses.length > 0 ? `the buses ${sayList(buses)}` : pins.length > 0 ? sayList(pins) : 'no pin';
  return `${sayList(wanting)} compete for ${places}${conflict.minimal ? '; without any one of them the others fit' : ''}.`;
}
