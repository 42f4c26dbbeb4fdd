import type { EditRule } from '../edit';

/** Records the plan as built, so that later changes can be listed. */
export const built: EditRule<'built'> = {
  apply: (plan, { built: wanted }) => ({
    ok: true,
    plan: { ...plan, built: wanted },
    inverse: [{ kind: 'built', built: plan.built }],
  }),
};
