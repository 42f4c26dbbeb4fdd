import { endPlacement } from '../planRails';
import { type Edit, type EditRule, placementIndex, refuse } from '../edit';
import { type Plan, splitKey, type Wire } from '../plan';
import { mapEntries, mapsKept } from '../planMaps';
import { segmentPlacement } from './busSettings';

const touches = (key: string, wire: Wire | undefined, id: string): boolean =>
  splitKey(key).placement === id || (wire !== undefined && endPlacement(wire.end) === id);

/** The edits that put a part's wires and ticks back, in an order that always applies. */
function restoring(plan: Plan, id: string): Edit[] {
  const wires = Object.entries(plan.wires).filter(([key, wire]) => touches(key, wire, id));
  const ticks = Object.entries(plan.ticks).filter(([key]) => splitKey(key).placement === id);
  return [
    ...wires.map(([key, wire]): Edit => ({ kind: 'wire', ...splitKey(key), end: wire.end, colour: wire.colour })),
    ...wires.filter(([, wire]) => wire.locked).map(([key]): Edit => ({ kind: 'lock', ...splitKey(key), locked: true })),
    ...ticks.map(([key, end]): Edit => ({ kind: 'tick', ...splitKey(key), end })),
    ...Object.entries(plan.busSettings)
      .filter(([segment]) => segmentPlacement(segment) === id)
      .map(([segment, settings]): Edit => ({ kind: 'bus-settings', segment, settings })),
    ...mapEntries(plan)
      .filter((entry) => entry.owner === id)
      .map((entry) => entry.set),
  ];
}

export const removePlacement: EditRule<'remove-placement'> = {
  apply(plan, edit) {
    const at = placementIndex(plan, edit.placement);
    const placement = plan.placements[at];
    if (!placement) return refuse('placement', 'a part of this plan', edit.placement);
    if (placement.onBoard) return refuse('placement', 'a part that is not soldered to the board', edit.placement);
    const wires = Object.entries(plan.wires).filter(([key, wire]) => !touches(key, wire, edit.placement));
    const ticks = Object.entries(plan.ticks).filter(([key]) => splitKey(key).placement !== edit.placement);
    return {
      ok: true,
      plan: {
        ...plan,
        placements: plan.placements.toSpliced(at, 1),
        wires: Object.fromEntries(wires),
        ticks: Object.fromEntries(ticks),
        busSettings: Object.fromEntries(Object.entries(plan.busSettings).filter(([id]) => segmentPlacement(id) !== edit.placement)),
        ...mapsKept(plan, (owner) => owner !== edit.placement),
      },
      inverse: [{ kind: 'add-placement', placement, at }, ...restoring(plan, edit.placement)],
    };
  },
};
