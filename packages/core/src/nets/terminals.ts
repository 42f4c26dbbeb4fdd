import type { PartSheet, PartTerminal } from '../sheets/partSheet';
import { PIN_ROLES } from '../sheets/roles';
import { partSheet, type Sheets } from '../sheets/sheetIndex';
import { type Placement, type Plan, type TerminalKey, terminalKey, type Wire } from '../plan/plan';

/** A terminal of a placement with its sheet facts and its wire. */
export interface PlanTerminal {
  readonly key: TerminalKey;
  readonly placement: Placement;
  readonly part: PartSheet;
  readonly terminal: PartTerminal;
  readonly wire: Wire | undefined;
}

/** Every terminal of a placement in printed order; empty where its sheet is gone. */
export function terminalsOf(plan: Plan, placement: Placement, sheets: Sheets): readonly PlanTerminal[] {
  const part = partSheet(sheets, placement.sheet)?.sheet;
  return (part?.terminals.list ?? []).map((terminal) => {
    const key = terminalKey(placement.id, terminal.id);
    return { key, placement, part: part!, terminal, wire: plan.wires[key] };
  });
}

/** Every terminal of the plan, part by part in printed order. */
export function planTerminals(plan: Plan, sheets: Sheets): readonly PlanTerminal[] {
  return plan.placements.flatMap((placement) => terminalsOf(plan, placement, sheets));
}

/** What makes two terminals the same signal when they meet on one pin: bus lines join, all else is private. */
export function signalOf(item: PlanTerminal): string {
  return PIN_ROLES[item.terminal.role]?.shared ? item.terminal.role : item.key;
}
