import { type EditRule } from '../edit';

/** Sets the resistor values on hand. */
export const drawer: EditRule<'drawer'> = {
  apply: (plan, { drawer: wanted }) => ({
    ok: true,
    plan: { ...plan, drawer: wanted },
    inverse: [{ kind: 'drawer', drawer: plan.drawer }],
  }),
};
