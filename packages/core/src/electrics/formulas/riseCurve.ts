import { type PullUpInput, riseAt } from './busPullUps';

export interface RisePoint {
  readonly seconds: number;
  /** Volts at the weakest and the strongest corner. */
  readonly slow: number;
  readonly fast: number;
}

/** The levels between which a rise is timed, in volts at a supply: UM10204, 0.3 and 0.7 of it. */
export const riseLevels = (vdd: number): readonly [low: number, high: number] => [0.3 * vdd, 0.7 * vdd];

/** A line released at 0 V, both corners of its pull-ups, over half a clock period. Empty without pull-ups.
 *  @param points how many, the first and the last among them */
export function riseCurve(input: PullUpInput, points = 61): readonly RisePoint[] {
  if (input.pullUps.length === 0) return [];
  const [slow, fast] = [riseAt(input, 'weak'), riseAt(input, 'strong')];
  return Array.from({ length: points }, (_, at) => {
    const seconds = (at / (points - 1)) * (0.5 / input.hz);
    return { seconds, slow: slow.rise.at(slow.own, seconds), fast: fast.rise.at(fast.own, seconds) };
  });
}
