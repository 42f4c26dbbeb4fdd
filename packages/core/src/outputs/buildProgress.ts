import { type Plan, sameEnd } from '../plan/plan';
import type { Sheets } from '../sheets/sheetIndex';
import { buildList } from './buildList';

/** How much of a plan is built. */
export interface BuildProgress {
  /** Wires of the plan; what is soldered to its board needs none. */
  readonly wires: number;
  /** Those done on the bench where they are now. */
  readonly ticked: number;
}

/** Wires that are ticked in the holes that they have now, where the plan keeps in which they were made. */
function tickedInHoles(plan: Plan, sheets: Sheets): number | undefined {
  if (!plan.breadboard || !Object.keys(plan.steps).some((step) => step.startsWith('wire:'))) return undefined;
  const list = buildList(plan, sheets);
  return list && [...list.supplies, ...list.signals].filter(({ ticked }) => ticked).length;
}

/** Counts the wires of a plan, and those that are ticked where they are now. */
export function buildProgress(plan: Plan, sheets: Sheets): BuildProgress {
  const soldered = plan.placements.filter(({ onBoard }) => onBoard).map(({ id }) => `${id}:`);
  const wires = Object.entries(plan.wires).filter(([key]) => !soldered.some((id) => key.startsWith(id)));
  const ticked = wires.filter(([key, { end }]) => sameEnd(plan.ticks[key], end)).length;
  return { wires: wires.length, ticked: tickedInHoles(plan, sheets) ?? ticked };
}
