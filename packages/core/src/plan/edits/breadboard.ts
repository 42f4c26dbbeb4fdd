import type { EditRule } from '../edit';

/** Sets what the plan is built on; what is placed keeps its place. */
export const breadboard: EditRule<'breadboard'> = {
  apply: (plan, { breadboard: wanted }) => ({
    ok: true,
    plan: { ...plan, breadboard: wanted },
    inverse: [{ kind: 'breadboard', breadboard: plan.breadboard }],
  }),
};
