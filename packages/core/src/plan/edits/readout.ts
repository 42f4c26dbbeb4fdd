import { type EditRule, placementIndex, refuse } from '../edit';

/** Says how a display is used, or (with `null`) nothing of it. */
export const readout: EditRule<'readout'> = {
  kind: 'readout',
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
