import { type EditRule, placementIndex, refuse } from '../edit';

/** Sets the update rate of a part. */
export const rate: EditRule<'rate'> = {
  apply(plan, { placement, perSecond }) {
    if (placementIndex(plan, placement) < 0) return refuse('placement', 'a part of this plan', placement);
    const { [placement]: before, ...others } = plan.rates;
    return {
      ok: true,
      plan: { ...plan, rates: perSecond === null ? others : { ...others, [placement]: perSecond } },
      inverse: [{ kind: 'rate', placement, perSecond: before ?? null }],
    };
  },
};
