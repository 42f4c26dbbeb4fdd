import { requirePositive } from './requirePositive';
import { formatSi } from '../../quantity/format';
import { type Range, typical } from '../../quantity/range';
import { CIRCUIT_THEORY, FLICKER, LED_SHEET, PREFERRED_VALUES, RATED_DISSIPATION } from './documents';
import type { Step, Worked } from './working';

export interface LedInput {
  /** Supply, or the high level of the pin without load, in volts. */
  readonly supply: Range;
  readonly forwardVolts: Range;
  /** What it should light with, in amperes. */
  readonly amps: number;
  /** Resistance of the pin or switch that drives it, in ohms. */
  readonly driveOhms: number;
  /** Voltage that a transistor keeps for itself. */
  readonly dropVolts?: number;
  readonly tolerance: number;
  /** Values of resistors there are, in rising order. */
  readonly values: readonly number[];
}

export interface LedResult {
  /** What the resistor would be exactly, in ohms; undefined where the supply is too low. */
  readonly exactOhms: number | undefined;
  /** The next value up; undefined where there is none. */
  readonly ohms: number | undefined;
  /** Current at the corners of supply, forward voltage and tolerance, in amperes. */
  readonly amps: Range | undefined;
  /** Worst-case dissipation of the resistor in watts, and its rating: twice that. */
  readonly watts: number | undefined;
  readonly ratingWatts: number | undefined;
  /** `dark-at-worst`: nothing flows where supply and forward voltage are at their worst. */
  readonly verdict: 'good' | 'too-low' | 'no-value' | 'none-needed' | 'dark-at-worst';
  /** The least supply with which it lights at all. */
  readonly leastVolts: number;
}

/** Ratings that resistors are sold in, in watts. */
export const RATINGS = [0.1, 0.125, 0.25, 0.5, 1, 2, 3, 5, 10] as const;

/** The rating to take for a power: the next that leaves twice as much room. */
export const ratingFor = (watts: number): number | undefined => RATINGS.find((rating) => rating >= 2 * watts);

/** How the rating of a resistor follows from its power, as a step of a working. */
export const ratingStep = (watts: number): Step => {
  const rating = ratingFor(watts);
  return {
    formula: 'Prated ≥ 2 · P',
    values: `2 · ${formatSi(watts, 'W')} ≤ ${rating === undefined ? 'none of the common ratings' : formatSi(rating, 'W')}`,
    source: RATED_DISSIPATION,
  };
};

/** @throws RangeError when a current, voltage or resistance is not above zero, or the tolerance no share */
function checkLed({ supply, forwardVolts, amps, driveOhms, tolerance }: LedInput): void {
  if (!(amps > 0)) throw new RangeError(`current ${amps}: expected amperes above zero`);
  if (!(forwardVolts.min > 0)) throw new RangeError(`forward voltage ${forwardVolts.min}: expected volts above zero`);
  if (!(supply.min > 0)) throw new RangeError(`supply ${supply.min}: expected volts above zero`);
  if (!(driveOhms >= 0)) throw new RangeError(`drive ${driveOhms}: expected ohms, 0 or more`);
  if (!(tolerance >= 0 && tolerance < 1)) throw new RangeError(`tolerance ${tolerance}: expected a fraction from 0 to below 1`);
}

/** Current with a resistor at given voltages, in amperes; none below the forward voltage. */
const currentAt = ({ dropVolts = 0, driveOhms }: LedInput, ohms: number, volts: number, vf: number): number =>
  Math.max(0, (volts - vf - dropVolts) / (ohms + driveOhms));

/** Current at the corners of supply and forward voltage, with a resistor that is off by a share. */
function currentCorners(input: LedInput, ohms: number, spread: number): Range {
  const { supply, forwardVolts } = input;
  return {
    min: currentAt(input, ohms * (1 + spread), supply.min, forwardVolts.max),
    typ: currentAt(input, ohms, typical(supply), typical(forwardVolts)),
    max: currentAt(input, ohms * (1 - spread), supply.max, forwardVolts.min),
  };
}

/** How a current at a corner is worked out. */
function cornerText(
  { supply, forwardVolts, dropVolts = 0, driveOhms, tolerance }: LedInput,
  ohms: number,
  at: 'min' | 'max',
  amps: number,
): string {
  const [v, vf] = at === 'max' ? [supply.max, forwardVolts.min] : [supply.min, forwardVolts.max];
  const r = ohms * (at === 'max' ? 1 - tolerance : 1 + tolerance);
  return `(${formatSi(v, 'V')} − ${formatSi(vf, 'V')} − ${formatSi(dropVolts, 'V')}) / (${formatSi(r, 'Ω')} + ${formatSi(driveOhms, 'Ω')}) = ${formatSi(amps, 'A')}`;
}

/** The most that a resistor turns into heat, in watts: current and resistance at the same corner, because the resistor that lets more current
 *  through is the smaller one. */
function worstHeat(input: LedInput, ohms: number) {
  const { supply, forwardVolts, tolerance } = input;
  const heat = (r: number) => ({ ohms: r, watts: currentAt(input, r, supply.max, forwardVolts.min) ** 2 * r });
  return [heat(ohms * (1 - tolerance)), heat(ohms * (1 + tolerance))].reduce((a, b) => (b.watts > a.watts ? b : a));
}

/** The series resistor of an LED: next value up, so that the current is never more than wished at nominal values; and what it comes to
 *  at the corners.
 *  @throws RangeError when a current, voltage or resistance is not above zero, or the tolerance no share */
export function ledResistor(input: LedInput): Worked<LedResult> {
  checkLed(input);
  const { supply, forwardVolts, amps, driveOhms, dropVolts = 0, tolerance, values } = input;
  const left = typical(supply) - typical(forwardVolts) - dropVolts;
  const leastVolts = typical(forwardVolts) + dropVolts;
  const exact = left / amps - driveOhms;
  const first = {
    formula: 'R = (V − VF − Vdrop) / I − Rdrive',
    values: `(${formatSi(typical(supply), 'V')} − ${formatSi(typical(forwardVolts), 'V')} − ${formatSi(dropVolts, 'V')}) / ${formatSi(amps, 'A')} − ${formatSi(driveOhms, 'Ω')} = ${formatSi(exact, 'Ω')}`,
    source: LED_SHEET,
  };
  const working = [first];
  const nothing = { exactOhms: undefined, ohms: undefined, amps: undefined, watts: undefined, ratingWatts: undefined, leastVolts, working };
  if (left <= 0) return { ...nothing, verdict: 'too-low' };
  if (exact <= 0) return { ...nothing, exactOhms: 0, ohms: 0, amps: currentCorners(input, 0, 0), verdict: 'none-needed' };
  const ohms = values.find((value) => value >= exact * (1 - 1e-9));
  if (ohms === undefined) return { ...nothing, exactOhms: exact, verdict: 'no-value' };
  const current = currentCorners(input, ohms, tolerance);
  const { watts } = worstHeat(input, ohms);
  return {
    exactOhms: exact,
    ohms,
    amps: current,
    watts,
    ratingWatts: ratingFor(watts),
    leastVolts,
    working: [first, ...resistorWorking(input, exact, ohms, current)],
    verdict: current.min > 0 ? 'good' : 'dark-at-worst',
  };
}

function resistorWorking(input: LedInput, exact: number, ohms: number, current: Range): readonly Step[] {
  const { supply, forwardVolts } = input;
  const hottest = worstHeat(input, ohms);
  return [
    { formula: 'R: next preferred value up', values: `${formatSi(exact, 'Ω')} → ${formatSi(ohms, 'Ω')}`, source: PREFERRED_VALUES },
    {
      formula: 'I = (V − VF − Vdrop) / (R + Rdrive), worst case low and high',
      values: `${cornerText(input, ohms, 'min', current.min)}; ${cornerText(input, ohms, 'max', current.max)}`,
      source: LED_SHEET,
    },
    {
      formula: 'P = I² · R, worst case',
      values: `${formatSi(currentAt(input, hottest.ohms, supply.max, forwardVolts.min), 'A')}² · ${formatSi(hottest.ohms, 'Ω')} = ${formatSi(hottest.watts, 'W')}`,
      source: CIRCUIT_THEORY,
    },
    ratingStep(hottest.watts),
  ];
}

export interface MultiplexResult {
  /** Whole rounds a second; below about 70 it flickers. */
  readonly refreshHz: number;
  readonly duty: number;
  /** What a segment must carry while its digit is lit, for the average wished, in amperes. */
  readonly peakAmps: number;
  /** What the digit's transistor carries with every segment lit, in amperes. */
  readonly digitAmps: number;
  readonly flickers: boolean;
}

/** Below this many rounds a second most people see flicker. */
export const FLICKER_HZ = 70;

/** Digits that are lit one after another.
 *  @param dwell how long each is lit, in seconds
 *  @throws RangeError when a count, a time or a current is not above zero
 *  @example multiplexed({ digits: 4, dwell: 3e-3, averageAmps: 2e-3, segments: 8 }).refreshHz // 83.3 */
export function multiplexed(input: {
  readonly digits: number;
  readonly dwell: number;
  readonly averageAmps: number;
  readonly segments: number;
}): Worked<MultiplexResult> {
  const { digits, dwell, averageAmps, segments } = input;
  requirePositive(input);
  const refreshHz = 1 / (digits * dwell);
  const peakAmps = averageAmps * digits;
  return {
    refreshHz,
    duty: 1 / digits,
    peakAmps,
    digitAmps: peakAmps * segments,
    flickers: refreshHz < FLICKER_HZ,
    working: [
      {
        formula: 'f = 1 / (N · t); duty = 1 / N',
        values: `1 / (${digits} · ${formatSi(dwell, 's')}) = ${formatSi(refreshHz, 'Hz')}; 1 / ${digits} = ${Number((1 / digits).toPrecision(4))}`,
        source: FLICKER,
      },
      {
        formula: 'Ipeak = Iaverage · N; Idigit = Ipeak · segments',
        values: `${formatSi(averageAmps, 'A')} · ${digits} = ${formatSi(peakAmps, 'A')}; · ${segments} = ${formatSi(peakAmps * segments, 'A')}`,
        source: LED_SHEET,
      },
    ],
  };
}
