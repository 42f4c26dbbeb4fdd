import { type EditRule, partOf, refuse } from '../edit';
import { terminalKey } from '../plan';

/** Marks a wire as done at an end, or (with `null`) as not done. */
export const tick: EditRule<'tick'> = {
  apply(plan, edit, sheets) {
    const key = terminalKey(edit.placement, edit.terminal);
    if (!partOf(plan, edit.placement, sheets)?.terminals.has(edit.terminal)) {
      return refuse('terminal', 'a terminal of a part in this plan', key);
    }
    const { [key]: before, ...others } = plan.ticks;
    return {
      ok: true,
      plan: { ...plan, ticks: edit.end ? { ...others, [key]: edit.end } : others },
      inverse: [{ ...edit, end: before ?? null }],
    };
  },
};
