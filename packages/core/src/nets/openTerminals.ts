import type { Nets } from './nets';
import type { PlanTerminal } from './terminals';

/** The needed terminals that nothing reaches: no wire of their own, and none that ends at them. */
export function openTerminals(terminals: readonly PlanTerminal[], nets: Nets): readonly PlanTerminal[] {
  return terminals.filter((item) => item.terminal.need === 'needed' && !nets.byTerminal.has(item.key));
}
