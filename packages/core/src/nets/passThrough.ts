import type { PartSheet, PartTerminal } from '../sheets/partSheet';
import { partSheet, type Sheets } from '../sheets/sheetIndex';
import { type Placement, type Plan, splitKey, type TerminalKey, terminalKey } from '../plan/plan';

/** The other end of a channel that goes through a part; undefined for terminals that are no end of one. */
export function otherEnd(part: PartSheet, terminal: string): string | undefined {
  for (const { low, high } of part.levelShifter?.channels ?? []) {
    if (low === terminal) return high;
    if (high === terminal) return low;
  }
  return undefined;
}

/** Whether the direction of a terminal matches the direction of a channel at this end. */
export function flowsThrough(part: PartSheet, end: string, terminal: Pick<PartTerminal, 'direction'>): boolean {
  const { levelShifter } = part;
  if (!levelShifter?.drives) return true;
  const isInput = levelShifter.channels.some((c) => (levelShifter.drives === 'up' ? c.low : c.high) === end);
  return terminal.direction === (isInput ? 'out' : 'in');
}

/** By terminal: the terminals of other parts that are wired to it, in the order of the plan's wires. */
const wiredTo = new WeakMap<Plan['wires'], ReadonlyMap<TerminalKey, readonly TerminalKey[]>>();

function endsAt(wires: Plan['wires']): ReadonlyMap<TerminalKey, readonly TerminalKey[]> {
  const known = wiredTo.get(wires);
  if (known) return known;
  const found = new Map<TerminalKey, TerminalKey[]>();
  for (const [key, { end }] of Object.entries(wires)) {
    if (end.to !== 'terminal') continue;
    const at = terminalKey(end.placement, end.terminal);
    const list = found.get(at);
    if (list) list.push(key);
    else found.set(at, [key]);
  }
  wiredTo.set(wires, found);
  return found;
}

/** The terminals represented by an end of a channel: those wired to the other end. Empty where parts are wired to both ends, or to this
 *  one. */
export function passThroughOf(plan: Plan, placement: Pick<Placement, 'id'>, part: PartSheet, terminal: string): readonly TerminalKey[] {
  const other = otherEnd(part, terminal);
  if (other === undefined || endsAt(plan.wires).has(terminalKey(placement.id, terminal))) return [];
  return endsAt(plan.wires).get(terminalKey(placement.id, other)) ?? [];
}

/** The terminal that represents one wired to a channel: the opposite end. */
export function passThroughSource(plan: Plan, sheets: Sheets, key: TerminalKey): TerminalKey | undefined {
  const end = plan.wires[key]?.end;
  if (end?.to !== 'terminal') return undefined;
  const through = plan.placements.find((p) => p.id === end.placement);
  const part = through && partSheet(sheets, through.sheet)?.sheet;
  if (!through || !part) return undefined;
  const near = otherEnd(part, end.terminal);
  return near !== undefined && passThroughOf(plan, through, part, near).length > 0 ? terminalKey(through.id, near) : undefined;
}

/** The part whose channel a terminal is wired to. */
export const throughPart = (plan: Plan, sheets: Sheets, key: TerminalKey): string | undefined => {
  const carrier = passThroughSource(plan, sheets, key);
  return carrier && splitKey(carrier).placement;
};

/** Whether a wire of another terminal ends at this one. */
export const isWiredTo = (wires: Plan['wires'], key: TerminalKey): boolean => endsAt(wires).has(key);
