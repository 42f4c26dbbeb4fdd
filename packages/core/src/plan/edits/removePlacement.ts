import { type Edit, type EditRule, placementIndex, refuse } from '../edit';
import { type Plan, splitKey, type Wire } from '../plan';
import { segmentPlacement } from './busSettings';

const touches = (key: string, wire: Wire | undefined, id: string): boolean =>
  splitKey(key).placement === id || (wire?.end.to === 'terminal' && wire.end.placement === id);

/** The edits that put a part's wires and ticks back, in an order that always applies. */
function restoring(plan: Plan, id: string): Edit[] {
  const wires = Object.entries(plan.wires).filter(([key, wire]) => touches(key, wire, id));
  const ticks = Object.entries(plan.ticks).filter(([key]) => splitKey(key).placement === id);
  return [
    ...wires.map(([key, wire]): Edit => ({ kind: 'wire', ...splitKey(key), end: wire.end, colour: wire.colour })),
    ...wires.filter(([, wire]) => wire.locked).map(([key]): Edit => ({ kind: 'lock', ...splitKey(key), locked: true })),
    ...ticks.map(([key, end]): Edit => ({ kind: 'tick', ...splitKey(key), end })),
    ...Object.entries(plan.wishes)
      .filter(([key]) => splitKey(key).placement === id)
      .map(([key, wish]): Edit => ({ kind: 'wish', ...splitKey(key), wish })),
    ...Object.entries(plan.pulls)
      .filter(([key]) => splitKey(key).placement === id)
      .map(([key, pull]): Edit => ({ kind: 'pull', ...splitKey(key), pull })),
    ...Object.entries(plan.drivers)
      .filter(([key]) => splitKey(key).placement === id)
      .map(([key, driver]): Edit => ({ kind: 'driver', ...splitKey(key), driver })),
    ...Object.entries(plan.series)
      .filter(([key]) => splitKey(key).placement === id)
      .map(([key, ohms]): Edit => ({ kind: 'series', ...splitKey(key), ohms })),
    ...Object.entries(plan.busSettings)
      .filter(([segment]) => segmentPlacement(segment) === id)
      .map(([segment, settings]): Edit => ({ kind: 'bus-settings', segment, settings })),
    ...(plan.loads[id] ? [{ kind: 'load' as const, placement: id, load: plan.loads[id] }] : []),
    ...(plan.readouts[id] ? [{ kind: 'readout' as const, placement: id, readout: plan.readouts[id] }] : []),
    ...(plan.capacitors[id] ? [{ kind: 'capacitors' as const, placement: id, there: true }] : []),
    ...(plan.rates[id] === undefined ? [] : [{ kind: 'rate' as const, placement: id, perSecond: plan.rates[id] }]),
    ...(plan.together[id] ? [{ kind: 'together' as const, placement: id, how: plan.together[id] }] : []),
  ];
}

export const removePlacement: EditRule<'remove-placement'> = {
  kind: 'remove-placement',
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
        wishes: Object.fromEntries(Object.entries(plan.wishes).filter(([key]) => splitKey(key).placement !== edit.placement)),
        pulls: Object.fromEntries(Object.entries(plan.pulls).filter(([key]) => splitKey(key).placement !== edit.placement)),
        drivers: Object.fromEntries(Object.entries(plan.drivers).filter(([key]) => splitKey(key).placement !== edit.placement)),
        series: Object.fromEntries(Object.entries(plan.series).filter(([key]) => splitKey(key).placement !== edit.placement)),
        busSettings: Object.fromEntries(Object.entries(plan.busSettings).filter(([id]) => segmentPlacement(id) !== edit.placement)),
        loads: Object.fromEntries(Object.entries(plan.loads).filter(([id]) => id !== edit.placement)),
        readouts: Object.fromEntries(Object.entries(plan.readouts).filter(([id]) => id !== edit.placement)),
        capacitors: Object.fromEntries(Object.entries(plan.capacitors).filter(([id]) => id !== edit.placement)),
        rates: Object.fromEntries(Object.entries(plan.rates).filter(([id]) => id !== edit.placement)),
        together: Object.fromEntries(Object.entries(plan.together).filter(([id]) => id !== edit.placement)),
      },
      inverse: [{ kind: 'add-placement', placement, at }, ...restoring(plan, edit.placement)],
    };
  },
};
