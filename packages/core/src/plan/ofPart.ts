import type { Edit } from './edit';
import type { Plan } from './plan';

type Entries = { readonly [key: string]: string };

/** Steps of the build that are about one part, by the beginning of their ids. */
const OF_PARTS = new Set(['plug', 'light', 'found', 'sure', 'component', 'wire', 'cut', 'idle', 'strap', 'others', 'source']);

/** The part that a step of the build is about; undefined of those of the board and of the whole.
 *  @example stepOwner('found:sensor-1:DS3231') // 'sensor-1' */
export function stepOwner(step: string): string | undefined {
  const [kind = '', owner] = step.split(':');
  return OF_PARTS.has(kind) ? owner : undefined;
}

/** Whether a finding is about a part: its id names the part, or a terminal of it. An id that was shortened changes with each part that it
 *  names, so that what is cut off needs no look.
 *  @example isAbout('level-damage/over/GP4||display-1:SDA', (id) => id === 'display-1') // true */
export const isAbout = (finding: string, isPart: (placement: string) => boolean): boolean =>
  finding
    .replace(/^[^/]*\/[^/]*\//, '')
    .split(/[|,]/)
    .some((name) => isPart(name.split(':', 1)[0] ?? ''));

const isStepOf = (step: string, isPart: (placement: string) => boolean): boolean => {
  const owner = stepOwner(step);
  return owner !== undefined && isPart(owner);
};

/** The same object where nothing goes: what is kept for it stays valid. */
function kept(entries: Entries, isGone: (key: string) => boolean): Entries {
  const all = Object.entries(entries);
  const left = all.filter(([key]) => !isGone(key));
  return left.length === all.length ? entries : Object.fromEntries(left);
}

/** Steps and accepted findings without those about some parts: another part under the same id begins with none.
 *  @param isGone whether a part goes */
export const withoutParts = ({ steps, accepted }: Plan, isGone: (placement: string) => boolean): Pick<Plan, 'steps' | 'accepted'> => ({
  steps: kept(steps, (step) => isStepOf(step, isGone)),
  accepted: kept(accepted, (finding) => isAbout(finding, isGone)),
});

/** Whether a finding was judged on its board: all but those that name parts alone.
 *  @example isOfBoard('level-no-margin/thin/GP4||display-1:SDA') // true */
export const isOfBoard = (finding: string): boolean => {
  const [pins, , ...others] = finding.replace(/^[^/]*\/[^/]*\//, '').split('|');
  return pins !== '' || others.some((names) => names !== '');
};

/** The edits that bring steps and accepted findings about some parts back. */
export const backOfParts = ({ steps, accepted }: Plan, isBack: (placement: string) => boolean): readonly Edit[] => [
  ...Object.entries(steps).flatMap(([step, done]): Edit[] => (isStepOf(step, isBack) ? [{ kind: 'step', step, done }] : [])),
  ...Object.entries(accepted).flatMap(([finding, reason]): Edit[] =>
    isAbout(finding, isBack) ? [{ kind: 'accept', finding, reason }] : [],
  ),
];
