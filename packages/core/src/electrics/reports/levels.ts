import type { PlanContext } from '../../plan/planContext';
import { findOrThrow } from '../../collections/orThrow';
import { USUAL_TOLERANCE } from '../../quantity/tolerance';
import { boardOf } from '../../plan/edit';
import { findBuses } from '../../nets/buses';
import { listPerComponent } from '../../nets/connectedComponents';
import { findNets } from '../../nets/nets';
import { passThroughSource } from '../../nets/passThrough';
import { type PlanTerminal, planTerminals, terminalsOf } from '../../nets/terminals';
import type { Plan, TerminalKey } from '../../plan/plan';
import type { Condition } from '../../sheets/condition';
import { isSameNominal, type Range, typical } from '../../quantity/range';
import type { LevelFact } from '../../sheets/boardSheet';
import { PIN_ROLES } from '../../sheets/roles';
import type { IndexedBoard, Sheets } from '../../sheets/sheetIndex';
import type { Feed } from './busInputs';
import { dividerOutput } from '../formulas/dividers';
import { boardSide, type Driver, INPUT_AMPS, partSide, type Receiver, shifterSide, type Side } from './levelSides';
import type { PullUp } from '../formulas/busPullUps';
import { worstIdleVoltage } from '../formulas/idleLevel';
import { i2cSegmentReports } from './segmentReport';

export const LEVEL_VERDICTS = ['damage', 'none', 'thin', 'good'] as const;
/** `damage`: above the absolute maximum; `none`: a level beyond its threshold in some corner; `thin`: noise margin below 0.1 VDD. */
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
  /** Required thresholds and absolute maximum. */
  readonly vihVolts: number;
  readonly vilVolts: number;
  readonly standsVolts: number;
  readonly marginHigh: number;
  readonly marginLow: number;
  /** Margin to the absolute maximum; negative if exceeded. */
  readonly room: number;
  readonly verdict: LevelVerdict;
  readonly assumed: boolean;
  /** The two sides have different supplies. */
  readonly crosses: boolean;
  /** Those are of one nominal voltage. */
  readonly sameNominal: boolean;
}

const THIN = 0.1;
/** What a member of an I2C bus sinks at most: an output that is specified at more gives a lower low. */
const I2C_AMPS = 3e-3;

const voltsOf = (fact: LevelFact, supply: number): number => ('volts' in fact ? fact.volts : fact.ratio * supply);

/** Whether two supplies move together. Two sources of one nominal voltage are at opposite ends of their tolerance only in the extreme. */
function isSameSupply(a: Feed, b: Feed, condition: Condition): boolean {
  if (a.rail === undefined || b.rail === undefined) return false;
  return a.rail === b.rail || (condition === 'usual' && isSameNominal(a.volts, b.volts));
}

/** The high level that a driver gives while the receiver's supply is at a voltage. */
function highOf(driver: Driver, receiver: Receiver, supply: number, corner: 'min' | 'max', condition: Condition): number {
  if (driver.pullUps) return worstIdleVoltage(driver.pullUps, receiver.feed.rail, supply, corner);
  const same = isSameSupply(driver.feed, receiver.feed, condition);
  const own = same ? supply : driver.feed.volts[corner];
  const given = corner === 'min' ? own - (driver.highOhms ?? 0) * INPUT_AMPS : own;
  return given * (driver.share?.[corner] ?? 1);
}

type Judged = Omit<LevelPair, 'key' | 'placement' | 'way'>;

/** The sides of a plan, each worked out once: most lines of a part meet the same two. */
class Sides {
  readonly #parts = new Map<string, Required<Side>>();
  readonly #board = new Map<number | undefined, Required<Side>>();
  readonly #lines = new Map<readonly PullUp[], Map<number, Driver>>();
  readonly #judged = new Map<Driver, Map<Receiver, Judged>>();

  constructor(
    private readonly plan: Plan,
    private readonly sheets: Sheets,
    private readonly board: IndexedBoard,
  ) {}

  part(item: PlanTerminal, i2c: boolean): Required<Side> {
    const key = `${item.placement.id} ${i2c}`;
    let side = this.#parts.get(key);
    if (!side) this.#parts.set(key, (side = partSide({ plan: this.plan, sheets: this.sheets, board: this.board }, item, i2c)));
    return side;
  }

  pin(pin: string | undefined): Required<Side> {
    const toleratedVolts = this.board.pins.get(pin ?? '')?.limits?.tolerantVolts;
    let side = this.#board.get(toleratedVolts);
    if (!side) this.#board.set(toleratedVolts, (side = boardSide(this.board, pin)));
    return side;
  }

  /** An I2C line driven low by a device. */
  line(pullUps: readonly PullUp[], lowVolts: number): Driver {
    let of = this.#lines.get(pullUps);
    if (!of) this.#lines.set(pullUps, (of = new Map<number, Driver>()));
    let driver = of.get(lowVolts);
    if (!driver) of.set(lowVolts, (driver = { feed: this.pin(undefined).driver.feed, highOhms: undefined, lowVolts, pullUps }));
    return driver;
  }

  judge(driver: Driver, receiver: Receiver): Judged {
    let of = this.#judged.get(driver);
    if (!of) this.#judged.set(driver, (of = new Map<Receiver, Judged>()));
    let found = of.get(receiver);
    if (!found) of.set(receiver, (found = compare(driver, receiver, this.sheets.condition ?? 'extreme')));
    return found;
  }
}

function compare(driver: Driver, receiver: Receiver, condition: Condition): Judged {
  const { feed, vih, vil, toleratedVolts, above } = receiver;
  const corners = (['min', 'max'] as const).map((corner) => {
    const supply = feed.volts[corner];
    const high = highOf(driver, receiver, supply, 'min', condition);
    const most = highOf(driver, receiver, supply, 'max', condition);
    const requiredVolts = voltsOf(vih, supply);
    const low = voltsOf(vil, supply);
    const limit = toleratedVolts ?? supply + above;
    return {
      high,
      most,
      requiredVolts,
      low,
      limit,
      marginHigh: high - requiredVolts,
      marginLow: low - driver.lowVolts,
      room: limit - most,
    };
  });
  const worst = <K extends 'marginHigh' | 'marginLow' | 'room'>(by: K) => corners.reduce((a, b) => (b[by] < a[by] ? b : a));
  const [h, l, r] = [worst('marginHigh'), worst('marginLow'), worst('room')];
  const least = Math.min(h.marginHigh, l.marginLow);
  const tiny = 1e-9;
  return {
    highVolts: h.high,
    mostVolts: r.most,
    lowVolts: driver.lowVolts,
    vihVolts: h.requiredVolts,
    vilVolts: l.low,
    standsVolts: r.limit,
    marginHigh: h.marginHigh,
    marginLow: l.marginLow,
    room: r.room,
    verdict: r.room < -tiny ? 'damage' : least < -tiny ? 'none' : least < THIN * typical(feed.volts) ? 'thin' : 'good',
    assumed: receiver.assumed,
    crosses: driver.feed.rail === undefined || driver.feed.rail !== feed.rail,
    sameNominal: isSameNominal(driver.feed.volts, feed.volts),
  };
}

/** The low level at the current of an I2C bus. */
const lowAt = ({ volts, atMilliamps }: { readonly volts: number; readonly atMilliamps: number }): number =>
  atMilliamps > 0 ? volts * Math.min(1, (I2C_AMPS * 1000) / atMilliamps) : volts;

/** The pull-ups of the segment of a part's I2C line, without internal ones, which may be off. */
function linePullUps(plan: Plan, sheets: Sheets): ReadonlyMap<TerminalKey, readonly PullUp[]> {
  const found = new Map<TerminalKey, readonly PullUp[]>();
  for (const bus of findBuses(plan, sheets))
    for (const { segment, input } of i2cSegmentReports(plan, sheets).get(bus.id) ?? [])
      for (const member of segment.members)
        for (const item of terminalsOf(plan, member, sheets))
          if (PIN_ROLES[item.terminal.role]?.line?.kind === 'i2c') found.set(item.key, input.pullUps);
  return found;
}

/** The share that two resistors leave of what a part sends: one in its wire, one from the board's end of that to ground. */
function dividedBy(plan: Plan, key: TerminalKey): Range | undefined {
  const [top, pull] = [plan.series[key], plan.pulls[key]];
  if (top === undefined || pull?.to !== 'ground') return undefined;
  const one: Range = { min: 1, max: 1 };
  return dividerOutput(top, pull.ohms, one, USUAL_TOLERANCE);
}

/** Who is at the other end of a part's wire, and whether the line goes on from there through a level shifter. */
interface Partner {
  readonly side: Side;
  readonly carried: boolean;
}

function partnerOf(context: PlanContext, sides: Sides, item: PlanTerminal): Partner | undefined {
  const { plan, sheets } = context;
  const { end } = item.wire ?? {};
  if (end?.to === 'terminal' && passThroughSource(plan, sheets, item.key) !== undefined) {
    const shifter = findOrThrow(plan.placements, (p) => p.id === end.placement);
    const side = shifterSide(context, shifter, end.terminal);
    return side && { side, carried: true };
  }
  const pin = findNets(plan, sheets).byTerminal.get(item.key)?.pins[0];
  return pin === undefined ? undefined : { side: sides.pin(pin), carried: false };
}

/** The two ways of an I2C line, which resistors bring high. */
function i2cPairs(board: IndexedBoard, item: PlanTerminal, lines: readonly PullUp[], sides: Sides, partner: Partner): readonly LevelPair[] {
  const { key, placement, part } = item;
  const fromBoard = sides.line(lines, lowAt(board.sheet.electrical.volMax));
  const toPart: LevelPair = { key, placement: placement.id, way: 'to-part', ...sides.judge(fromBoard, sides.part(item, true).receiver) };
  // Behind a level shifter the line ends there.
  if (partner.carried || !partner.side.receiver) return [toPart];
  const low = part.levels?.volMax ? lowAt(part.levels.volMax) : 0.4;
  return [toPart, { key, placement: placement.id, way: 'to-board', ...sides.judge(sides.line(lines, low), partner.side.receiver) }];
}

function pairsOf(context: PlanContext, sides: Sides, item: PlanTerminal, lines: readonly PullUp[] | undefined): readonly LevelPair[] {
  const { plan, board } = context;
  const { terminal, part, placement, key } = item;
  const demand = PIN_ROLES[terminal.role];
  if (!demand || !part.supply || terminal.role === 'adc.in' || terminal.role === 'strap') return [];
  // A coil is no logic input, and a pin with a transistor drives only the base or gate.
  if (terminal.coil || plan.drivers[key]) return [];
  // Of a level shifter only the board-side ends that represent other terminals.
  if (part.levelShifter && !item.carries) return [];
  if (part.module.levelShift?.terminals.includes(terminal.id)) return [];
  const partner = partnerOf(context, sides, item);
  if (!partner) return [];
  const i2c = demand.line?.kind === 'i2c';
  if (i2c) {
    if (part.levelShifter || !lines || lines.length === 0) return [];
    return i2cPairs(board, item, lines, sides, partner);
  }
  const own = part.levelShifter ? shifterSide(context, placement, terminal.id) : sides.part(item, false);
  const share = dividedBy(plan, key);
  const ways: LevelPair[] = [];
  if (terminal.direction !== 'out' && own?.receiver)
    ways.push({ key, placement: placement.id, way: 'to-part', ...sides.judge(partner.side.driver, own.receiver) });
  // What only pulls low is brought high by the board's own supply.
  const pullsOnly = (terminal.outputs ?? part.levels?.outputs) === 'open-drain' || terminal.role === 'onewire.data';
  if (terminal.direction !== 'in' && !pullsOnly && own && partner.side.receiver)
    ways.push({
      key,
      placement: placement.id,
      way: 'to-board',
      ...sides.judge(share ? { ...own.driver, share } : own.driver, partner.side.receiver),
    });
  return ways;
}

/** Every signal between the board and a part that has a supply, judged where it arrives: both ways for lines that go both ways, and at each
 *  end of a level shifter. Lines with a shifter on the part's own module are that module's matter and left out. */
export const levelPairs = listPerComponent((plan: Plan, sheets: Sheets): readonly LevelPair[] => {
  const board = boardOf(plan, sheets);
  if (!board) return [];
  const pullUps = linePullUps(plan, sheets);
  const sides = new Sides(plan, sheets, board);
  return planTerminals(plan, sheets).flatMap((item) => pairsOf({ plan, sheets, board }, sides, item, pullUps.get(item.key)));
});
