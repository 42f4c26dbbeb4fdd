import { findBuses } from '../nets/buses';
import { findNets } from '../nets/nets';
import { carrierOf } from '../nets/passages';
import { type PlanTerminal, planTerminals } from '../nets/terminals';
import type { Plan, TerminalKey } from '../plan/plan';
import { typical } from '../quantity/range';
import type { LevelFact } from '../sheets/boardSheet';
import { PIN_ROLES } from '../sheets/roles';
import type { IndexedBoard, Sheets } from '../sheets/sheetIndex';
import { type Feed, feedOf, logicVolts, partLogic } from './busInputs';
import type { PullUp } from './busPullUps';
import { restFor } from './rest';
import { i2cStretches } from './segmentSheet';

/** What an output gives. */
interface Driver {
  readonly feed: Feed;
  /** Resistance towards its supply and towards ground, in ohms; none for lines that only resistors bring high. */
  readonly highOhms: number | undefined;
  readonly lowVolts: number;
  readonly pullUps?: readonly PullUp[];
}

/** What an input takes. */
interface Receiver {
  readonly feed: Feed;
  readonly vih: LevelFact;
  readonly vil: LevelFact;
  /** Highest voltage whatever its supply is; absent where its supply says. */
  readonly stands?: number;
  readonly above: number;
  /** Its sheet states no thresholds: those of usual CMOS stand in. */
  readonly assumed: boolean;
}

export const LEVEL_VERDICTS = ['damage', 'none', 'thin', 'good'] as const;
/** `damage`: more comes than the input stands; `none`: at some corner a level is not told; `thin`: less than a tenth of the supply left. */
export type LevelVerdict = (typeof LEVEL_VERDICTS)[number];

/** A signal from one side to the other, at the worst corner of both supplies. */
export interface LevelPair {
  readonly key: TerminalKey;
  readonly placement: string;
  readonly way: 'to-part' | 'to-board';
  /** What comes: at least so much for high, at most so much at all, at most so much for low, in volts. */
  readonly highVolts: number;
  readonly mostVolts: number;
  readonly lowVolts: number;
  /** What is asked, and what is stood. */
  readonly vihVolts: number;
  readonly vilVolts: number;
  readonly standsVolts: number;
  readonly marginHigh: number;
  readonly marginLow: number;
  /** How much the input could stand besides; below nothing where it is too much. */
  readonly room: number;
  readonly verdict: LevelVerdict;
  readonly assumed: boolean;
  /** The two sides hang on different supplies. */
  readonly crosses: boolean;
}

/** Current that an input and its wire ask of an output, in amperes: far below what outputs are specified at. */
const INPUT_AMPS = 100e-6;
/** What an input takes above its supply where its sheet does not say: the usual of CMOS, and for I2C that of UM10204. */
const ABOVE = { cmos: 0.3, i2c: 0.5 } as const;
const CMOS = { high: { ratio: 0.7 }, low: { ratio: 0.3 } } as const;
const THIN = 0.1;
/** Up to this feed a module's regulator for 3.3 V is out of regulation, in volts. */
const PASSED_ON = 3.6;
/** What a member of an I2C bus sinks at most: an output that is specified at more gives a lower low. */
const I2C_AMPS = 3e-3;

const voltsOf = (fact: LevelFact, supply: number): number => ('volts' in fact ? fact.volts : fact.ratio * supply);

/** The high level that a driver gives while the receiver's supply is at a voltage. */
function highOf(driver: Driver, receiver: Receiver, supply: number, corner: 'min' | 'max'): number {
  if (driver.pullUps) return restFor(driver.pullUps, receiver.feed.rail, supply, corner);
  const same = driver.feed.rail !== undefined && driver.feed.rail === receiver.feed.rail;
  const own = same ? supply : driver.feed.volts[corner];
  return corner === 'min' ? own - (driver.highOhms ?? 0) * INPUT_AMPS : own;
}

function compare(driver: Driver, receiver: Receiver): Omit<LevelPair, 'key' | 'placement' | 'way'> {
  const { feed, vih, vil, stands, above } = receiver;
  const corners = (['min', 'max'] as const).map((corner) => {
    const supply = feed.volts[corner];
    const high = highOf(driver, receiver, supply, 'min');
    const most = highOf(driver, receiver, supply, 'max');
    const asked = voltsOf(vih, supply);
    const low = voltsOf(vil, supply);
    const limit = stands ?? supply + above;
    return { high, most, asked, low, limit, marginHigh: high - asked, marginLow: low - driver.lowVolts, room: limit - most };
  });
  const worst = <K extends 'marginHigh' | 'marginLow' | 'room'>(by: K) => corners.reduce((a, b) => (b[by] < a[by] ? b : a));
  const [h, l, r] = [worst('marginHigh'), worst('marginLow'), worst('room')];
  const least = Math.min(h.marginHigh, l.marginLow);
  const tiny = 1e-9;
  return {
    highVolts: h.high,
    mostVolts: r.most,
    lowVolts: driver.lowVolts,
    vihVolts: h.asked,
    vilVolts: l.low,
    standsVolts: r.limit,
    marginHigh: h.marginHigh,
    marginLow: l.marginLow,
    room: r.room,
    verdict: r.room < -tiny ? 'damage' : least < -tiny ? 'none' : least < THIN * typical(feed.volts) ? 'thin' : 'good',
    assumed: receiver.assumed,
    crosses: driver.feed.rail === undefined || driver.feed.rail !== feed.rail,
  };
}

/** What the signals of a part are made of: its feed, what its regulator makes, or what its sheet says of its logic. */
function logicOf(plan: Plan, sheets: Sheets, board: IndexedBoard, item: PlanTerminal): Feed {
  const feed = feedOf(plan, sheets, board, item.placement.id);
  if (!item.part.supply?.regulator) return feed;
  const made = partLogic(plan, sheets, board, item.placement);
  // A regulator that gets no more than it makes passes it on: what it makes moves with its feed.
  if (feed.volts.max <= PASSED_ON) return feed;
  const stated = item.part.levels?.logicVolts;
  return stated ? { volts: { min: Math.max(made.volts.min, stated.min), max: Math.min(made.volts.max, stated.max) } } : made;
}

function partReceiver(feed: Feed, { part }: PlanTerminal, i2c: boolean): Receiver {
  const { vihMin, vilMax, tolerantVolts } = part.levels ?? {};
  return {
    feed,
    vih: vihMin ?? CMOS.high,
    vil: vilMax ?? CMOS.low,
    ...(tolerantVolts === undefined ? {} : { stands: tolerantVolts }),
    above: i2c ? ABOVE.i2c : ABOVE.cmos,
    assumed: !vihMin || !vilMax,
  };
}

/** Volts that a driver drops at a small current, from what it drops at the one that it is specified at. */
const ohmsOf = (supply: number, fact: { readonly volts: number; readonly atMilliamps: number } | undefined): number =>
  fact && fact.atMilliamps > 0 ? Math.max(0, supply - fact.volts) / (fact.atMilliamps / 1000) : 0;

function partDriver(feed: Feed, { part }: PlanTerminal): Driver {
  const { vohMin, volMax } = part.levels ?? {};
  const lowOhms = volMax && volMax.atMilliamps > 0 ? volMax.volts / (volMax.atMilliamps / 1000) : 0;
  // What is specified at a higher supply than it has says nothing of its drop.
  const fits = vohMin && vohMin.volts <= typical(feed.volts) ? vohMin : undefined;
  return { feed, highOhms: ohmsOf(typical(feed.volts), fits), lowVolts: lowOhms * INPUT_AMPS };
}

function boardSides(board: IndexedBoard, pin: string | undefined): { readonly driver: Driver; readonly receiver: Receiver } {
  const feed: Feed = { volts: logicVolts(board), rail: board.sheet.logicRail };
  const { vohMin, volMax, vihMin, vilMax, inputMaxAboveSupply } = board.sheet.electrical;
  const stands = board.pins.get(pin ?? '')?.limits?.tolerantVolts;
  return {
    driver: {
      feed,
      highOhms: ohmsOf(typical(feed.volts), vohMin),
      lowVolts: volMax.atMilliamps > 0 ? (volMax.volts / (volMax.atMilliamps / 1000)) * INPUT_AMPS : volMax.volts,
    },
    receiver: { feed, vih: vihMin, vil: vilMax, ...(stands === undefined ? {} : { stands }), above: inputMaxAboveSupply, assumed: false },
  };
}

/** The low level at the current of an I2C bus. */
const lowAt = ({ volts, atMilliamps }: { readonly volts: number; readonly atMilliamps: number }): number =>
  atMilliamps > 0 ? volts * Math.min(1, (I2C_AMPS * 1000) / atMilliamps) : volts;

/** The pull-ups of the stretch that an I2C line of a part lies on, without the chip's own, which may be off. */
function linePullUps(plan: Plan, sheets: Sheets): ReadonlyMap<TerminalKey, readonly PullUp[]> {
  const found = new Map<TerminalKey, readonly PullUp[]>();
  const all = planTerminals(plan, sheets);
  for (const bus of findBuses(plan, sheets))
    for (const { segment, input } of i2cStretches(plan, sheets).get(bus.id) ?? [])
      for (const member of segment.members)
        for (const item of all) {
          const line = PIN_ROLES[item.terminal.role]?.line;
          if (item.placement.id === member.id && line?.kind === 'i2c') found.set(item.key, input.pullUps);
        }
  return found;
}

/** Every signal between the board and a part that has a supply, judged where it arrives: both ways for lines that go both ways. Lines with
 *  a shifter on the part's own module, and private signals through a level shifter, are that shifter's matter and left out. */
export function levelPairs(plan: Plan, sheets: Sheets, board: IndexedBoard): readonly LevelPair[] {
  const nets = findNets(plan, sheets);
  const pullUps = linePullUps(plan, sheets);
  return planTerminals(plan, sheets).flatMap((item): LevelPair[] => {
    const { terminal, part, placement, key } = item;
    const demand = PIN_ROLES[terminal.role];
    if (!demand || !part.supply || part.passage || terminal.role === 'adc.in' || terminal.role === 'strap') return [];
    if (part.module.levelShift?.terminals.includes(terminal.id)) return [];
    const i2c = demand.line?.kind === 'i2c';
    const carried = carrierOf(plan, sheets, key) !== undefined;
    const pin = nets.byTerminal.get(key)?.pins[0];
    if (carried ? !i2c : pin === undefined) return [];
    const own = logicOf(plan, sheets, board, item);
    const { driver, receiver } = boardSides(board, pin);
    const mine = partReceiver(own, item, i2c);
    if (i2c) {
      const lines = pullUps.get(key);
      if (!lines || lines.length === 0) return [];
      const low = part.levels?.volMax ? lowAt(part.levels.volMax) : 0.4;
      const line = (lowVolts: number): Driver => ({ feed: driver.feed, highOhms: undefined, lowVolts, pullUps: lines });
      const toPart: LevelPair = {
        key,
        placement: placement.id,
        way: 'to-part',
        ...compare(line(lowAt(board.sheet.electrical.volMax)), mine),
      };
      // Behind a level shifter the line ends there.
      return carried ? [toPart] : [toPart, { key, placement: placement.id, way: 'to-board', ...compare(line(low), receiver) }];
    }
    const ways: LevelPair[] = [];
    if (terminal.direction !== 'out') ways.push({ key, placement: placement.id, way: 'to-part', ...compare(driver, mine) });
    // What only pulls low is brought high by the board's own supply.
    const pullsOnly = part.levels?.outputs === 'open-drain' || terminal.role === 'onewire.data';
    if (terminal.direction !== 'in' && !pullsOnly)
      ways.push({ key, placement: placement.id, way: 'to-board', ...compare(partDriver(own, item), receiver) });
    return ways;
  });
}
