import { type EditRule, partOf, refuse } from '../edit';
import { PLAN_LIMITS, terminalKey } from '../plan';

/** Adds a series resistor to a wire, or removes it (`null`). */
export const series: EditRule<'series'> = {
  apply(plan, { placement, terminal, ohms }, sheets) {
    const part = partOf(plan, placement, sheets);
    if (!part) return refuse('placement', 'a part of this plan', placement);
    if (ohms !== null && !part.terminals.has(terminal)) return refuse('terminal', 'a terminal of this part', terminal);
    const key = terminalKey(placement, terminal);
    const { [key]: before, ...others } = plan.series;
    if (ohms !== null && before === undefined && Object.keys(others).length >= PLAN_LIMITS.series)
      return refuse('series', `at most ${PLAN_LIMITS.series} series resistors`, 'one more');
    return {
      ok: true,
      plan: { ...plan, series: ohms === null ? others : { ...others, [key]: ohms } },
      inverse: [{ kind: 'series', placement, terminal, ohms: before ?? null }],
    };
  },
};
