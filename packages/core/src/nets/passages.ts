import type { PartSheet, PartTerminal } from '../sheets/partSheet';
import { partSheet, type Sheets } from '../sheets/sheetIndex';
import { type Placement, type Plan, splitKey, type TerminalKey, terminalKey } from '../plan/plan';

/** The other end of a channel that goes through a part; undefined for terminals that are no end of one. */
export function otherEnd(part: PartSheet, terminal: string): string | undefined {
  for (const { low, high } of part.passage?.channels ?? []) {
    if (low === terminal) return high;
    if (high === terminal) return low;
  }
  return undefined;
}

/** Whether what a terminal sends or takes goes the way that a channel drives, if it is wired to this end of it. */
export function flowsThrough(part: PartSheet, end: string, terminal: Pick<PartTerminal, 'direction'>): boolean {
  const { drives, channels } = part.passage ?? {};
  if (!drives) return true;
  const isInput = channels!.some((c) => (drives === 'up' ? c.low : c.high) === end);
  return terminal.direction === (isInput ? 'out' : 'in');
}

/** The terminals that are wired to an end of a channel, in the order of the plan's wires. */
function wiredTo(plan: Plan, placement: string, terminal: string): readonly TerminalKey[] {
  return Object.entries(plan.wires).flatMap(([key, { end }]) =>
    end.to === 'terminal' && end.placement === placement && end.terminal === terminal ? [key] : [],
  );
}

/** The terminals for which an end of a channel stands on its own side: those wired to the other end. Empty where parts are
 *  wired to both ends, or to this one. */
export function carriedBy(plan: Plan, placement: Pick<Placement, 'id'>, part: PartSheet, terminal: string): readonly TerminalKey[] {
  const other = otherEnd(part, terminal);
  if (other === undefined || wiredTo(plan, placement.id, terminal).length > 0) return [];
  return wiredTo(plan, placement.id, other);
}

/** The terminal that stands for one that is wired to a channel: the end on the other side. */
export function carrierOf(plan: Plan, sheets: Sheets, key: TerminalKey): TerminalKey | undefined {
  const end = plan.wires[key]?.end;
  if (end?.to !== 'terminal') return undefined;
  const through = plan.placements.find((p) => p.id === end.placement);
  const part = through && partSheet(sheets, through.sheet)?.sheet;
  const near = part && otherEnd(part, end.terminal);
  return near !== undefined && carriedBy(plan, through!, part!, near).length > 0 ? terminalKey(through!.id, near) : undefined;
}

/** The part whose channel a terminal is wired to. */
export const throughPart = (plan: Plan, sheets: Sheets, key: TerminalKey): string | undefined => {
  const carrier = carrierOf(plan, sheets, key);
  return carrier && splitKey(carrier).placement;
};
