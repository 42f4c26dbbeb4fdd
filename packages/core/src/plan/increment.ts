import { lastOrThrow } from '../collections/orThrow';
import { endPlacement } from './planRails';
import { memoizeByObject } from '../memo/memoizeByObject';
import type { Edit } from './edit';
import { type Plan, splitKey } from './plan';

/** That a plan is another with one part more, at the end, and wires and settings of that part only. */
export interface Increment {
  readonly base: Plan;
  /** The id of the part that came. */
  readonly placement: string;
}

const increments = new WeakMap<Plan, Increment>();

/** Edits of a part that concern nothing else. */
const OWN: ReadonlySet<Edit['kind']> = new Set(['wire', 'unwire', 'strap', 'series', 'capacitors']);

/** The plan that this one has one part more than, where it came about like that: what was found out about that plan holds in this one but
 *  for what the new part meets. Undefined is always a right answer. */
export const incrementOf = (plan: Plan): Increment | undefined => increments.get(plan);

/** Records the predecessor of a plan. Of several steps only the last is kept; otherwise every plan would keep all predecessors alive. */
export function setIncrement(plan: Plan, increment: Increment): void {
  increments.set(plan, increment);
  increments.delete(increment.base);
}

/** The parts that wires begin or end at. Remembered: of one plan many parts are tried. */
const namedIn = memoizeByObject(
  (wires: Plan['wires']): ReadonlySet<string> =>
    new Set(
      Object.entries(wires).flatMap(([key, { end }]) => [splitKey(key).placement, endPlacement(end)].filter((id) => id !== undefined)),
    ),
);

/** Notes the increment of a plan that edits have made of another: one of any kind, or several wires. */
export function noteIncrement(before: Plan, edits: readonly Edit[], after: Plan): void {
  const [edit] = edits;
  if (edit?.kind === 'add-placement') {
    const { id } = edit.placement;
    // Wires from or to a part that was not there must not find it unnoticed.
    if (lastOrThrow(after.placements).id === id && !namedIn(before.wires).has(id)) setIncrement(after, { base: before, placement: id });
    return;
  }
  const increment = increments.get(before);
  if (increment && edits.every((one) => OWN.has(one.kind) && 'placement' in one && one.placement === increment.placement))
    increments.set(after, increment);
}
