import type { Plan } from '../plan/plan';
import type { Sheets } from '../sheets/sheetIndex';

/** What is known of a plan under some sheets: a value for each question, in the order in which the questions were made. */
interface Known {
  readonly plan: Plan;
  readonly sheets: Sheets;
  readonly values: unknown[];
}

const known = new WeakMap<Plan, WeakMap<Sheets, Known>>();
/** Most questions are about the plan that the one before was about: to see that is quicker than to look it up. */
let latest: Known | undefined;
let questions = 0;

function knownOf(plan: Plan, sheets: Sheets): Known {
  if (latest?.plan === plan && latest.sheets === sheets) return latest;
  let ofPlan = known.get(plan);
  if (!ofPlan) known.set(plan, (ofPlan = new WeakMap<Sheets, Known>()));
  let found = ofPlan.get(sheets);
  if (!found) ofPlan.set(sheets, (found = { plan, sheets, values: [] }));
  latest = found;
  return found;
}

/** Represents an undefined result. */
const NOTHING = Symbol('nothing');

/** Remembers what follows from a plan and its sheets for as long as both are there. Both are values: the same two
 *  always give the same, and one edit's views, checks and solver ask for it many times. */
export function derived<T>(make: (plan: Plan, sheets: Sheets) => T): (plan: Plan, sheets: Sheets) => T {
  const question = (questions += 1);
  return (plan, sheets) => {
    const { values } = knownOf(plan, sheets);
    let value = values[question];
    if (value === undefined) {
      const made = make(plan, sheets);
      value = made === undefined ? NOTHING : made;
      values[question] = value;
    }
    return (value === NOTHING ? undefined : value) as T;
  };
}
