import { memoizeByObject } from '../../memo/memoizeByObject';
import { typical } from '../../quantity/range';
import type { PullUp } from './busPullUps';

/** The idle level of a line with resistors to several supplies, in volts. 0 V without any. */
export function idleVoltage(pulls: readonly { readonly ohms: number; readonly volts: number }[]): number {
  if (pulls.length === 0) return 0;
  return pulls.reduce((sum, p) => sum + p.volts / p.ohms, 0) / pulls.reduce((sum, p) => sum + 1 / p.ohms, 0);
}

/** The worst-case idle level for a device with its rail at a given voltage. Pull-ups to the same rail use that voltage; all other rails
 *  and each resistor are at their worst corner. */
export function worstIdleVoltage(pullUps: readonly PullUp[], rail: string | undefined, volts: number, corner: RestCorner): number {
  const known = restsKnown(pullUps);
  const key = `${corner} ${volts} ${rail}`;
  let rest = known.get(key);
  if (rest === undefined) known.set(key, (rest = findRest(pullUps, rail, volts, corner)));
  return rest;
}

type RestCorner = 'min' | 'max';

/** Memoised: all devices on a line need the same few values. */
const restsKnown = memoizeByObject((_pullUps: readonly PullUp[]) => new Map<string, number>());

function findRest(pullUps: readonly PullUp[], rail: string | undefined, volts: number, corner: RestCorner): number {
  const pulls = pullUps.map((pull) => {
    const elsewhere = pull.volts[corner];
    return { range: pull.ohms, ohms: typical(pull.ohms), volts: rail !== undefined && pull.rail === rail ? volts : elsewhere };
  });
  const middle = idleVoltage(pulls);
  return idleVoltage(
    pulls.map((one) => {
      const helps = corner === 'min' ? one.volts < middle : one.volts > middle;
      return { volts: one.volts, ohms: helps ? one.range.min : one.range.max };
    }),
  );
}
