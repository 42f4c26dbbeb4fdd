import { remembered } from '../quantity/remembered';
import { typical } from '../quantity/range';
import type { PullUp } from './busPullUps';

/** Where a line rests that resistors pull to several supplies, in volts.
 *  0 V without any. */
export function restAt(pulls: readonly { readonly ohms: number; readonly volts: number }[]): number {
  if (pulls.length === 0) return 0;
  return pulls.reduce((sum, p) => sum + p.volts / p.ohms, 0) / pulls.reduce((sum, p) => sum + 1 / p.ohms, 0);
}

/** Where a line rests for somebody whose rail is at a voltage. What pulls to the same rail is at that voltage, too; everything else, and each
 *  resistor, is where it brings the line farthest up or farthest down. */
export function restFor(pullUps: readonly PullUp[], rail: string | undefined, volts: number, corner: RestCorner): number {
  const known = restsKnown(pullUps);
  const key = `${corner} ${volts} ${rail}`;
  let rest = known.get(key);
  if (rest === undefined) known.set(key, (rest = findRest(pullUps, rail, volts, corner)));
  return rest;
}

type RestCorner = 'min' | 'max';

/** Everybody on a line asks for the same few. */
const restsKnown = remembered((_pullUps: readonly PullUp[]) => new Map<string, number>());

function findRest(pullUps: readonly PullUp[], rail: string | undefined, volts: number, corner: RestCorner): number {
  const pulls = pullUps.map((pull) => {
    const elsewhere = pull.volts[corner];
    return { range: pull.ohms, ohms: typical(pull.ohms), volts: rail !== undefined && pull.rail === rail ? volts : elsewhere };
  });
  const middle = restAt(pulls);
  return restAt(
    pulls.map((one) => {
      const helps = corner === 'min' ? one.volts < middle : one.volts > middle;
      return { volts: one.volts, ohms: helps ? one.range.min : one.range.max };
    }),
  );
}
