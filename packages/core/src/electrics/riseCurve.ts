import type { PullUpInput } from './busPullUps';
import { parallel } from './busPullUps';

export interface RisePoint {
  readonly seconds: number;
  /** Volts at the weakest and the strongest corner. */
  readonly slow: number;
  readonly fast: number;
}

/** The levels between which a rise is timed, in volts at a supply: UM10204, 0.3 and 0.7 of it. */
export const riseLevels = (vdd: number): readonly [low: number, high: number] => [0.3 * vdd, 0.7 * vdd];

/** A line let go at 0 V, at both corners of its pull-ups, over half a period of the clock. Empty without pull-ups.
 *  @param points how many, the first and the last among them */
export function riseCurve({ pullUps, internal, farads, hz }: PullUpInput, points = 61): readonly RisePoint[] {
  if (pullUps.length === 0) return [];
  const corner = (ohms: readonly number[], volts: readonly number[]) => {
    const all = parallel(ohms);
    const rest = all * volts.reduce((sum, v, at) => sum + v / ohms[at]!, 0);
    return (seconds: number) => rest * (1 - Math.exp(-seconds / (all * farads)));
  };
  const strong = [...pullUps, ...(internal ? [internal] : [])];
  const slow = corner(
    pullUps.map((p) => p.ohms.max),
    pullUps.map((p) => p.volts.min),
  );
  const fast = corner(
    strong.map((p) => p.ohms.min),
    strong.map((p) => p.volts.max),
  );
  return Array.from({ length: points }, (_, at) => {
    const seconds = (at / (points - 1)) * (0.5 / hz);
    return { seconds, slow: slow(seconds), fast: fast(seconds) };
  });
}
