import type { Edit } from './edit';
import type { Plan } from './plan';

/** Steps of the build that are about one part, by the beginning of their ids. */
const OF_PARTS = new Set(['plug', 'light', 'found', 'sure', 'component', 'wire', 'cut', 'idle', 'strap', 'others', 'source']);

/** The part that a step of the build is about; undefined of those of the board and of the whole.
 *  @example stepOwner('found:sensor-1:DS3231') // 'sensor-1' */
export function stepOwner(step: string): string | undefined {
  const [kind = '', owner] = step.split(':');
  return OF_PARTS.has(kind) ? owner : undefined;
}

/** Steps without those of some parts: another part under the same id begins with none. The same object where there are none of them.
 *  @param isGone whether a part goes */
export function stepsKept(steps: Plan['steps'], isGone: (placement: string) => boolean): Plan['steps'] {
  const all = Object.entries(steps);
  const kept = all.filter(([step]) => {
    const owner = stepOwner(step);
    return owner === undefined || !isGone(owner);
  });
  return kept.length === all.length ? steps : Object.fromEntries(kept);
}

/** The edits that mark the steps of some parts as done again. */
export const stepsOf = (steps: Plan['steps'], isOf: (placement: string) => boolean): readonly Edit[] =>
  Object.entries(steps).flatMap(([step, done]): Edit[] => (isOf(stepOwner(step) ?? '') ? [{ kind: 'step', step, done }] : []));
