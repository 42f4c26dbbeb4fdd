import { type EditRule } from '../edit';

/** Says which values of resistors the builder has. */
export const drawer: EditRule<'drawer'> = {
  kind: 'drawer',
  apply: (plan, { drawer: wanted }) => ({
    ok: true,
    plan: { ...plan, drawer: wanted },
    inverse: [{ kind: 'drawer', drawer: plan.drawer }],
  }),
};
