/** An interval of one quantity; the unit is in the name of the field that holds it. */
export interface Range {
  readonly min: number;
  readonly typ?: number;
  readonly max: number;
}

/** Whether every value of `inner` lies within `outer` (ends included).
 *  @example encloses({ min: 3, max: 5.5 }, { min: 3.2, max: 3.4 }) // true */
export function encloses(outer: Range, inner: Range): boolean {
  return inner.min >= outer.min && inner.max <= outer.max;
}

/** The typical value, or the middle of the interval where none is stated.
 *  @example typical({ min: 3, max: 5 }) // 4 */
export function typical(range: Range): number {
  return range.typ ?? (range.min + range.max) / 2;
}

/** The interval of one value. */
export function point(value: number): Range {
  return { min: value, max: value };
}

/** Nominal voltages so near each other are one: a single-board computer calls 5.1 V its 5 V. */
const SAME_NOMINAL = 0.03;

/** Whether two supplies have one nominal voltage. */
export const isSameNominal = (a: Range, b: Range): boolean => Math.abs(typical(a) - typical(b)) <= SAME_NOMINAL * typical(b);
