import type { PlanContext } from '../../plan/planContext';
import { type Bus, findBuses } from '../../nets/buses';
import { mapPerComponent } from '../../nets/connectedComponents';
import { type Segment, segmentsOf } from '../../nets/segments';
import { boardOf } from '../../plan/edit';
import type { Plan } from '../../plan/plan';
import { lazy } from '../../memo/lazy';
import { valuesWithin } from '../../quantity/series';
import type { PartSheet } from '../../sheets/partSheet';
import { type IndexedBoard, partSheet, type Sheets } from '../../sheets/sheetIndex';
import { busClock } from './busClock';
import { capacitanceOf, type CapacitanceParts } from './busCapacitance';
import { addedPullUp, type Feed, type I2cLine, logicVolts, partLogic } from './busInputs';
import { busPullUps, type PullUp, type PullUpInput, type PullUpResult } from '../formulas/busPullUps';
import { bestAdded } from '../formulas/bestAdded';
import { worstIdleVoltage } from '../formulas/idleLevel';
import type { Worked } from '../formulas/working';

/** A device on a segment whose idle level is too high. */
export interface Overdriven {
  /** A placement, or `board`. */
  readonly id: string;
  readonly limitVolts: number;
  /** The idle level while its own supply is at its minimum. */
  readonly restVolts: number;
}

/** The input limit of a device: a voltage above its supply, or a fixed voltage. */
export interface InputLimit {
  /** A placement, or `board`. */
  readonly id: string;
  readonly feed: Feed;
  readonly toleratedVolts?: number;
  readonly above: number;
}

/** The result for one segment of an I2C bus. */
export interface SegmentReport {
  readonly segment: Segment;
  /** The line on which the pull-ups are worse. */
  readonly line: I2cLine;
  readonly input: PullUpInput;
  readonly pullUps: Worked<PullUpResult>;
  readonly capacitance: CapacitanceParts;
  /** The lowest input limit on it, in volts. */
  readonly limits: readonly InputLimit[];
  /** Devices whose limit is below the idle level, lowest limit first. */
  readonly overdriven: readonly Overdriven[];
  /** The parts that pull above the lowest of those limits. */
  readonly pullingHigher: readonly string[];
  /** A value on hand to add where the pull-ups are missing or too weak, and adding one helps. */
  readonly add: number | undefined;
  /** The fewest parts whose pull-ups must be disconnected because they are too strong; empty where that does not help. */
  readonly cut: readonly string[];
}

const BADNESS: readonly PullUpResult['verdict'][] = ['good', 'too-weak', 'too-strong', 'both', 'missing'];

/** A line without the pull-ups of some parts, on its own segment and on joined ones. */
export function withoutPullUps(input: PullUpInput, ids: readonly string[]): PullUpInput {
  const left = (pullUps: readonly PullUp[]) => pullUps.filter((p) => !ids.includes(p.id));
  return {
    ...input,
    pullUps: left(input.pullUps),
    ...(input.joined ? { joined: input.joined.map((one) => ({ ...one, pullUps: left(one.pullUps) })) } : {}),
  };
}

/** The fewest parts whose pull-ups must be disconnected so that the rest is within limits: those of this segment first, then of joined
 *  ones; too-high pull-ups first, then the strongest.
 *  @param cuttable parts with pull-ups that can be disconnected
 *  @param high parts that pull above the limit of a device */
function toCut(input: PullUpInput, cuttable: ReadonlySet<string>, high: readonly string[]): readonly string[] {
  const rank = (p: PullUp) => Number(!high.includes(p.id));
  const strongest = (pullUps: readonly PullUp[]) =>
    pullUps.filter((p) => cuttable.has(p.id)).toSorted((a, b) => rank(a) - rank(b) || a.ohms.min - b.ohms.min)[0]?.id;
  for (const elsewhere of input.joined ? [false, true] : [false]) {
    const cut: string[] = [];
    let left = input;
    while (busPullUps(left).verdict === 'too-strong') {
      const id = strongest(elsewhere ? [...left.pullUps, ...(left.joined ?? []).flatMap((one) => one.pullUps)] : left.pullUps);
      if (id === undefined) break;
      cut.push(id);
      left = withoutPullUps(left, [id]);
    }
    if (cut.length > 0 && busPullUps(left).verdict === 'good') return cut;
  }
  return [];
}

/** Maximum continuous I2C input voltage above the supply, in volts: UM10204, table 9. */
const ABOVE_SUPPLY = 0.5;

/** Whether a module has a level shifter of its own on a line of its bus. */
const shiftsItself = ({ module, terminals }: PartSheet, line: I2cLine): boolean =>
  terminals.list.some(({ id, role }) => role === `i2c.${line}` && (module.levelShift?.terminals.includes(id) ?? false));

/** The input limit of each device on a segment. */
function limitsOf({ plan, sheets, board }: PlanContext, bus: Bus, segment: Segment, line: I2cLine): readonly InputLimit[] {
  const pin = board.pins.get(bus.pins[line] ?? '');
  const toleratedVolts = pin?.limits?.tolerantVolts;
  const ofBoard: InputLimit = {
    id: 'board',
    feed: { volts: logicVolts(board), rail: board.sheet.logicRail },
    ...(toleratedVolts === undefined ? {} : { toleratedVolts }),
    above: board.sheet.electrical.inputMaxAboveSupply,
  };
  const members = segment.members.flatMap((member): readonly InputLimit[] => {
    const part = partSheet(sheets, member.sheet)?.sheet;
    // The chip sees the low side of the shifter on its module, whatever the bus idles at.
    if (part && shiftsItself(part, line)) return [];
    const own = part?.levels?.tolerantVolts;
    return [
      {
        id: member.id,
        feed: partLogic(plan, sheets, board, member),
        ...(own === undefined ? {} : { toleratedVolts: own }),
        above: ABOVE_SUPPLY,
      },
    ];
  });
  return [...(segment.via ? [] : [ofBoard]), ...members];
}

/** Devices pulled above their limit by these pull-ups, lowest limit first. */
export function overdrivenBy(limits: readonly InputLimit[], pullUps: readonly PullUp[]): readonly Overdriven[] {
  return limits
    .flatMap(({ id, feed, toleratedVolts, above }): Overdriven[] => {
      const limit = toleratedVolts ?? feed.volts.min + above;
      const rest = worstIdleVoltage(pullUps, feed.rail, feed.volts.min, 'max');
      return rest > limit + 1e-9 ? [{ id, limitVolts: limit, restVolts: rest }] : [];
    })
    .toSorted((a, b) => a.limitVolts - b.limitVolts);
}

/** The pull-ups that a part has on its module, and that are not cut yet. */
function cuttableOf(plan: Plan, sheets: Sheets): ReadonlySet<string> {
  return new Set(plan.placements.filter((p) => !p.pullUpsCut && partSheet(sheets, p.sheet)?.sheet.module.pullUps?.length).map((p) => p.id));
}

function segmentSheet(context: PlanContext, bus: Bus, segments: readonly Segment[], segment: Segment): SegmentReport {
  const { plan, sheets, board } = context;
  const lines = busClock(plan, sheets, bus).lines.filter((one) => one.segment.id === segment.id);
  const worse = lines.reduce((a, b) => (BADNESS.indexOf(b.pullUps.verdict) > BADNESS.indexOf(a.pullUps.verdict) ? b : a));
  const { input, pullUps } = worse;
  const others = input.pullUps.filter((p) => p.id !== 'added');
  const helps = pullUps.verdict === 'missing' || pullUps.verdict === 'too-weak';
  // Where only one line is pulled too high it need not be the one that is worse else.
  const heights = [worse, ...lines.filter((one) => one !== worse)].map(({ line, input: { pullUps } }) => {
    const limits = limitsOf(context, bus, segment, line);
    return { limits, pullUps, overdriven: overdrivenBy(limits, pullUps) };
  });
  const above = ({ overdriven: [first] }: (typeof heights)[number]) => (first ? first.restVolts - first.limitVolts : 0);
  const highest = heights.reduce((a, b) => (above(b) > above(a) + 1e-9 ? b : a));
  const { limits, overdriven } = highest;
  const add = lazy(() =>
    helps
      ? bestAdded(valuesWithin(plan.valuesOnHand, 330, 100_000), (ohms) =>
          busPullUps({ ...input, pullUps: [...others, addedPullUp(ohms, { volts: input.vdd })] }),
        )
      : undefined,
  );
  const cut = lazy(() => (pullUps.verdict === 'too-strong' ? toCut(input, cuttableOf(plan, sheets), pullingHigher) : []));
  const limit = overdriven[0]?.limitVolts;
  const pullingHigher = limit === undefined ? [] : [...new Set(highest.pullUps.filter((p) => p.volts.max > limit).map((p) => p.id))];
  return {
    ...worse,
    limits,
    overdriven,
    pullingHigher,
    capacitance: capacitanceOf(plan, board, segments, segment),
    get add() {
      return add();
    },
    get cut() {
      return cut();
    },
  };
}

/** The segments of every I2C bus with a controller and both lines, by bus ID. Memoised by plan and sheets, because several checks use
 *  them. */
export const i2cSegmentReports = mapPerComponent((plan: Plan, sheets: Sheets): ReadonlyMap<string, readonly SegmentReport[]> => {
  const board = boardOf(plan, sheets);
  if (!board) return new Map();
  const buses = findBuses(plan, sheets).filter((bus) => bus.kind === 'i2c' && bus.controller && bus.pins.sda && bus.pins.scl);
  return new Map(buses.map((bus) => [bus.id, segmentReports(plan, sheets, board, bus)]));
});

/** The segments of an I2C bus with their pull-ups. */
export function segmentReports(plan: Plan, sheets: Sheets, board: IndexedBoard, bus: Bus): readonly [SegmentReport, ...SegmentReport[]] {
  const [first, ...more] = segmentsOf(plan, sheets, bus);
  const one = (segment: Segment) => segmentSheet({ plan, sheets, board }, bus, [first, ...more], segment);
  return [one(first), ...more.map(one)];
}
