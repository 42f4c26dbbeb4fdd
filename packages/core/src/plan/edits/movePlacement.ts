import { type EditRule, placementIndex, refuse } from '../edit';

export const movePlacement: EditRule<'move-placement'> = {
  apply(plan, edit) {
    const from = placementIndex(plan, edit.placement);
    const placement = plan.placements[from];
    if (!placement) return refuse('placement', 'a part of this plan', edit.placement);
    const to = Math.min(edit.at, plan.placements.length - 1);
    return {
      ok: true,
      plan: { ...plan, placements: plan.placements.toSpliced(from, 1).toSpliced(to, 0, placement) },
      inverse: [{ kind: 'move-placement', placement: placement.id, at: from }],
    };
  },
};
