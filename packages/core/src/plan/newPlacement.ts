import type { PartSheet } from '../sheets/partSheet';
import { isTraced } from './ofPart';
import type { Placement, Plan } from './plan';

/** The first of a numbered series of names that is not taken.
 *  @example firstFree((name) => name === 'led-1', (n) => `led-${n}`) // 'led-2' */
export function firstFree(isTaken: (name: string) => boolean, make: (n: number) => string): string {
  let n = 1;
  while (isTaken(make(n))) n += 1;
  return make(n);
}

/** A placement of a part with an id and a name that the plan does not have yet, and of whose id nothing is left either.
 *  @example newPlacement(plan, oled) // { id: 'display-1', name: 'OLED 128×64', ... } */
export function newPlacement(plan: Plan, part: PartSheet): Placement {
  const ids = new Set(plan.placements.map((p) => p.id));
  const names = new Set(plan.placements.map((p) => p.name));
  return {
    id: firstFree(
      (id) => ids.has(id) || isTraced(plan, id),
      (n) => `${part.family}-${n}`,
    ),
    sheet: { id: part.id, version: part.version },
    name: firstFree(
      (name) => names.has(name),
      (n) => (n === 1 ? part.short : `${part.short} ${n}`),
    ),
    straps: {},
  };
}
