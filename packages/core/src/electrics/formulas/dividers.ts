import { requirePositive } from './requirePositive';
import { formatSi, plain, significant } from '../../quantity/format';
import type { Range } from '../../quantity/range';
import type { Worked } from './working';
import { CIRCUIT_THEORY, CONTRAST_DRIVE, INPUT_SHEET, PREFERRED_VALUES } from './documents';

export interface DividerInput {
  /** Input high level in volts, minimum and maximum. */
  readonly input: Range;
  /** Required output window in volts: VIH of the receiver to its absolute maximum. */
  readonly output: Range;
  /** Capacitance at the receiver, in farads. */
  readonly farads: number;
  readonly tolerance: number;
  readonly values: readonly number[];
  /** Sum of both resistors in ohms: lower draws more current, higher is slower. */
  readonly total: Range;
}

export interface Divider {
  readonly top: number;
  readonly bottom: number;
  readonly output: Range;
  /** Both in parallel: what the receiver sees, in ohms. */
  readonly theveninOhms: number;
  /** Bit rate at which the 10 % to 90 % edge is half a bit. */
  readonly mostBitsPerSecond: number;
  /** Current that flows while the input is high, in amperes. */
  readonly standingAmps: number;
}

/** The output of a divider at its corners, in volts. */
export function dividerOutput(top: number, bottom: number, input: Range, tolerance: number): Range {
  const ratio = (t: number, b: number) => b / (t + b);
  return {
    min: input.min * ratio(top * (1 + tolerance), bottom * (1 - tolerance)),
    max: input.max * ratio(top * (1 - tolerance), bottom * (1 + tolerance)),
  };
}

/** Two resistors from what there is that bring a level down into a window at every corner: of all pairs that do the one whose worst
 *  corner has most room, and of equals the one with the lower resistance, which is faster.
 *  @returns undefined in `best` where no pair does
 *  @throws RangeError when a voltage, capacitance or tolerance cannot be */
export function divide(given: DividerInput): Worked<{ readonly best: Divider | undefined; readonly pairs: number }> {
  const { input, output, farads, tolerance, values, total } = given;
  if (!(input.min > 0 && input.max >= input.min))
    throw new RangeError(`input ${input.min} to ${input.max}: expected volts above zero, the lower value first`);
  if (!(output.min >= 0 && output.max > output.min))
    throw new RangeError(`output ${output.min} to ${output.max}: expected a window in volts`);
  if (!(farads > 0)) throw new RangeError(`capacitance ${farads}: expected farads above zero`);
  if (!(tolerance >= 0 && tolerance < 1)) throw new RangeError(`tolerance ${tolerance}: expected a fraction from 0 to below 1`);
  let best: Divider | undefined;
  let room = -Infinity;
  let pairs = 0;
  for (const top of values)
    for (const bottom of values) {
      if (top + bottom < total.min || top + bottom > total.max) continue;
      const out = dividerOutput(top, bottom, input, tolerance);
      const left = Math.min(out.min - output.min, output.max - out.max);
      if (left < 0) continue;
      pairs += 1;
      const thevenin = (top * bottom) / (top + bottom);
      const better = left > room + 1e-12 || (left > room - 1e-12 && best !== undefined && thevenin < best.theveninOhms);
      if (!better) continue;
      room = Math.max(room, left);
      best = {
        top,
        bottom,
        output: out,
        theveninOhms: thevenin,
        mostBitsPerSecond: 1 / (2 * Math.log(9) * thevenin * farads),
        standingAmps: input.max / ((top + bottom) * (1 - tolerance)),
      };
    }
  return {
    best,
    pairs,
    working: best
      ? [
          {
            formula: `Vout = Vin · R2 / (R1 + R2), worst case at ${significant(tolerance * 100)} %`,
            values: `${formatSi(best.top, 'Ω')} over ${formatSi(best.bottom, 'Ω')}: ${formatSi(best.output.min, 'V')} to ${formatSi(best.output.max, 'V')}; the best of ${plain(pairs)} pairs`,
            source: INPUT_SHEET,
          },
          {
            formula: 'tr = ln 9 · (R1 ∥ R2) · C; rate ≤ 1 / (2 · tr)',
            values: `2.2 · ${formatSi(best.theveninOhms, 'Ω')} · ${formatSi(farads, 'F')}; ${plain(best.mostBitsPerSecond)} bit/s`,
            source: CIRCUIT_THEORY,
          },
          {
            formula: 'I = Vin / (R1 + R2), worst case',
            values: `${formatSi(input.max, 'V')} / ${formatSi((best.top + best.bottom) * (1 - tolerance), 'Ω')} = ${formatSi(best.standingAmps, 'A')}`,
            source: CIRCUIT_THEORY,
          },
        ]
      : [],
  };
}

/** The fixed resistor beside a sensor whose resistance goes from one value to another, that gives the widest span: their geometric mean.
 *  @returns ohms, and the span as a share of the supply
 *  @throws RangeError when a resistance is not above zero
 *  @example sensorDivider(1000, 100_000).ohms // 10_000 */
export function sensorDivider(from: number, to: number): { readonly ohms: number; readonly span: number } {
  if (!(from > 0 && to > 0)) throw new RangeError(`resistances ${from} and ${to}: expected ohms above zero`);
  const ohms = Math.sqrt(from * to);
  const share = (sensor: number) => ohms / (ohms + sensor);
  return { ohms, span: Math.abs(share(from) - share(to)) };
}

export interface Contrast {
  /** Where the contrast terminal must be against ground, in volts. */
  readonly volts: number;
  /** Trimmer position from ground, as a fraction. */
  readonly turn: number | undefined;
  /** Fixed in place of the trimmer: from the supply to the terminal, and from there to ground; and what they give. */
  readonly top: number | undefined;
  readonly bottom: number | undefined;
  readonly given: number | undefined;
  readonly verdict: 'good' | 'at-ground' | 'needs-negative';
}

/** So near to ground, in volts, a terminal is tied to it. */
const AT_GROUND = 0.05;

/** The contrast of a character display: the LCD drive voltage is the difference of the supply and the contrast terminal.
 *  @param glassVolts LCD drive voltage between supply and contrast terminal
 *  @throws RangeError when a value is not above zero
 *  @example contrastDivider({ volts: 5, glassVolts: 4.4, trimmerOhms: 10e3, values }).volts // 0.6 */
export function contrastDivider(given: {
  readonly volts: number;
  readonly glassVolts: number;
  readonly trimmerOhms: number;
  readonly values: readonly number[];
}): Worked<Contrast> {
  const { volts, glassVolts, trimmerOhms, values } = given;
  requirePositive({ supply: volts, glass: glassVolts, trimmer: trimmerOhms });
  const wanted = volts - glassVolts;
  const working = [
    {
      formula: 'VO = V − Vglass',
      values: `${formatSi(volts, 'V')} − ${formatSi(glassVolts, 'V')} = ${formatSi(wanted, 'V')}`,
      source: CONTRAST_DRIVE,
    },
  ];
  const nothing = { volts: wanted, turn: undefined, top: undefined, bottom: undefined, given: undefined, working };
  if (wanted < -AT_GROUND) return { ...nothing, verdict: 'needs-negative' };
  if (wanted <= AT_GROUND) return { ...nothing, turn: 0, verdict: 'at-ground' };
  // Of the pairs that take about the trimmer's current the one that comes nearest.
  let best: { readonly top: number; readonly bottom: number; readonly off: number } | undefined;
  for (const top of values)
    for (const bottom of values) {
      if (top + bottom < trimmerOhms / 2 || top + bottom > trimmerOhms * 2) continue;
      const off = Math.abs((volts * bottom) / (top + bottom) - wanted);
      if (!best || off < best.off - 1e-12) best = { top, bottom, off };
    }
  return {
    ...nothing,
    turn: wanted / volts,
    top: best?.top,
    bottom: best?.bottom,
    given: best && (volts * best.bottom) / (best.top + best.bottom),
    working: [
      ...working,
      {
        formula: 'wiper = VO / V',
        values: `${formatSi(wanted, 'V')} / ${formatSi(volts, 'V')} = ${plain(wanted / volts)}`,
        source: CIRCUIT_THEORY,
      },
      ...(best
        ? [
            {
              formula: 'VO = V · R2 / (R1 + R2)',
              values: `${formatSi(volts, 'V')} · ${formatSi(best.bottom, 'Ω')} / (${formatSi(best.top, 'Ω')} + ${formatSi(best.bottom, 'Ω')}) = ${formatSi((volts * best.bottom) / (best.top + best.bottom), 'V')}`,
              source: PREFERRED_VALUES,
            },
          ]
        : []),
    ],
    verdict: 'good',
  };
}
