/** Preferred values of IEC 60063, one decade each, in hundredths where three digits count. */

/** E24 and its halves are older than the formula: 2.7 to 4.7 and 8.2 are not what it gives. */
const E24 = [1.0, 1.1, 1.2, 1.3, 1.5, 1.6, 1.8, 2.0, 2.2, 2.4, 2.7, 3.0, 3.3, 3.6, 3.9, 4.3, 4.7, 5.1, 5.6, 6.2, 6.8, 7.5, 8.2, 9.1];

const every = (values: readonly number[], step: number): readonly number[] => values.filter((_, at) => at % step === 0);

/** The finer series by the formula of the standard, rounded to three digits; of all their values one differs from it. */
function fine(count: 48 | 96 | 192): readonly number[] {
  return Array.from({ length: count }, (_, at) => {
    const value = Number((10 ** (at / count)).toFixed(2));
    return value === 9.19 ? 9.2 : value;
  });
}

export const SERIES = {
  E3: every(E24, 8),
  E6: every(E24, 4),
  E12: every(E24, 2),
  E24,
  E48: fine(48),
  E96: fine(96),
  E192: fine(192),
} as const;
export type Series = keyof typeof SERIES;

/** All values of a series within bounds, in rising order.
 *  @example valuesOf('E3', 1000, 10_000) // [1000, 2200, 4700, 10000] */
export function valuesOf(series: Series, min: number, max: number): readonly number[] {
  if (!(min > 0) || !(max >= min) || !Number.isFinite(max)) throw new RangeError(`Invalid bounds ${min} to ${max}: expected 0 < min ≤ max`);
  const values: number[] = [];
  for (let decade = Math.floor(Math.log10(min)); decade <= Math.floor(Math.log10(max)); decade += 1)
    for (const one of SERIES[series]) {
      const value = Number((one * 10 ** decade).toPrecision(3));
      if (value >= min && value <= max) values.push(value);
    }
  return values;
}

/** The values on hand: of a series or a custom list, within bounds, ascending.
 *  @example valuesWithin({ series: 'own', own: [4700, 330] }, 100, 1e6) // [330, 4700] */
export function valuesWithin(
  onHand: { readonly series: Series | 'own'; readonly own?: readonly number[] },
  min: number,
  max: number,
): readonly number[] {
  if (onHand.series !== 'own') return valuesOf(onHand.series, min, max);
  return (onHand.own ?? []).filter((value) => value >= min && value <= max).toSorted((a, b) => a - b);
}

/** The one of some values that is nearest to another on a scale of ratios; undefined without any. */
export function nearestOf(values: readonly number[], value: number): number | undefined {
  return values.reduce<number | undefined>(
    (a, b) => (a === undefined || Math.abs(Math.log(b / value)) < Math.abs(Math.log(a / value)) ? b : a),
    undefined,
  );
}
