import { type EditRule, partOf, placementIndex, refuse } from '../edit';

/** Says that the pull-ups on a module are cut, or left as they came. */
export const cutPullUps: EditRule<'cut-pull-ups'> = {
  kind: 'cut-pull-ups',
  apply(plan, { placement: id, cut }, sheets) {
    const at = placementIndex(plan, id);
    const placement = plan.placements[at];
    if (!placement) return refuse('placement', 'a part of this plan', id);
    // What a sheet no longer has can still be taken back.
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
