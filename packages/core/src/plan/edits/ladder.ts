import { type EditRule, partOf, refuse } from '../edit';

/** Says which resistors the keys on one analog pin have, or (with `null`) that nobody knows. */
export const ladder: EditRule<'ladder'> = {
  kind: 'ladder',
  apply(plan, { placement, ladder: wanted }, sheets) {
    const part = partOf(plan, placement, sheets);
    if (!part) return refuse('placement', 'a part of this plan', placement);
    if (wanted && part.sheet.keys?.as !== 'ladder') return refuse('placement', 'keys on a ladder of resistors', placement);
    const { [placement]: before, ...others } = plan.ladders;
    return {
      ok: true,
      plan: { ...plan, ladders: wanted ? { ...others, [placement]: wanted } : others },
      inverse: [{ kind: 'ladder', placement, ladder: before ?? null }],
    };
  },
};
