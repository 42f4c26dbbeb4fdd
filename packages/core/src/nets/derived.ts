import type { Plan } from '../plan/plan';
import type { Sheets } from '../sheets/sheetIndex';

/** Remembers what follows from a plan and its sheets for as long as both are there. Both are values: the same two
 *  always give the same, and one edit's views, checks and solver ask for it many times. */
export function derived<T>(make: (plan: Plan, sheets: Sheets) => T): (plan: Plan, sheets: Sheets) => T {
  const known = new WeakMap<Plan, WeakMap<Sheets, { readonly value: T }>>();
  return (plan, sheets) => {
    let ofPlan = known.get(plan);
    if (!ofPlan) known.set(plan, (ofPlan = new WeakMap()));
    let found = ofPlan.get(sheets);
    if (!found) ofPlan.set(sheets, (found = { value: make(plan, sheets) }));
    return found.value;
  };
}
