import { type EditRule, placementIndex, refuse } from '../edit';

/** Puts a module elsewhere in the wiring picture, or lets it find its place again. */
export const arrange: EditRule<'arrange'> = {
  apply(plan, { placement, place }) {
    if (place && placementIndex(plan, placement) < 0) return refuse('placement', 'a part of this plan', placement);
    const { [placement]: before, ...others } = plan.layout;
    return {
      ok: true,
      plan: { ...plan, layout: place ? { ...others, [placement]: place } : others },
      inverse: [{ kind: 'arrange', placement, place: before ?? null }],
    };
  },
};
