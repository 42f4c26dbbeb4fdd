import { formatSi } from '../quantity/format';
import { type Range, typical } from '../quantity/range';
import { I2C_MODES, I2C_STANDARD, type I2cMode, i2cModeAt } from './i2cModes';
import type { Step, Worked } from './working';

/** A pull-up as it is: its resistance over tolerance, and the supply it pulls to. */
export interface PullUp {
  readonly id: string;
  readonly ohms: Range;
  readonly volts: Range;
}

/** A member that must pull the line low: the current it can sink, and the voltage that it reaches then. */
export interface Sink {
  readonly id: string;
  readonly volts: number;
  readonly amps: number;
}

export interface PullUpInput {
  /** Supply that the logic thresholds follow, in volts. */
  readonly vdd: Range;
  readonly pullUps: readonly PullUp[];
  /** A pull-up in the controller that a program may switch on: it counts where it makes things worse, and not where better. */
  readonly internal?: PullUp;
  readonly sinks: readonly Sink[];
  readonly farads: number;
  readonly hz: number;
}

export interface PullUpResult {
  /** All pull-ups in parallel, at both corners, in ohms; undefined without any. */
  readonly ohms: Range | undefined;
  /** What the line rests at, in volts. */
  readonly idleVolts: Range | undefined;
  /** Least resistance to the logic supply that the weakest member can pull low, and who that is. */
  readonly leastOhms: number;
  readonly weakest: string | undefined;
  /** Most resistance with which the line still rises in time. */
  readonly mostOhms: number;
  /** What the weakest member would have to sink at worst, against what it can, in amperes. */
  readonly sinkAmps: number;
  readonly canSinkAmps: number;
  /** Rise from 0.3 to 0.7 of the supply at both corners, in seconds; infinite where the line does not get there. */
  readonly riseSeconds: Range | undefined;
  readonly riseLimitSeconds: number;
  /** Fastest mode whose rise time the present pull-ups keep. */
  readonly fastest: I2cMode | undefined;
  readonly verdict: 'missing' | 'too-strong' | 'too-weak' | 'both' | 'good';
  /** Whether any resistor could serve. */
  readonly windowOpen: boolean;
}

const sum = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0);

/** Resistances in parallel, in ohms; infinite without any.
 *  @example parallel([4700, 4700]) // 2350 */
export function parallel(ohms: readonly number[]): number {
  return 1 / sum(ohms.map((r) => 1 / r));
}

/** Where a line rests that resistors pull to several supplies, in volts. */
const restAt = (pulls: readonly { readonly ohms: number; readonly volts: number }[]): number =>
  parallel(pulls.map((p) => p.ohms)) * sum(pulls.map((p) => p.volts / p.ohms));

/** Rise from 0.3 to 0.7 of a supply towards where the line rests, in seconds. */
export function riseTime(ohms: number, farads: number, vdd: number, rest = vdd): number {
  if (rest <= 0.7 * vdd) return Infinity;
  return ohms * farads * Math.log((rest - 0.3 * vdd) / (rest - 0.7 * vdd));
}

/** The most resistance that a rise time allows, in ohms: tr / (0.8473 · Cb). */
export function mostPullUp(riseSeconds: number, farads: number): number {
  return riseSeconds / (Math.log(0.7 / 0.3) * farads);
}

/** Low level that is asked of a member: 0.4 V above a supply of 2 V, a fifth of it below. */
export const lowVolts = (vdd: number): number => (vdd > 2 ? 0.4 : 0.2 * vdd);

function weakestOf(sinks: readonly Sink[], vdd: number): { readonly sink: Sink; readonly ohms: number } | undefined {
  const all = sinks.map((sink) => ({ sink, ohms: (vdd - sink.volts) / sink.amps }));
  return all.length > 0 ? all.reduce((a, b) => (b.ohms > a.ohms ? b : a)) : undefined;
}

function workingOf(input: PullUpInput, result: Omit<PullUpResult, 'verdict' | 'windowOpen'>, sink: Sink | undefined): readonly Step[] {
  const { vdd, farads, hz } = input;
  const ohm = (value: number) => formatSi(value, 'Ω');
  const steps: Step[] = [
    {
      formula: 'Rmin = (VDD − VOL) / IOL',
      values: sink
        ? `(${formatSi(vdd.max, 'V')} − ${formatSi(sink.volts, 'V')}) / ${formatSi(sink.amps, 'A')} = ${ohm(result.leastOhms)}`
        : 'no member',
      source: I2C_STANDARD,
    },
    {
      formula: 'Rmax = tr / (0.8473 · Cb)',
      values: `${formatSi(result.riseLimitSeconds, 's')} / (0.8473 · ${formatSi(farads, 'F')}) = ${ohm(result.mostOhms)} at ${formatSi(hz, 'Hz')}`,
      source: I2C_STANDARD,
    },
  ];
  if (result.ohms && result.riseSeconds) {
    const all = [...input.pullUps, ...(input.internal ? [input.internal] : [])];
    steps.push(
      {
        formula: '1/R = Σ 1/Ri',
        values: `${all.map((p) => ohm(typical(p.ohms))).join(' ∥ ')} = ${ohm(result.ohms.min)} to ${ohm(result.ohms.max)}`,
        source: 'Resistors in parallel, both corners',
      },
      {
        formula: 'tr = R · Cb · ln((V − 0.3 VDD) / (V − 0.7 VDD))',
        values: `${ohm(result.ohms.max)} · ${formatSi(farads, 'F')}: ${Number.isFinite(result.riseSeconds.max) ? formatSi(result.riseSeconds.max, 's') : 'never, the line rests too low'}`,
        source: 'Exponential rise towards where the line rests',
      },
    );
  }
  return steps;
}

/** The pull-ups of an I2C line, taken together at both corners: whether every member can pull it low, and whether it rises in
 *  time.
 *  @throws RangeError when a resistance, the capacitance or the clock is not above zero */
export function busPullUps(input: PullUpInput): Worked<PullUpResult> {
  const { vdd, pullUps, internal, sinks, farads, hz } = input;
  const bad = [farads, hz, vdd.min, ...[...pullUps, ...(internal ? [internal] : [])].map((p) => p.ohms.min)].find((v) => !(v > 0));
  if (bad !== undefined) throw new RangeError(`Invalid value ${bad}: resistances, capacitance, supply and clock are above zero`);
  const mode = i2cModeAt(hz) ?? I2C_MODES.at(-1)!;
  const weakest = weakestOf(sinks, vdd.max);
  const strong = [...pullUps, ...(internal ? [internal] : [])].map((p) => ({ ohms: p.ohms.min, volts: p.volts.max }));
  const weak = pullUps.map((p) => ({ ohms: p.ohms.max, volts: p.volts.min }));
  const ohms: Range | undefined =
    weak.length > 0 ? { min: parallel(strong.map((p) => p.ohms)), max: parallel(weak.map((p) => p.ohms)) } : undefined;
  const idleVolts: Range | undefined = ohms && { min: restAt(weak), max: restAt(strong) };
  const sink = weakest?.sink;
  // Each resistor brings its own current to the member that holds the line low.
  const sinkAmps = sum(strong.map((p) => (p.volts - (sink?.volts ?? lowVolts(vdd.max))) / p.ohms));
  const riseSeconds: Range | undefined = ohms && {
    min: riseTime(ohms.min, farads, vdd.max, Math.max(restAt(strong), vdd.max)),
    max: riseTime(ohms.max, farads, vdd.min, restAt(weak)),
  };
  const fits = (one: I2cMode) => riseSeconds !== undefined && riseSeconds.max <= one.riseSeconds && farads <= one.farads;
  const leastOhms = weakest?.ohms ?? (vdd.max - lowVolts(vdd.max)) / mode.sinkAmps;
  const mostOhms = mostPullUp(mode.riseSeconds, farads);
  const canSinkAmps = sink?.amps ?? mode.sinkAmps;
  const tooStrong = ohms !== undefined && sinkAmps > canSinkAmps;
  const tooWeak = riseSeconds !== undefined && riseSeconds.max > mode.riseSeconds;
  const result = {
    ohms,
    idleVolts,
    leastOhms,
    weakest: sink?.id,
    mostOhms,
    sinkAmps,
    canSinkAmps,
    riseSeconds,
    riseLimitSeconds: mode.riseSeconds,
    fastest: I2C_MODES.findLast((one) => fits(one)),
  };
  return {
    ...result,
    verdict: !ohms ? 'missing' : tooStrong && tooWeak ? 'both' : tooStrong ? 'too-strong' : tooWeak ? 'too-weak' : 'good',
    windowOpen: leastOhms <= mostOhms,
    working: workingOf(input, result, sink),
  };
}
