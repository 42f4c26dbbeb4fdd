/** What is known of two objects together: a value for each function, in the order in which the functions were made. */
interface Known {
  readonly first: object;
  readonly second: object;
  readonly values: unknown[];
}

const known = new WeakMap<object, WeakMap<object, Known>>();
/** Most calls are about the pair that the one before was about: to see that is quicker than to look it up. */
let latest: Known | undefined;
let functions = 0;

function knownOf(first: object, second: object): Known {
  if (latest?.first === first && latest.second === second) return latest;
  let ofFirst = known.get(first);
  if (!ofFirst) known.set(first, (ofFirst = new WeakMap<object, Known>()));
  let found = ofFirst.get(second);
  if (!found) ofFirst.set(second, (found = { first, second, values: [] }));
  latest = found;
  return found;
}

/** Represents an undefined result. */
const NOTHING = Symbol('nothing');

/** Keeps what a pure function gave for two objects, such as a plan and its sheets, for as long as both are there. Both must be values: the
 *  same two always give the same. Views, checks and solver ask for it many times after one edit.
 *  @example const findNets = memoizeByPair((plan: Plan, sheets: Sheets): Nets => …) */
export function memoizeByPair<A extends object, B extends object, T>(make: (first: A, second: B) => T): (first: A, second: B) => T {
  const at = (functions += 1);
  return (first, second) => {
    const { values } = knownOf(first, second);
    let value = values[at];
    if (value === undefined) {
      const made = make(first, second);
      value = made === undefined ? NOTHING : made;
      values[at] = value;
    }
    return (value === NOTHING ? undefined : value) as T;
  };
}
