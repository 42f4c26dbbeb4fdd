import type { EditRule } from '../edit';

export const radio: EditRule<'radio'> = {
  apply: (plan, { on }) => ({ ok: true, plan: { ...plan, radio: on }, inverse: [{ kind: 'radio', on: plan.radio }] }),
};
