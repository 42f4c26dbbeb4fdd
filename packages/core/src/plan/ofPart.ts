import type { Edit } from './edit';
import { isShortPlace, placeOf } from './findingPlace';
import { type Plan, splitKey } from './plan';

/** Steps of the build that are about one part, by the beginning of their ids. */
const OF_PARTS = new Set(['plug', 'light', 'found', 'sure', 'component', 'wire', 'cut', 'idle', 'strap', 'others', 'source']);

/** The part that a step of the build is about; undefined of those of the board and of the whole.
 *  @example stepOwner('found:sensor-1:DS3231') // 'sensor-1' */
export function stepOwner(step: string): string | undefined {
  const [kind = '', owner] = step.split(':');
  return OF_PARTS.has(kind) ? owner : undefined;
}

/** Whether a finding may be about a part: its id names the part, or a terminal of it, or was shortened and may name it where it was cut.
 *  @example isAbout('level-damage/over/GP4||display-1:SDA', (id) => id === 'display-1') // true */
export function isAbout(finding: string, isPart: (placement: string) => boolean): boolean {
  const place = placeOf(finding);
  return isShortPlace(place) || place.split(/[|,]/).some((name) => isPart(name.split(':', 1)[0] ?? ''));
}

/** Whether a finding was judged on its board: all but those that name parts alone.
 *  @example isOfBoard('level-no-margin/thin/GP4||display-1:SDA') // true */
export function isOfBoard(finding: string): boolean {
  const place = placeOf(finding);
  const [pins, , ...others] = place.split('|');
  return isShortPlace(place) || pins !== '' || others.some((names) => names !== '');
}

/** Whether something is kept in the plan that is about a part: steps that are done, accepted findings, ticks, wires as built. The id of a
 *  part that has gone is not given to another one as long as it is: that one would be done, accepted or built as well. */
export const isTraced = ({ steps, accepted, ticks, built }: Plan, id: string): boolean => {
  const isPart = (placement: string | undefined) => placement === id;
  const keys = [...Object.keys(ticks), ...Object.keys(built?.wires ?? {})];
  return (
    Object.keys(steps).some((step) => isPart(stepOwner(step))) ||
    Object.keys(accepted).some((finding) => isAbout(finding, isPart)) ||
    keys.some((key) => isPart(splitKey(key).placement))
  );
};

/** The edits that leave nothing done and nothing accepted of a part: another one takes its place. */
export const nothingDone = ({ steps, accepted }: Plan, id: string): readonly Edit[] => [
  ...Object.keys(steps).flatMap((step): Edit[] => (stepOwner(step) === id ? [{ kind: 'step', step, done: null }] : [])),
  ...Object.keys(accepted).flatMap((finding): Edit[] =>
    isAbout(finding, (placement) => placement === id) ? [{ kind: 'accept', finding, reason: null }] : [],
  ),
];
