import { type Plan, sameEnd } from '../plan/plan';

/** How much of a plan is built. */
export interface BuildProgress {
  /** Wires of the plan; what is soldered to its board needs none. */
  readonly wires: number;
  /** Those done on the bench where they are now. */
  readonly ticked: number;
}

/** Counts the wires of a plan, and those that are ticked at the end they have now. */
export function buildProgress(plan: Plan): BuildProgress {
  const soldered = plan.placements.filter(({ onBoard }) => onBoard).map(({ id }) => `${id}:`);
  const wires = Object.entries(plan.wires).filter(([key]) => !soldered.some((id) => key.startsWith(id)));
  return { wires: wires.length, ticked: wires.filter(([key, { end }]) => sameEnd(plan.ticks[key], end)).length };
}
