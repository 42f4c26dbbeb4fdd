import { type EditRule, partOf, placementIndex, refuse } from '../edit';

/** Sets a solder jumper. Straps that are terminals are wires, and set by wiring them. */
export const strap: EditRule<'strap'> = {
  apply(plan, edit, sheets) {
    const at = placementIndex(plan, edit.placement);
    const placement = plan.placements[at];
    const known = partOf(plan, edit.placement, sheets)?.sheet.bus.straps?.find((s) => s.id === edit.strap);
    if (!placement) return refuse('placement', 'a part of this plan', edit.placement);
    if (known?.by !== 'jumper') return refuse('strap', 'a solder jumper of this part', edit.strap);
    if (!known.states.some((state) => state.id === edit.state)) {
      return refuse('state', known.states.map((s) => s.id).join(' or '), edit.state);
    }
    const before = placement.straps[edit.strap] ?? known.default;
    const { [edit.strap]: _gone, ...others } = placement.straps;
    const straps = edit.state === known.default ? others : { ...others, [edit.strap]: edit.state };
    return {
      ok: true,
      plan: { ...plan, placements: plan.placements.with(at, { ...placement, straps }) },
      inverse: [{ ...edit, state: before }],
    };
  },
};
