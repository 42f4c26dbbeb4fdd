import type { Plan } from '../plan/plan';
import type { PlanTerminal } from './terminals';

/** Whether a resistor pulls the line of a terminal high while nothing drives it: an added one, or a connected one on the module. */
export const isPulledUp = (plan: Plan, { key, placement, part, terminal }: PlanTerminal): boolean =>
  plan.pulls[key]?.to === 'supply' ||
  (!placement.pullUpsCut && part.module.pullUps?.some((pull) => pull.terminals.includes(terminal.id)) === true);
