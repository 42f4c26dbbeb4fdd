import { type EditRule, refuse } from '../edit';
import { terminalKey } from '../plan';

export const colour: EditRule<'colour'> = {
  apply(plan, edit) {
    const key = terminalKey(edit.placement, edit.terminal);
    const before = plan.wires[key];
    if (!before) return refuse('terminal', 'a wired terminal', key);
    return {
      ok: true,
      plan: { ...plan, wires: { ...plan.wires, [key]: { ...before, colour: edit.colour } } },
      inverse: [{ ...edit, colour: before.colour }],
    };
  },
};
