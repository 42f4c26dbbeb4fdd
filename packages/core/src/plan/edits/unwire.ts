import { type EditRule, refuse } from '../edit';
import { terminalKey } from '../plan';

export const unwire: EditRule<'unwire'> = {
  apply(plan, edit) {
    const key = terminalKey(edit.placement, edit.terminal);
    const { [key]: before, ...wires } = plan.wires;
    if (!before) return refuse('terminal', 'a wired terminal', key);
    if (before.locked) return refuse('terminal', 'a wire that is not locked', key);
    return {
      ok: true,
      plan: { ...plan, wires },
      inverse: [{ kind: 'wire', placement: edit.placement, terminal: edit.terminal, end: before.end, colour: before.colour }],
    };
  },
};
