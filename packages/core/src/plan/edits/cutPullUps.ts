import { type EditRule, partOf, placementIndex, refuse } from '../edit';

/** Marks the pull-ups on a module as disconnected, or as delivered. */
export const cutPullUps: EditRule<'cut-pull-ups'> = {
  apply(plan, { placement: id, cut }, sheets) {
    const at = placementIndex(plan, id);
    const placement = plan.placements[at];
    if (!placement) return refuse('placement', 'a part of this plan', id);
    // A setting that the sheet no longer supports can still be removed.
    if (cut && !partOf(plan, id, sheets)?.sheet.module.pullUps?.length)
      return refuse('placement', 'a part with pull-ups on its module', id);
    const { pullUpsCut: before, ...rest } = placement;
    return {
      ok: true,
      plan: { ...plan, placements: plan.placements.with(at, cut ? { ...rest, pullUpsCut: true } : rest) },
      inverse: [{ kind: 'cut-pull-ups', placement: id, cut: before === true }],
    };
  },
};
