import { type EditRule, refuse } from '../edit';
import { terminalKey } from '../plan';

export const lock: EditRule<'lock'> = {
  apply(plan, edit) {
    const key = terminalKey(edit.placement, edit.terminal);
    const before = plan.wires[key];
    if (!before) return refuse('terminal', 'a wired terminal', key);
    if (!edit.locked && plan.placements.find((p) => p.id === edit.placement)?.onBoard) {
      return refuse('terminal', 'a wire that is not soldered on the board', key);
    }
    return {
      ok: true,
      plan: { ...plan, wires: { ...plan.wires, [key]: { ...before, locked: edit.locked } } },
      inverse: [{ ...edit, locked: before.locked }],
    };
  },
};
