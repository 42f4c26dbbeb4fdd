import type { PlanContext } from '../../plan/planContext';
import { memoizeByObject } from '../../memo/memoizeByObject';
import { USUAL_TOLERANCE } from '../../quantity/tolerance';
import { point, type Range, typical } from '../../quantity/range';
import type { Condition } from '../../sheets/condition';
import type { DriveFact } from '../../sheets/boardSheet';
import { PIN_ROLES } from '../../sheets/roles';
import { type IndexedBoard, partSheet, type Sheets } from '../../sheets/sheetIndex';
import type { Bus } from '../../nets/buses';
import { controllerHz } from '../../nets/controllers';
import { memoizeByPair } from '../../memo/memoizeByPair';
import { logicSupply } from '../../nets/feedRail';
import { findNets } from '../../nets/nets';
import { terminalsOf } from '../../nets/terminals';
import { boardOf } from '../../plan/edit';
import { type Placement, type Plan, splitKey, type TerminalKey, terminalKey } from '../../plan/plan';
import type { PartSheet } from '../../sheets/partSheet';
import { joinedWith, type Segment, segmentsOf } from '../../nets/segments';
import { capacitanceOf, shiftersAt } from './busCapacitance';
import { type LineSegment, lowVolts, mostLowVolts, pulledTo, type PullUp, type PullUpInput, type Sink } from '../formulas/busPullUps';
import type { BusUser } from '../formulas/i2cTime';

/** What the electrics of an I2C bus start from, read from plan and sheets. */

/** A module's own regulator for parts of 3.3 V. */
const REGULATED: Range = { min: 3.2, max: 3.4 };
/** Minimum capability assumed for a member without facts. */
const STANDARD_SINK = { volts: 0.4, atMilliamps: 3 };

/** The sink current of a member at the I2C low level, from its guaranteed level. The current of a guaranteed level is a test condition,
 *  not a limit: below saturation an output is a resistance. A guaranteed level below the I2C limit therefore allows more current, and
 *  one above it less.
 *  @param maxAmps maximum current of the output, if its sheet states one */
export function sinkOf(id: string, fact: DriveFact, vdd: number, maxAmps = Infinity): Sink {
  const [least, most] = [lowVolts(vdd), mostLowVolts(vdd)];
  const amps = fact.atMilliamps / 1000;
  const volts = fact.volts > 0 ? Math.min(Math.max(fact.volts, least), most) : least;
  return { id, volts, amps: Math.min(maxAmps, fact.volts > 0 ? (amps * volts) / fact.volts : amps) };
}

export type I2cLine = 'sda' | 'scl';

const around = (ohms: number): Range => ({ min: ohms * (1 - USUAL_TOLERANCE), typ: ohms, max: ohms * (1 + USUAL_TOLERANCE) });

/** A pull-up added by the user, to the supply of its segment. */
export const addedPullUp = (ohms: number, feed: Feed): PullUp => ({ id: 'added', ohms: around(ohms), ...feed });

/** Supply of the board's logic, in volts. */
export function logicVolts(board: IndexedBoard): Range {
  return board.sheet.rails.list.find((rail) => rail.id === board.sheet.logicRail)?.volts ?? board.sheet.electrical.vdd;
}

/** Maximum voltage of a board pin in any state, with the logic supply at its minimum, in volts. */
export const aboveSupply = (board: IndexedBoard): number => logicVolts(board).min + board.sheet.electrical.inputMaxAboveSupply;

/** A voltage and the rail that it is the voltage of; none where a regulator makes it. */
export interface Feed {
  readonly volts: Range;
  readonly rail?: string;
}

const logicFeed = (board: IndexedBoard): Feed => ({ volts: logicVolts(board), rail: board.sheet.logicRail });

/** The rail that feeds a terminal; the logic supply where it is not wired yet. */
export function railAt(plan: Plan, sheets: Sheets, board: IndexedBoard, supply: string | undefined): Feed {
  const rail = supply && findNets(plan, sheets).byTerminal.get(supply)?.rails[0];
  const found = board.sheet.rails.list.find((r) => r.id === rail);
  return found ? { volts: found.volts, rail: found.id } : logicFeed(board);
}

/** Memoised supplies of parts: everything on a bus uses the same ones. */
const feeds = memoizeByPair((_plan: Plan, _sheets: Sheets): Map<string, Feed> => new Map<string, Feed>());

/** The rail that feeds a placement. */
export function feedOf(plan: Plan, sheets: Sheets, board: IndexedBoard, placement: string): Feed {
  const known = feeds(plan, sheets);
  let feed = known.get(placement);
  if (!feed) {
    const [first] = terminalsOf(plan, { id: placement }, sheets);
    const supply = first && logicSupply(first.part);
    known.set(placement, (feed = railAt(plan, sheets, board, supply && terminalKey(placement, supply.id))));
  }
  return feed;
}

/** What a module's regulator makes of its feed. Its own tolerance counts where every extreme meets: within the usual tolerance of supplies it
 *  is at its nominal voltage. */
function regulated({ volts }: Feed, condition: Condition = 'extreme'): Feed {
  const { min, max } = condition === 'extreme' ? REGULATED : point(typical(REGULATED));
  return { volts: { min: Math.min(volts.min, min), max: Math.min(volts.max, max) } };
}

/** What a part's own pull-ups and thresholds follow: its feed, or what its regulator makes of it. */
export function partLogic(plan: Plan, sheets: Sheets, board: IndexedBoard, placement: Placement): Feed {
  const feed = feedOf(plan, sheets, board, placement.id);
  return partSheet(sheets, placement.sheet)?.sheet.supply?.regulator ? regulated(feed, sheets.condition) : feed;
}

/** Maximum input voltage above the supply, in volts: typical of CMOS. */
export const CMOS_ABOVE = 0.3;

/** The supply of a pull-up added at a terminal: that of the terminal's part, unless another device on the line tolerates less; then the
 *  board's logic supply.
 *  @returns undefined where the plan's board is not known */
export function pullFeed(plan: Plan, sheets: Sheets, key: TerminalKey): Feed | undefined {
  const board = boardOf(plan, sheets);
  if (!board) return undefined;
  const { placement } = splitKey(key);
  const own = feedOf(plan, sheets, board, placement);
  const logic: Feed = { volts: logicVolts(board), rail: board.sheet.logicRail };
  if (own.rail === logic.rail) return own;
  const net = findNets(plan, sheets).byTerminal.get(key);
  const pin = net?.pins[0] === undefined ? undefined : board.pins.get(net.pins[0]);
  const pinTakes = pin ? (pin.limits?.tolerantVolts ?? aboveSupply(board)) : Infinity;
  const takes = (net?.terminals ?? []).map((item) => {
    const part = partSheet(sheets, item.placement.sheet)?.sheet;
    if (item.placement.id === placement || !part?.supply || part.levelShifter) return Infinity;
    return part.levels?.tolerantVolts ?? partLogic(plan, sheets, board, item.placement).volts.min + CMOS_ABOVE;
  });
  return own.volts.max <= Math.min(pinTakes, ...takes) ? own : logic;
}

const linesKnown = memoizeByObject((_part: PartSheet) => new Map<string, readonly string[]>());

/** The terminals of a part at a line of a bus: its own, or those of a channel. */
function atLine(part: PartSheet, line: I2cLine, channel?: number): readonly string[] {
  const known = linesKnown(part);
  const key = `${line} ${channel}`;
  let ids = known.get(key);
  if (!ids) {
    ids = part.terminals.list
      .filter((t) =>
        channel === undefined ? PIN_ROLES[t.role]?.line?.line === line : t.channel?.number === channel && t.channel.line === line,
      )
      .map((t) => t.id);
    known.set(key, ids);
  }
  return ids;
}

/** The pull-ups of a part on a line: those on its module and added ones. */
function pullUpsOf({ plan, sheets, board }: PlanContext, member: Placement, line: I2cLine, channel?: number): readonly PullUp[] {
  const part = partSheet(sheets, member.sheet)?.sheet;
  if (!part) return [];
  const own = atLine(part, line, channel);
  const feed = feedOf(plan, sheets, board, member.id);
  const module = member.pullUpsCut ? [] : (part.module.pullUps ?? []).filter((pull) => pull.terminals.some((t) => own.includes(t)));
  const placed = own.flatMap((t) => {
    const key = terminalKey(member.id, t);
    const pull = plan.pulls[key];
    return pull?.to === 'supply' ? [{ key, pull }] : [];
  });
  return [
    ...module.map((pull) => ({
      id: member.id,
      ohms: around(pull.ohms),
      ...(pull.to === 'regulated'
        ? regulated(feed, sheets.condition)
        : pull.from === undefined
          ? feed
          : railAt(plan, sheets, board, terminalKey(member.id, pull.from))),
    })),
    ...placed.map(({ key, pull }) => ({ id: member.id, ohms: around(pull.ohms), ...(pullFeed(plan, sheets, key) ?? feed) })),
  ];
}

/** Resistors on the board at a bus pin, and the one in the chip that a program may switch on. */
function boardPullUps(board: IndexedBoard, bus: Bus, line: I2cLine): { readonly fixed: readonly PullUp[]; readonly internal?: PullUp } {
  const pin = board.pins.get(bus.pins[line] ?? '');
  const logic = logicFeed(board);
  const fixed = (pin?.duties ?? []).flatMap((duty): PullUp[] =>
    duty.duty === 'pull-up' && duty.ohms ? [{ id: 'board', ohms: around(duty.ohms), ...logic }] : [],
  );
  const inside = board.sheet.electrical.pullUpOhms;
  return inside && !pin?.limits?.noPullUp ? { fixed, internal: { id: 'internal', ohms: inside, ...logic } } : { fixed };
}

const memberSink = (sheets: Sheets, member: Placement, vdd: number): Sink =>
  sinkOf(member.id, partSheet(sheets, member.sheet)?.sheet.levels?.volMax ?? STANDARD_SINK, vdd);

/** The side of a level shifter that faces a segment: its supply, and the pull-up at each of its ends. */
interface Side {
  readonly feed: Feed;
  readonly pullUps: readonly PullUp[];
  /** Absent where the two sides are never one. */
  readonly partsAt?: Range;
}

/** @param far the side away from the board */
function sideOf({ plan, sheets, board }: PlanContext, shifter: Placement, far: boolean): Side | undefined {
  const levelShifter = partSheet(sheets, shifter.sheet)?.sheet.levelShifter;
  if (!levelShifter) return undefined;
  const carrier = terminalsOf(plan, shifter, sheets).find((t) => t.carries);
  const nearIsLow = levelShifter.channels.some(({ low }) => low === carrier?.terminal.id);
  const supplyAt = (terminal: string) => railAt(plan, sheets, board, terminalKey(shifter.id, terminal));
  const [low, high] = [supplyAt(levelShifter.low), supplyAt(levelShifter.high)];
  const feed = far === nearIsLow ? high : low;
  return {
    feed,
    pullUps: levelShifter.ohms ? [{ id: shifter.id, ohms: around(levelShifter.ohms), ...feed }] : [],
    ...(levelShifter.thresholdVolts
      ? { partsAt: { min: low.volts.min - levelShifter.thresholdVolts.max, max: low.volts.max - levelShifter.thresholdVolts.min } }
      : {}),
  };
}

export interface ClockLimit {
  /** A placement, or `board`. */
  readonly id: string;
  readonly hz: number;
}

/** Highest clocks of all that are on the bus, the lowest first. */
export function clockLimits(plan: Plan, sheets: Sheets, board: IndexedBoard, bus: Bus): readonly ClockLimit[] {
  const controller = bus.controller === undefined ? undefined : board.controllers.get(bus.controller);
  const parts = everyMember(plan, sheets, bus).flatMap((member): ClockLimit[] => {
    const devices = partSheet(sheets, member.sheet)?.sheet.bus.devices ?? [];
    return devices.length > 0 ? [{ id: member.id, hz: Math.min(...devices.map((d) => d.maxHz)) }] : [];
  });
  return [...parts, ...(controller ? [{ id: 'board', hz: controllerHz(controller, bus.pins) }] : [])].toSorted((a, b) => a.hz - b.hz);
}

/** Default I2C clock. */
export const USUAL_HZ = 400e3;

/** The clock that a bus is meant to have: as set, else the highest that all its members allow, up to the usual one. */
export function meantClock(plan: Plan, sheets: Sheets, board: IndexedBoard, bus: Bus): number {
  return plan.busSettings[bus.controller ?? '']?.hz ?? usualClock(clockLimits(plan, sheets, board, bus));
}

/** The highest clock, up to the usual one, that everybody who has a say in it allows.
 *  @param limits the lowest first */
export const usualClock = (limits: readonly ClockLimit[]): number => Math.min(USUAL_HZ, limits[0]?.hz ?? USUAL_HZ);

/** A segment of a line with all its pull resistors. */
function lineSegmentOf(context: PlanContext, bus: Bus, segment: Segment, line: I2cLine): LineSegment {
  const { plan, sheets, board } = context;
  const segments = segmentsOf(plan, sheets, bus);
  const { via } = segment;
  const shifter = via && via.by !== 'channel' ? sideOf(context, via.placement, true) : undefined;
  const feed = shifter?.feed ?? (via ? feedOf(plan, sheets, board, via.placement.id) : logicFeed(board));
  const added = plan.busSettings[segment.id]?.addedOhms;
  const { fixed, internal } = via ? { fixed: [], internal: undefined } : boardPullUps(board, bus, line);
  const { volMax, pinMilliamps } = board.sheet.electrical;
  const pullUps = [
    ...segment.members.flatMap((member) => pullUpsOf(context, member, line)),
    ...(via?.by === 'channel' ? pullUpsOf(context, via.placement, line, via.channel) : []),
    ...(shifter?.pullUps ?? []),
    ...shiftersAt(segments, segment).flatMap((one) => sideOf(context, one, false)?.pullUps ?? []),
    ...fixed,
    ...(added === undefined ? [] : [addedPullUp(added, feed)]),
  ];
  const isOff =
    board.pins.get(bus.pins[line] ?? '')?.limits?.tolerantUnless !== undefined &&
    pulledTo({ pullUps, vdd: feed.volts }).max > aboveSupply(board);
  return {
    vdd: feed.volts,
    pullUps,
    ...(!internal ? {} : isOff ? { internalOff: true } : { internal }),
    sinks: [
      ...(via ? [] : [sinkOf('board', volMax, feed.volts.max, pinMilliamps / 1000)]),
      ...segment.members.map((member) => memberSink(sheets, member, feed.volts.max)),
    ],
    farads: capacitanceOf(plan, board, segments, segment).farads,
    ...(shifter?.partsAt ? { partsAt: shifter.partsAt } : {}),
  };
}

/** One line of a segment of an I2C bus, at a clock. */
interface LineAt {
  readonly line: I2cLine;
  /** By default the one at the board's pins. */
  readonly segment?: Segment;
  /** By default the clock that the bus is meant to have. */
  readonly hz?: number;
}

/** The pull-ups of one line of a segment of an I2C bus, with the segments that are one with it while the line is low, ready to be
 *  calculated. Undefined where the plan's board is not known. */
export function pullUpInput(plan: Plan, sheets: Sheets, bus: Bus, { line, segment, hz }: LineAt): PullUpInput | undefined {
  const board = boardOf(plan, sheets);
  if (!board) return undefined;
  const segments = segmentsOf(plan, sheets, bus);
  const target = segments.find((s) => s.id === segment?.id) ?? segments[0];
  const lineSegment = (one: Segment) => lineSegmentOf({ plan, sheets, board }, bus, one, line);
  const joined = joinedWith(segments, target).filter((one) => one !== target);
  return {
    ...lineSegment(target),
    hz: hz ?? meantClock(plan, sheets, board, bus),
    ...(joined.length > 0 ? { joined: joined.map((one) => ({ ...lineSegment(one), id: one.id })) } : {}),
    ...(target === segments[0] ? {} : { root: segments[0].id }),
  };
}

/** Everything on a bus: its members and what is behind its multiplexers. */
export function everyMember(plan: Plan, sheets: Sheets, bus: Bus): readonly Placement[] {
  return segmentsOf(plan, sheets, bus).flatMap((segment) => segment.members);
}

/** The traffic of the members of a bus at the rate set in the plan, otherwise the usual rate of the sheets. Members without facts are
 *  left out and named. */
export function busUsers(
  plan: Plan,
  sheets: Sheets,
  bus: Bus,
): { readonly users: readonly BusUser[]; readonly unknown: readonly string[] } {
  const unknown: string[] = [];
  const users = everyMember(plan, sheets, bus).flatMap((member): BusUser[] => {
    const access = partSheet(sheets, member.sheet)?.sheet.access;
    if (!access) {
      unknown.push(member.id);
      return [];
    }
    return [
      {
        id: member.id,
        transfers: access.transfers,
        perSecond: plan.rates[member.id] ?? access.perSecond,
        ...(access.stretchMicroseconds === undefined ? {} : { stretchSeconds: access.stretchMicroseconds * 1e-6 }),
      },
    ];
  });
  return { users, unknown };
}
