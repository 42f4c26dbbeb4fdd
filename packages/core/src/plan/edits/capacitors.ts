import { type EditRule, placementIndex, refuse } from '../edit';

/** Adds or removes the decoupling capacitors that a part's sheet requires. */
export const capacitors: EditRule<'capacitors'> = {
  apply(plan, { placement, there }) {
    if (placementIndex(plan, placement) < 0) return refuse('placement', 'a part of this plan', placement);
    const { [placement]: before, ...others } = plan.capacitors;
    return {
      ok: true,
      plan: { ...plan, capacitors: there ? { ...others, [placement]: true } : others },
      inverse: [{ kind: 'capacitors', placement, there: before === true }],
    };
  },
};
