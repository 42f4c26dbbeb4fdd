import { lastOrThrow } from '../../collections/orThrow';
import { formatSi } from '../../quantity/format';
import { type Range, typical } from '../../quantity/range';
import { I2C_MODES, I2C_STANDARD, type I2cMode, i2cModeAt, sinkAmps as sinkAmpsOf } from './i2cModes';
import { JoinedRise, type RiseNode } from './joinedRise';
import { idleVoltage } from './idleLevel';
import type { Step, Worked } from './working';
import { CIRCUIT_THEORY } from './documents';

/** A pull-up as it is: its resistance over tolerance, and the supply it pulls to. */
export interface PullUp {
  readonly id: string;
  readonly ohms: Range;
  readonly volts: Range;
  /** The rail of the board that it pulls to, where it is one: then it moves with everything else on that rail. */
  readonly rail?: string;
}

/** A member that must pull the line low: the current it can sink, and the voltage that it reaches then. */
export interface Sink {
  readonly id: string;
  readonly volts: number;
  readonly amps: number;
}

/** One segment of a line. */
export interface LineSegment {
  /** Supply of an added resistor, in volts; bus levels follow the pull-up supply. */
  readonly vdd: Range;
  readonly pullUps: readonly PullUp[];
  /** A pull-up in the controller that a program may switch on: it counts where it makes things worse, and not where better. */
  readonly internal?: PullUp;
  /** The lines idle above the chip's supply, which its pins tolerate only without that resistor: it must be off, and does not count. */
  readonly internalOff?: true;
  readonly sinks: readonly Sink[];
  readonly farads: number;
  /** The voltage at which it separates from the segment it joins, in volts: the low-side supply less the gate threshold. */
  readonly partsAt?: Range;
}

export interface PullUpInput extends LineSegment {
  readonly hz: number;
  /** The segments connected to this one while the line is low, behind level shifters and open channels. */
  readonly joined?: readonly (LineSegment & { readonly id: string })[];
  /** Which of `joined` is the one that all others join; absent where it is this. */
  readonly root?: string;
}

export interface PullUpResult {
  /** All pull-ups of this segment in parallel, both corners, in ohms; undefined without any. */
  readonly ohms: Range | undefined;
  /** Idle level of the line, in volts. */
  readonly idleVolts: Range | undefined;
  /** Least resistance to the logic supply that the weakest member can pull low, and who that is. */
  readonly leastOhms: number;
  readonly weakest: string | undefined;
  /** Most resistance with which the line still rises in time. */
  readonly mostOhms: number;
  /** Worst-case sink current of the weakest member and its specified sink current, in amperes. */
  readonly sinkAmps: number;
  readonly canSinkAmps: number;
  /** Low level that the weakest member brings the line to with that current, as a resistance, and the highest that leaves the noise margin. */
  readonly reachedVolts: number;
  readonly reachLimitVolts: number;
  /** Rise from 0.3 to 0.7 of the supply at both corners, in seconds; infinite where the line does not get there. */
  readonly riseSeconds: Range | undefined;
  readonly riseLimitSeconds: number;
  /** Capacitance of this segment and all segments connected while the line is low. */
  readonly allFarads: number;
  /** Most capacitance that the mode allows. */
  readonly mostFarads: number;
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

interface Pulled {
  readonly ohms: number;
  readonly volts: number;
}

/** The most resistance that a rise time allows, in ohms: tr / (0.8473 · Cb). */
export function mostPullUp(riseSeconds: number, farads: number): number {
  return riseSeconds / (Math.log(0.7 / 0.3) * farads);
}

/** Required low level (VOL): 0.4 V for supplies above 2 V, otherwise 0.2 VDD. */
export const lowVolts = (vdd: number): number => (vdd > 2 ? 0.4 : 0.2 * vdd);

/** Highest low level that leaves an input of 0.3 VDD the noise margin of 0.1 VDD that UM10204 gives it. */
export const mostLowVolts = (vdd: number): number => Math.max(lowVolts(vdd), 0.2 * vdd);

const strongOf = ({ pullUps, internal }: LineSegment): readonly Pulled[] =>
  [...pullUps, ...(internal ? [internal] : [])].map((p) => ({ ohms: p.ohms.min, volts: p.volts.max }));
const weakOf = ({ pullUps }: LineSegment): readonly Pulled[] => pullUps.map((p) => ({ ohms: p.ohms.max, volts: p.volts.min }));

/** The pull-up supply of a segment in volts, weighted by conductance if there are several. UM10204 relates all levels and times of a bus
 *  to it, independent of the supplies of the devices. */
export function pulledTo({ pullUps, vdd }: Pick<LineSegment, 'pullUps' | 'vdd'>): Range {
  const [only] = pullUps;
  if (!only) return vdd;
  if (pullUps.every((p) => p.volts.min === only.volts.min && p.volts.max === only.volts.max)) return only.volts;
  const at = (ohms: 'min' | 'max', volts: 'min' | 'max') =>
    idleVoltage(pullUps.map((p) => ({ ohms: p.ohms[ohms], volts: p.volts[volts] })));
  return {
    min: at('max', 'min'),
    typ: idleVoltage(pullUps.map((p) => ({ ohms: typical(p.ohms), volts: typical(p.volts) }))),
    max: at('min', 'max'),
  };
}

/** A segment and all segments joined to it, the common one first; and the index of the segment among them. */
function systemOf(input: PullUpInput): { readonly all: readonly [LineSegment, ...LineSegment[]]; readonly own: number } {
  const joined = input.joined ?? [];
  const root = joined.find((one) => one.id === input.root);
  if (!root) return { all: [input, ...joined], own: 0 };
  return { all: [root, input, ...joined.filter((one) => one !== root)], own: 1 };
}

/** How a line rises at one corner. The strong corner parts late and rises to the highest that its supply can be. */
export function riseAt(
  input: PullUpInput,
  corner: 'weak' | 'strong',
  ownOhms?: number,
): { readonly rise: JoinedRise; readonly own: number } {
  const { all, own } = systemOf(input);
  const nodes = all.map((one, at): RiseNode => {
    const pulls = corner === 'weak' ? weakOf(one) : strongOf(one);
    const alone = { ohms: parallel(pulls.map((p) => p.ohms)), rest: idleVoltage(pulls) };
    const given = at === own && ownOhms !== undefined ? { ohms: ownOhms, rest: pulledTo(one).min } : alone;
    return {
      ...given,
      rest: corner === 'strong' ? Math.max(given.rest, pulledTo(one).max) : given.rest,
      farads: one.farads,
      // Whichever is slower: the longer lines are one, the more is charged through the more pull-ups.
      ...(one.partsAt ? { partsAt: corner === 'weak' ? one.partsAt.min : one.partsAt.max } : {}),
    };
  });
  return { rise: new JoinedRise(nodes as [RiseNode, ...RiseNode[]]), own };
}

function riseOf(input: PullUpInput): Range {
  const strong = riseAt(input, 'strong');
  const late = { ...input, ...(input.joined ? { joined: input.joined.map(partingLate) } : {}), ...partingLate(input) };
  const weak = [input, late].map((one) => {
    const { rise, own } = riseAt(one, 'weak');
    return rise.rise(own, pulledTo(input).min);
  });
  return { min: strong.rise.rise(strong.own, pulledTo(input).max), max: Math.max(...weak) };
}

const partingLate = <T extends LineSegment>(one: T): T =>
  one.partsAt ? { ...one, partsAt: { ...one.partsAt, min: one.partsAt.max } } : one;

/** The maximum resistance of a segment joined to others, found by bisection because there is no closed formula. */
function mostJoined(input: PullUpInput, limit: number): number {
  const takes = (ohms: number) => {
    const { rise, own } = riseAt(input, 'weak', ohms);
    return rise.rise(own, pulledTo(input).min);
  };
  let [low, high] = [1, 1e7];
  if (takes(low) > limit) return low;
  for (let step = 0; step < 60; step += 1) {
    const middle = Math.sqrt(low * high);
    if (takes(middle) <= limit) low = middle;
    else high = middle;
  }
  return low;
}

function workingOf(
  input: PullUpInput,
  result: Omit<PullUpResult, 'verdict' | 'windowOpen'>,
  sink: Sink | undefined,
  elsewhere: number,
): readonly Step[] {
  const { farads, hz } = input;
  const vdd = pulledTo(input);
  const ohm = (value: number) => formatSi(value, 'Ω');
  const joined = (input.joined ?? []).length > 0;
  const steps: Step[] = [
    {
      formula: joined ? 'Rmin = (VDD − VOL) / (IOL − I of the joined segments)' : 'Rmin = (VDD − VOL) / IOL',
      values: sink
        ? `(${formatSi(vdd.max, 'V')} − ${formatSi(sink.volts, 'V')}) / ${joined ? `(${formatSi(sink.amps, 'A')} − ${formatSi(elsewhere, 'A')})` : formatSi(sink.amps, 'A')} = ${Number.isFinite(result.leastOhms) ? ohm(result.leastOhms) : 'none'}`
        : 'no member',
      source: I2C_STANDARD,
    },
    joined
      ? {
          formula: 'Rmax from the rise in two phases, total tr',
          values: `joined: ${formatSi(result.allFarads, 'F')} on all pull-ups, then ${formatSi(farads, 'F')} alone: ${formatSi(result.riseLimitSeconds, 's')} with ${ohm(result.mostOhms)} at ${formatSi(hz, 'Hz')}`,
          source: 'AN10441, 2; both sides of the level shifter are joined until the MOSFET turns off',
        }
      : {
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
        source: CIRCUIT_THEORY,
      },
      {
        formula: 'tr = R · C · ln((V − 0.3 VDD) / (V − 0.7 VDD))',
        values: `${ohm(result.ohms.max)} · ${formatSi(farads, 'F')}${joined ? ' after separation' : ''}: ${Number.isFinite(result.riseSeconds.max) ? formatSi(result.riseSeconds.max, 's') : 'never: idle level too low'}`,
        source: I2C_STANDARD,
      },
    );
  }
  return steps;
}

/** What the weakest member has to sink while it holds a line low, in amperes, and what it can at its low level. */
interface Sinking {
  readonly sink: Sink | undefined;
  /** Low level of that member in volts. */
  readonly low: number;
  readonly sinkAmps: number;
  readonly canSinkAmps: number;
  /** The part of it from joined segments. */
  readonly elsewhere: number;
  readonly tooStrong: boolean;
}

function sinkingOf(input: PullUpInput, mode: I2cMode): Sinking {
  const { all } = systemOf(input);
  const sinks = all.flatMap((one) => one.sinks.map((sink) => ({ sink, ohms: (pulledTo(one).max - sink.volts) / sink.amps })));
  const sink = sinks.length > 0 ? sinks.reduce((a, b) => (b.ohms > a.ohms ? b : a)).sink : undefined;
  const low = sink?.volts ?? lowVolts(pulledTo(input).max);
  const canSinkAmps = sink?.amps ?? sinkAmpsOf(mode, pulledTo(input).max);
  // Each resistor brings its own current to the member that holds the line low, on whichever side it is.
  const ampsOf = (one: LineSegment) => sum(strongOf(one).map((p) => (p.volts - low) / p.ohms));
  const sinkAmps = sum(all.map(ampsOf));
  return { sink, low, sinkAmps, canSinkAmps, elsewhere: sinkAmps - ampsOf(input), tooStrong: sinkAmps > canSinkAmps };
}

const modeOf = (hz: number): I2cMode => i2cModeAt(hz) ?? lastOrThrow(I2C_MODES);

/** Whether some member cannot pull the line low against all pull-ups; cheaper than all of `busPullUps`. */
export const isTooStrong = (input: PullUpInput): boolean => sinkingOf(input, modeOf(input.hz)).tooStrong;

/** The pull-ups of one segment of an I2C line, both corners, with all joined segments: whether every member can pull it low, and whether
 *  the rise time is met.
 *  @throws RangeError when a resistance, a capacitance or the clock is not above zero */
export function busPullUps(input: PullUpInput): Worked<PullUpResult> {
  const { farads, hz } = input;
  const vdd = pulledTo(input);
  const { all } = systemOf(input);
  const values = all.flatMap((one) => [one.farads, one.vdd.min, ...strongOf(one).map((p) => p.ohms)]);
  const bad = [hz, ...values].find((v) => !(v > 0));
  if (bad !== undefined) throw new RangeError(`Invalid value ${bad}: resistances, capacitance, supply and clock must be above zero`);
  const mode = modeOf(hz);
  const [strong, weak] = [strongOf(input), weakOf(input)];
  // A segment may be pulled up only by joined segments, up to their separation voltage.
  const pulled = weak.length > 0 || (input.joined ?? []).some((one) => one.pullUps.length > 0);
  const ohms: Range | undefined =
    weak.length > 0 ? { min: parallel(strong.map((p) => p.ohms)), max: parallel(weak.map((p) => p.ohms)) } : undefined;
  const idleVolts: Range | undefined = ohms && { min: idleVoltage(weak), max: idleVoltage(strong) };
  const { sink, low, sinkAmps, canSinkAmps, elsewhere, tooStrong } = sinkingOf(input, mode);
  const riseSeconds: Range | undefined = pulled ? riseOf(input) : undefined;
  const allFarads = sum(all.map((one) => one.farads));
  const fits = (one: I2cMode) => riseSeconds !== undefined && riseSeconds.max <= one.riseSeconds && allFarads <= one.farads;
  const leastOhms = canSinkAmps > elsewhere ? (vdd.max - low) / (canSinkAmps - elsewhere) : Infinity;
  const mostOhms = all.length > 1 ? mostJoined(input, mode.riseSeconds) : mostPullUp(mode.riseSeconds, farads);
  const tooWeak = riseSeconds !== undefined && riseSeconds.max > mode.riseSeconds;
  const result = {
    ohms,
    idleVolts,
    leastOhms,
    weakest: sink?.id,
    mostOhms,
    sinkAmps,
    canSinkAmps,
    reachedVolts: (sinkAmps / canSinkAmps) * low,
    reachLimitVolts: mostLowVolts(vdd.max),
    riseSeconds,
    riseLimitSeconds: mode.riseSeconds,
    allFarads,
    mostFarads: mode.farads,
    fastest: I2C_MODES.findLast((one) => fits(one)),
  };
  return {
    ...result,
    verdict: !pulled ? 'missing' : tooStrong && tooWeak ? 'both' : tooStrong ? 'too-strong' : tooWeak ? 'too-weak' : 'good',
    windowOpen: leastOhms <= mostOhms,
    // The working is made on demand: reviews need only the numbers, hundreds of times.
    get working() {
      return workingOf(input, result, sink, elsewhere);
    },
  };
}
