import type { EditRule } from '../edit';

/** Keeps a plan as it was built, so that later changes can be told from it. */
export const built: EditRule<'built'> = {
  kind: 'built',
  apply: (plan, { built: wanted }) => ({
    ok: true,
    plan: { ...plan, built: wanted },
    inverse: [{ kind: 'built', built: plan.built }],
  }),
};
