import { type EditRule, partOf, refuse } from '../edit';
import { PLAN_LIMITS, terminalKey } from '../plan';

/** Adds a transistor between a terminal and its pin, or removes it (`null`). */
export const driver: EditRule<'driver'> = {
  apply(plan, { placement, terminal, driver: wanted }, sheets) {
    const part = partOf(plan, placement, sheets);
    if (!part) return refuse('placement', 'a part of this plan', placement);
    if (wanted && !part.terminals.has(terminal)) return refuse('terminal', 'a terminal of this part', terminal);
    const key = terminalKey(placement, terminal);
    const { [key]: before, ...others } = plan.drivers;
    if (wanted && !before && Object.keys(others).length >= PLAN_LIMITS.drivers)
      return refuse('driver', `at most ${PLAN_LIMITS.drivers} transistors`, 'one more');
    return {
      ok: true,
      plan: { ...plan, drivers: wanted ? { ...others, [key]: wanted } : others },
      inverse: [{ kind: 'driver', placement, terminal, driver: before ?? null }],
    };
  },
};
