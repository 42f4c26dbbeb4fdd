import type { Nets } from './nets';
import { type Plan, terminalKey } from '../plan/plan';
import type { PlanTerminal } from './terminals';

/** The needed terminals that nothing reaches: no wire of their own, and none that ends at them. */
export function openTerminals(terminals: readonly PlanTerminal[], nets: Nets): readonly PlanTerminal[] {
  return terminals.filter((item) => item.terminal.need === 'needed' && !nets.byTerminal.has(item.key));
}

/** As `openTerminals`, for a plan whose nets are not needed. */
export function openOf(plan: Plan, terminals: readonly PlanTerminal[]): readonly PlanTerminal[] {
  const reached = new Set(
    Object.values(plan.wires).flatMap(({ end }) => (end.to === 'terminal' ? [terminalKey(end.placement, end.terminal)] : [])),
  );
  return terminals.filter((item) => item.terminal.need === 'needed' && !item.wire && !reached.has(item.key));
}
