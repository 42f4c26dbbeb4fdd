import { requirePositive } from './requirePositive';
import { formatSi } from '../../quantity/format';
import { nearestOf } from '../../quantity/series';
import type { Step, Worked } from './working';
import { CIRCUIT_THEORY, INPUT_SHEET, OUTPUT_SHEET, SERIES_PROTECTION, SOURCE_TERMINATION } from './documents';

export interface LinePullInput {
  readonly volts: number;
  /** VIH of the receiver, in volts. */
  readonly highVolts: number;
  /** What all inputs of the line leak together, in amperes. */
  readonly leakAmps: number;
  /** A resistor to ground that is there already, in ohms. */
  readonly downOhms?: number;
  /** Sink current at this low level. */
  readonly lowVolts: number;
  readonly lowAmps: number;
  readonly farads: number;
  /** Until the high level is reached, in seconds. */
  readonly riseSeconds: number;
  readonly tolerance: number;
  readonly values: readonly number[];
}

export interface LinePull {
  readonly leastOhms: number;
  /** Upper limit with all conditions combined: idle level and rise time. 0 if none. */
  readonly mostOhms: number;
  /** What sets it most. */
  readonly limit: 'leakage' | 'rise' | 'pull-down';
  /** Nearest to the middle of the window on a scale of ratios, and within it at both ends of its tolerance. */
  readonly ohms: number | undefined;
  /** Minimum idle level in volts, rise time to VIH in seconds, and current while the line is low. */
  readonly restVolts: number | undefined;
  readonly riseSeconds: number | undefined;
  readonly lowAmps: number | undefined;
}

/** @throws RangeError when a value is not above zero, or the levels do not lie one above the other */
function checkInput({ volts, highVolts, leakAmps, lowVolts, lowAmps, farads, riseSeconds }: LinePullInput): void {
  requirePositive({ leakage: leakAmps, 'low-current': lowAmps, capacitance: farads, rise: riseSeconds });
  if (!(lowVolts >= 0 && highVolts > lowVolts && volts > highVolts))
    throw new RangeError(`levels ${lowVolts} and ${highVolts}: expected low below high, both between 0 and ${volts} V`);
}

/** The largest resistance that each condition alone allows, in ohms. */
function upperLimits({ volts, highVolts, leakAmps, downOhms, farads, riseSeconds }: LinePullInput) {
  return [
    { limit: 'leakage', ohms: (volts - highVolts) / leakAmps },
    { limit: 'rise', ohms: riseSeconds / (farads * Math.log(volts / (volts - highVolts))) },
    ...(downOhms ? [{ limit: 'pull-down', ohms: downOhms * (volts / highVolts - 1) } as const] : []),
  ] as const;
}

/** Idle level in volts and rise time to VIH in seconds with a pull-up, leakage and pull-down combined. */
function withPull({ volts, highVolts, leakAmps, downOhms, farads, tolerance }: LinePullInput, ohms: number) {
  const down = downOhms ? downOhms * (1 - tolerance) : Infinity;
  const seen = 1 / (1 / ohms + 1 / down);
  const rest = seen * (volts / ohms - leakAmps);
  return { rest, seconds: rest > highVolts ? seen * farads * Math.log(rest / (rest - highVolts)) : Infinity };
}

/** The largest resistance with all conditions combined, in ohms; 0 if there is none. Each limit alone is an upper bound of it, and no formula
 *  gives it: it is found by halving.
 *  @param leastLimit the smallest of the limits */
function combinedLimit(input: LinePullInput, leastLimit: number): number {
  const isHigh = (ohms: number) => withPull(input, ohms).seconds <= input.riseSeconds;
  let [low, high] = [leastLimit / 1e6, leastLimit];
  if (isHigh(high)) low = high;
  for (let step = 0; step < 60 && low < high; step += 1) {
    const middle = Math.sqrt(low * high);
    if (isHigh(middle)) low = middle;
    else high = middle;
  }
  return isHigh(low) ? low : 0;
}

/** The pull-up of a line that is no I2C line: a select, a reset, a 1-Wire line.
 *  @throws RangeError when a value is not above zero, or the levels do not lie one above the other */
export function linePull(input: LinePullInput): Worked<LinePull> {
  checkInput(input);
  const { volts, lowVolts, lowAmps, tolerance, values } = input;
  const leastOhms = (volts - lowVolts) / lowAmps;
  const limits = upperLimits(input);
  const first = limits.reduce((a, b) => (b.ohms < a.ohms ? b : a));
  const mostOhms = combinedLimit(input, first.ohms);
  const fitting = values.filter((value) => value * (1 - tolerance) >= leastOhms && value * (1 + tolerance) <= mostOhms);
  const ohms = nearestOf(fitting, Math.sqrt(leastOhms * mostOhms));
  const worst = ohms === undefined ? undefined : withPull(input, ohms * (1 + tolerance));
  const result: LinePull = {
    leastOhms,
    mostOhms,
    limit: first.limit,
    ohms,
    restVolts: worst?.rest,
    riseSeconds: worst?.seconds,
    lowAmps: ohms && (volts - lowVolts) / (ohms * (1 - tolerance)),
  };
  return { ...result, working: linePullWorking(input, result) };
}

function linePullWorking(input: LinePullInput, { leastOhms, mostOhms, ohms, restVolts, riseSeconds, lowAmps }: LinePull): readonly Step[] {
  const { volts, highVolts, leakAmps, downOhms, lowVolts, farads, tolerance } = input;
  const [leakage, rise, pullDown] = upperLimits(input);
  return [
    {
      formula: 'Rmin = (V − VOL) / IOL',
      values: `(${formatSi(volts, 'V')} − ${formatSi(lowVolts, 'V')}) / ${formatSi(input.lowAmps, 'A')} = ${formatSi(leastOhms, 'Ω')}`,
      source: OUTPUT_SHEET,
    },
    {
      formula: 'Rmax = (V − VIH) / Ileak',
      values: `(${formatSi(volts, 'V')} − ${formatSi(highVolts, 'V')}) / ${formatSi(leakAmps, 'A')} = ${formatSi(leakage.ohms, 'Ω')}`,
      source: INPUT_SHEET,
    },
    {
      formula: 'Rmax = t / (C · ln(V / (V − VIH)))',
      values: `${formatSi(input.riseSeconds, 's')} / (${formatSi(farads, 'F')} · ${Number(Math.log(volts / (volts - highVolts)).toPrecision(3))}) = ${formatSi(rise.ohms, 'Ω')}`,
      source: INPUT_SHEET,
    },
    ...(downOhms && pullDown
      ? [
          {
            formula: 'Rmax = Rdown · (V / VIH − 1)',
            values: `${formatSi(downOhms, 'Ω')} · (${formatSi(volts, 'V')} / ${formatSi(highVolts, 'V')} − 1) = ${formatSi(pullDown.ohms, 'Ω')}`,
            source: CIRCUIT_THEORY,
          },
        ]
      : []),
    {
      formula: 'Vrest = (R ∥ Rdown) · (V / R − Ileak); t = (R ∥ Rdown) · C · ln(Vrest / (Vrest − VIH))',
      values:
        ohms === undefined || restVolts === undefined || riseSeconds === undefined
          ? `limit with all three ${formatSi(mostOhms, 'Ω')}`
          : `R = ${formatSi(ohms, 'Ω')}, worst case: ${formatSi(restVolts, 'V')}, ${formatSi(riseSeconds, 's')}; limit with all three ${formatSi(mostOhms, 'Ω')}`,
      source: INPUT_SHEET,
    },
    ...(ohms === undefined || lowAmps === undefined
      ? []
      : [
          {
            formula: 'I = (V − VOL) / R, worst case',
            values: `(${formatSi(volts, 'V')} − ${formatSi(lowVolts, 'V')}) / ${formatSi(ohms * (1 - tolerance), 'Ω')} = ${formatSi(lowAmps, 'A')}`,
            source: CIRCUIT_THEORY,
          },
        ]),
  ];
}

export interface SeriesLimit {
  readonly mostOhms: number;
  readonly ohms: number | undefined;
  /** What a low level rises to behind the resistor, in volts. */
  readonly lowVolts: number;
}

/** The largest resistor in series with a part's I2C line: a low level must stay 0.1 VDD below the input's 0.3 VDD.
 *  @throws RangeError when a value is not above zero, or the low level leaves no room at all */
export function i2cSeries(input: {
  readonly volts: number;
  readonly pullOhms: number;
  readonly lowVolts: number;
  readonly tolerance: number;
  readonly values: readonly number[];
}): Worked<SeriesLimit> {
  const { volts, pullOhms, lowVolts, tolerance, values } = input;
  if (!(volts > 0 && pullOhms > 0)) throw new RangeError(`supply ${volts}, pull-up ${pullOhms}: expected values above zero`);
  const room = (0.2 * volts - lowVolts) / (volts - lowVolts);
  // Above the supply both differences are negative, and their quotient is not.
  if (!(lowVolts < 0.2 * volts)) throw new RangeError(`low level ${lowVolts}: expected below ${0.2 * volts} V, 0.2 of the supply`);
  const most = ((pullOhms * (1 - tolerance)) / (1 + tolerance)) * (room / (1 - room));
  const ohms = values.findLast((value) => value <= most);
  return {
    mostOhms: most,
    ohms,
    lowVolts: lowVolts + ((volts - lowVolts) * (ohms ?? 0)) / ((ohms ?? 0) + pullOhms),
    working: [
      {
        formula: 'VOL + (VDD − VOL) · Rs / (Rs + Rp) ≤ 0.2 · VDD (VIL = 0.3 · VDD less a noise margin of 0.1 · VDD)',
        values: `${formatSi(lowVolts, 'V')} + ${formatSi(volts - lowVolts, 'V')} · Rs / (Rs + ${formatSi(pullOhms, 'Ω')}) ≤ ${formatSi(0.2 * volts, 'V')}: Rs ≤ ${formatSi(most, 'Ω')}`,
        source: SERIES_PROTECTION,
      },
      ...(ohms === undefined
        ? []
        : [
            {
              formula: 'VL = VOL + (V − VOL) · Rs / (Rs + Rp)',
              values: `Rs → ${formatSi(ohms, 'Ω')}: ${formatSi(lowVolts + ((volts - lowVolts) * ohms) / (ohms + pullOhms), 'V')}`,
              source: SERIES_PROTECTION,
            },
          ]),
    ],
  };
}

/** The resistor at the start of a long wire that swallows what comes back from its end.
 *  @param impedanceOhms of the wire: 100 to 120 Ω for a pair of hook-up wires
 *  @throws RangeError when a value is not above zero */
export function damping(input: {
  readonly impedanceOhms: number;
  readonly driveOhms: number;
  readonly farads: number;
  readonly bitsPerSecond: number;
  readonly values: readonly number[];
}): Worked<{ readonly exactOhms: number; readonly ohms: number | undefined; readonly riseSeconds: number; readonly slow: boolean }> {
  const { impedanceOhms, driveOhms, farads, bitsPerSecond, values } = input;
  requirePositive({ impedance: impedanceOhms, capacitance: farads, rate: bitsPerSecond });
  if (!(driveOhms >= 0)) throw new RangeError(`drive ${driveOhms}: expected 0 Ω or more`);
  const exact = Math.max(0, impedanceOhms - driveOhms);
  const ohms = exact === 0 ? 0 : nearestOf(values, exact);
  const riseSeconds = Math.log(9) * (driveOhms + (ohms ?? 0)) * farads;
  return {
    exactOhms: exact,
    ohms,
    riseSeconds,
    // An edge longer than a tenth of a bit shifts the sampling point of the receiver.
    slow: riseSeconds * bitsPerSecond > 0.1,
    working: [
      {
        formula: 'R = Z0 − Rout; nearest preferred value',
        values: `${formatSi(impedanceOhms, 'Ω')} − ${formatSi(driveOhms, 'Ω')} = ${formatSi(exact, 'Ω')}${ohms === undefined ? '' : ` → ${formatSi(ohms, 'Ω')}`}`,
        source: SOURCE_TERMINATION,
      },
      {
        formula: 't = 2.2 · (Rout + R) · C',
        values: `2.2 · ${formatSi(driveOhms + (ohms ?? 0), 'Ω')} · ${formatSi(farads, 'F')} = ${formatSi(riseSeconds, 's')}`,
        source: CIRCUIT_THEORY,
      },
    ],
  };
}
