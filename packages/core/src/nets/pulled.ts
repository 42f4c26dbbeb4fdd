import type { Plan } from '../plan/plan';
import type { PlanTerminal } from './terminals';

/** Whether a resistor brings the line of a terminal high while nothing drives it: one of the builder's, or one on the part's module that is
 *  not cut. */
export const isPulledUp = (plan: Plan, { key, placement, part, terminal }: PlanTerminal): boolean =>
  plan.pulls[key]?.to === 'supply' ||
  (!placement.pullUpsCut && part.module.pullUps?.some((pull) => pull.terminals.includes(terminal.id)) === true);
