import { atOrThrow, firstOrThrow, lastOrThrow } from '../../collections/orThrow';
import { type Range, typical } from '../../quantity/range';

/** Resistors that set the current of a driver's segments, as its datasheet lists them: one column for each voltage of the LEDs. */
export interface CurrentSetTable {
  readonly ledVolts: readonly number[];
  /** The most current first. */
  readonly rows: readonly { readonly milliamps: number; readonly kiloohms: readonly number[] }[];
}

/** What an LED driver draws with every segment lit, in amperes: its own supply current and that of the segments which are on at once.
 *  @param amps of one segment, in amperes
 *  @example driverAmps({ segments: 8, ownMilliamps: 8 }, { min: 0.04, max: 0.04 }).max // 0.328 */
export function driverAmps(
  { segments, ownMilliamps = 0 }: { readonly segments: number; readonly ownMilliamps?: number },
  amps: Range,
): Range {
  const total = (one: number): number => ownMilliamps / 1000 + one * segments;
  return { min: total(amps.min), typ: total(typical(amps)), max: total(amps.max) };
}

interface Point {
  readonly amps: number;
  readonly ohms: number;
}

/** The points of the column at or below a voltage: LEDs of less voltage ask for more resistance, and so get less current. */
function columnOf({ ledVolts, rows }: CurrentSetTable, volts: number): readonly Point[] {
  const at = Math.max(
    0,
    ledVolts.findLastIndex((v) => v <= volts + 1e-9),
  );
  return rows
    .map(({ milliamps, kiloohms }) => ({ amps: milliamps / 1000, ohms: atOrThrow(kiloohms, at) * 1000 }))
    .toSorted((a, b) => b.amps - a.amps);
}

/** The two points of a column that a value lies between; the outer two beyond its ends. */
function around(points: readonly Point[], isBefore: (point: Point) => boolean): readonly [Point, Point] {
  const found = points.findIndex((point) => !isBefore(point));
  const next = found < 0 ? points.length - 1 : Math.max(1, found);
  return [atOrThrow(points, next - 1), atOrThrow(points, next)];
}

/** The resistance for a current, on the side that gives less: straight between two points over 1/I, where the true curve sags below.
 *  @param volts forward voltage of the LEDs
 *  @throws RangeError when the current is outside of the table
 *  @example currentSetOhms(table, 20e-3, 2) // 28_000 by the table of the MAX7219 */
export function currentSetOhms(table: CurrentSetTable, amps: number, volts: number): number {
  const points = columnOf(table, volts);
  const most = firstOrThrow(points).amps;
  const least = lastOrThrow(points).amps;
  if (!(amps >= least * (1 - 1e-9) && amps <= most * (1 + 1e-9)))
    throw new RangeError(`current ${amps}: the datasheet table covers ${least} A to ${most} A`);
  const [a, b] = around(points, (point) => point.amps > amps);
  const share = (1 / amps - 1 / a.amps) / (1 / b.amps - 1 / a.amps);
  return a.ohms + (b.ohms - a.ohms) * share;
}

/** The current that a resistor gives, over its tolerance, in amperes. */
export function currentSetAmps(table: CurrentSetTable, ohms: number, volts: number, tolerance: number): Range {
  const points = columnOf(table, volts);
  const at = (value: number): number => {
    const [a, b] = around(points, (point) => point.ohms < value);
    const inverse = 1 / a.amps + ((value - a.ohms) / (b.ohms - a.ohms)) * (1 / b.amps - 1 / a.amps);
    return inverse > 0 ? 1 / inverse : Infinity;
  };
  return { min: at(ohms * (1 + tolerance)), typ: at(ohms), max: at(ohms * (1 - tolerance)) };
}
