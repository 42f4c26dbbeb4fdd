import { type EditRule, placementIndex, refuse } from '../edit';

/** Sets the quantity of a part and the fraction on at once, or the default (`null`). */
export const load: EditRule<'load'> = {
  apply(plan, { placement, load: wanted }) {
    if (placementIndex(plan, placement) < 0) return refuse('placement', 'a part of this plan', placement);
    const { [placement]: before, ...others } = plan.loads;
    return {
      ok: true,
      plan: { ...plan, loads: wanted ? { ...others, [placement]: wanted } : others },
      inverse: [{ kind: 'load', placement, load: before ?? null }],
    };
  },
};
