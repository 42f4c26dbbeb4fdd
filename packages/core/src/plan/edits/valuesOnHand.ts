import { type EditRule } from '../edit';

/** Sets the resistor values on hand. */
export const valuesOnHand: EditRule<'values-on-hand'> = {
  apply: (plan, { valuesOnHand: wanted }) => ({
    ok: true,
    plan: { ...plan, valuesOnHand: wanted },
    inverse: [{ kind: 'values-on-hand', valuesOnHand: plan.valuesOnHand }],
  }),
};
