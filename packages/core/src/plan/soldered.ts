import type { Soldered } from './edit';
import { type Plan, splitKey } from './plan';

/** The soldered parts of a plan with their list positions and wires. */
export function solderedIn(plan: Plan): readonly Soldered[] {
  return plan.placements.flatMap((placement, at) => {
    if (!placement.onBoard) return [];
    const own = Object.entries(plan.wires).filter(([key]) => splitKey(key).placement === placement.id);
    const wires = Object.fromEntries(own.map(([key, wire]) => [splitKey(key).terminal, wire]));
    return [{ at, placement: { ...placement, onBoard: true as const }, wires }];
  });
}
