import { type EditRule, partOf, refuse } from '../edit';
import { PLAN_LIMITS, terminalKey } from '../plan';

/** Records that a wire was confirmed on the bench, or removes the note (`null`). */
export const wireNote: EditRule<'wire-note'> = {
  apply(plan, { placement, terminal, note }, sheets) {
    const part = partOf(plan, placement, sheets);
    if (!part) return refuse('placement', 'a part of this plan', placement);
    if (note && !part.terminals.has(terminal)) return refuse('terminal', 'a terminal of this part', terminal);
    const key = terminalKey(placement, terminal);
    const { [key]: before, ...others } = plan.wireNotes;
    if (note && !before && Object.keys(others).length >= PLAN_LIMITS.wireNotes)
      return refuse('note', `at most ${PLAN_LIMITS.wireNotes} notes on wires`, 'one more');
    return {
      ok: true,
      plan: { ...plan, wireNotes: note ? { ...others, [key]: note } : others },
      inverse: [{ kind: 'wire-note', placement, terminal, note: before ?? null }],
    };
  },
};
