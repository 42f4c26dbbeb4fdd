import { type EditRule, partOf, refuse } from '../edit';
import { PLAN_LIMITS, terminalKey } from '../plan';

/** Adds a pull-up or pull-down to a line, or removes it (`null`). */
export const pull: EditRule<'pull'> = {
  apply(plan, { placement, terminal, pull: wanted }, sheets) {
    const part = partOf(plan, placement, sheets);
    if (!part) return refuse('placement', 'a part of this plan', placement);
    if (wanted && !part.terminals.has(terminal)) return refuse('terminal', 'a terminal of this part', terminal);
    const key = terminalKey(placement, terminal);
    const { [key]: before, ...others } = plan.pulls;
    if (wanted && !before && Object.keys(others).length >= PLAN_LIMITS.pulls)
      return refuse('pull', `at most ${PLAN_LIMITS.pulls} pull resistors`, 'one more');
    return {
      ok: true,
      plan: { ...plan, pulls: wanted ? { ...others, [key]: wanted } : others },
      inverse: [{ kind: 'pull', placement, terminal, pull: before ?? null }],
    };
  },
};
