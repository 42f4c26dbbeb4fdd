import { type EditRule, placementIndex, refuse } from '../edit';

export const renamePlacement: EditRule<'rename-placement'> = {
  apply(plan, edit) {
    const at = placementIndex(plan, edit.placement);
    const placement = plan.placements[at];
    if (!placement) return refuse('placement', 'a part of this plan', edit.placement);
    return {
      ok: true,
      plan: { ...plan, placements: plan.placements.with(at, { ...placement, name: edit.name }) },
      inverse: [{ kind: 'rename-placement', placement: placement.id, name: placement.name }],
    };
  },
};
