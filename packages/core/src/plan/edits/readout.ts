import { type EditRule, placementIndex, refuse } from '../edit';

/** Sets the contents of a display, or the default (`null`). */
export const readout: EditRule<'readout'> = {
  apply(plan, { placement, readout: wanted }) {
    if (placementIndex(plan, placement) < 0) return refuse('placement', 'a part of this plan', placement);
    const { [placement]: before, ...others } = plan.readouts;
    return {
      ok: true,
      plan: { ...plan, readouts: wanted ? { ...others, [placement]: wanted } : others },
      inverse: [{ kind: 'readout', placement, readout: before ?? null }],
    };
  },
};
