import { type EditRule, placementIndex, refuse } from '../edit';

/** How the signals of a part should lie, or (with `null`) that it does not matter. */
export const together: EditRule<'together'> = {
  apply(plan, { placement, how }) {
    if (placementIndex(plan, placement) < 0) return refuse('placement', 'a part of this plan', placement);
    const { [placement]: before, ...others } = plan.together;
    return {
      ok: true,
      plan: { ...plan, together: how ? { ...others, [placement]: how } : others },
      inverse: [{ kind: 'together', placement, how: before ?? null }],
    };
  },
};
