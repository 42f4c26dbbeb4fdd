import type { EditRule } from '../edit';

export const renamePlan: EditRule<'rename-plan'> = {
  apply: (plan, edit) => ({
    ok: true,
    plan: { ...plan, name: edit.name },
    inverse: [{ kind: 'rename-plan', name: plan.name }],
  }),
};
