import { type EditRule, partOf, refuse } from '../edit';

/** Sets the resistor ladder of keys on one analog pin, or marks it unknown (`null`). */
export const ladder: EditRule<'ladder'> = {
  apply(plan, { placement, ladder: wanted }, sheets) {
    const part = partOf(plan, placement, sheets);
    if (!part) return refuse('placement', 'a part of this plan', placement);
    if (wanted && part.sheet.keys?.as !== 'ladder') return refuse('placement', 'keys on a resistor ladder', placement);
    const { [placement]: before, ...others } = plan.ladders;
    return {
      ok: true,
      plan: { ...plan, ladders: wanted ? { ...others, [placement]: wanted } : others },
      inverse: [{ kind: 'ladder', placement, ladder: before ?? null }],
    };
  },
};
