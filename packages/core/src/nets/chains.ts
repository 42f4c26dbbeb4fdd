import { findOrThrow, firstOrThrow } from '../collections/orThrow';
import { partSheet, type Sheets } from '../sheets/sheetIndex';
import { type Placement, type Plan, terminalKey } from '../plan/plan';
import type { PartSheet } from '../sheets/partSheet';
import { memoizeByPair } from '../memo/memoizeByPair';

/** A daisy chain in the order of its wires: the first part receives from the board. */
export interface Chain {
  readonly members: readonly Placement[];
  /** Closed loop: no part receives from the board. */
  readonly circle: boolean;
}

/** Whether the board reads a chain at its last part, as with input registers; it feeds others at their first one. */
export const isReadChain = (part: PartSheet): boolean => part.terminals.list.some((t) => t.chain === 'out' && t.need === 'needed');

/** The parts of a chain, the one at the board first. */
export function fromBoard({ members }: Pick<Chain, 'members'>, sheets: Sheets): readonly Placement[] {
  const part = partSheet(sheets, firstOrThrow(members).sheet)?.sheet;
  return part && isReadChain(part) ? members.toReversed() : members;
}

/** For each part that chains, the one whose data-out its data-in is wired to; null for those at the start. */
function before(plan: Plan, sheets: Sheets): ReadonlyMap<string, string | null> {
  const chained = new Map<string, string | null>();
  for (const placement of plan.placements) {
    const input = partSheet(sheets, placement.sheet)?.sheet.terminals.list.find((t) => t.chain === 'in');
    if (!input) continue;
    const end = plan.wires[terminalKey(placement.id, input.id)]?.end;
    const other = end?.to === 'terminal' ? plan.placements.find((p) => p.id === end.placement) : undefined;
    const output = other && end?.to === 'terminal' ? partSheet(sheets, other.sheet)?.terminals.get(end.terminal) : undefined;
    chained.set(placement.id, other && output?.chain === 'out' ? other.id : null);
  }
  return chained;
}

/** Every chain of the plan, those of one part among them, in the order of their first parts. A part whose data-out feeds two ends
 *  its chain there: what follows it twice are two chains. */
export const chainsOf = memoizeByPair((plan: Plan, sheets: Sheets): readonly Chain[] => {
  const from = before(plan, sheets);
  const after = new Map<string, string[]>();
  for (const [id, other] of from) if (other !== null) after.set(other, [...(after.get(other) ?? []), id]);
  const placement = (id: string) => findOrThrow(plan.placements, (p) => p.id === id);
  const seen = new Set<string>();
  const follow = (start: string): readonly Placement[] => {
    const members: Placement[] = [];
    for (let at: string | undefined = start; at !== undefined && !seen.has(at); at = (after.get(at) ?? []).find((id) => !seen.has(id))) {
      seen.add(at);
      members.push(placement(at));
    }
    return members;
  };
  const heads = [...from].filter(([, other]) => other === null || !from.has(other)).map(([id]) => id);
  const chains: Chain[] = heads.map((id) => ({ members: follow(id), circle: false }));
  for (const id of from.keys())
    if (!seen.has(id)) chains.push({ members: follow(id), circle: from.get(id) !== null && leadsBack(id, from) });
  return chains;
});

/** Whether the wires that feed a part lead back to it. */
function leadsBack(start: string, from: ReadonlyMap<string, string | null>): boolean {
  const passed = new Set<string>();
  for (let at = from.get(start); at !== null && at !== undefined && !passed.has(at); at = from.get(at)) {
    if (at === start) return true;
    passed.add(at);
  }
  return false;
}
