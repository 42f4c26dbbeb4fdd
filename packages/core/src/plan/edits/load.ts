import { type EditRule, placementIndex, refuse } from '../edit';

/** Says how many units of a part there are and how much of it is on at once, or (with `null`) nothing of it. */
export const load: EditRule<'load'> = {
  kind: 'load',
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
