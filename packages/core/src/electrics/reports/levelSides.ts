import type { PlanContext } from '../../plan/planContext';
import { otherEnd } from '../../nets/passThrough';
import { findNets } from '../../nets/nets';
import type { PlanTerminal } from '../../nets/terminals';
import { type Placement, type Plan, terminalKey } from '../../plan/plan';
import { point, type Range, typical } from '../../quantity/range';
import type { LevelFact } from '../../sheets/boardSheet';
import type { PartSheet } from '../../sheets/partSheet';
import { type IndexedBoard, partSheet, type Sheets } from '../../sheets/sheetIndex';
import { CMOS_ABOVE, type Feed, feedOf, logicVolts, partLogic, railAt } from './busInputs';
import type { PullUp } from '../formulas/busPullUps';

/** What an output gives. */
export interface Driver {
  readonly feed: Feed;
  /** Resistance towards its supply, in ohms; none for lines that only resistors bring high. */
  readonly highOhms: number | undefined;
  readonly lowVolts: number;
  readonly pullUps?: readonly PullUp[];
  /** The share of it that arrives, where two resistors divide it. */
  readonly share?: Range;
}

/** The limits of an input. */
export interface Receiver {
  readonly feed: Feed;
  readonly vih: LevelFact;
  readonly vil: LevelFact;
  /** Fixed maximum voltage; absent if it follows the supply. */
  readonly toleratedVolts?: number;
  readonly above: number;
  /** Its sheet states no thresholds; typical CMOS thresholds are used. */
  readonly assumed: boolean;
}

/** One end of a line with its output levels and input limits; a MOSFET between two lines accepts any level. */
export interface Side {
  readonly driver: Driver;
  readonly receiver?: Receiver;
}

/** Current that an input and its wire ask of an output, in amperes: far below what outputs are specified at. */
export const INPUT_AMPS = 100e-6;
/** Default maximum input voltage above the supply: typical of CMOS, for I2C that of UM10204. */
const ABOVE = { cmos: CMOS_ABOVE, i2c: 0.5 } as const;
const CMOS = { high: { ratio: 0.7 }, low: { ratio: 0.3 } } as const;
/** Up to this feed a module's regulator for 3.3 V is out of regulation, in volts. */
const PASSED_ON = 3.6;
/** What a level shifter of MOSFETs adds to a low at the current of its pull-ups, in volts: a few ohms at half a milliampere. */
const MOSFET_VOLTS = 0.01;

/** The logic supply of a part: its supply, its regulator output, or the logic supply of its sheet. */
function logicOf({ plan, sheets, board }: PlanContext, placement: Placement, part: PartSheet): Feed {
  const feed = feedOf(plan, sheets, board, placement.id);
  if (!part.supply?.regulator) return feed;
  const made = partLogic(plan, sheets, board, placement);
  // A regulator in dropout passes its input through, so its output follows its supply.
  if (feed.volts.max <= PASSED_ON) return feed;
  const stated = part.levels?.logicVolts;
  if (stated && sheets.condition && sheets.condition !== 'extreme') return { volts: point(typical(stated)) };
  return stated ? { volts: { min: Math.max(made.volts.min, stated.min), max: Math.min(made.volts.max, stated.max) } } : made;
}

/** Volts that a driver drops at a small current, from what it drops at the one that it is specified at. */
const ohmsOf = (supply: number, fact: { readonly volts: number; readonly atMilliamps: number } | undefined): number =>
  fact && fact.atMilliamps > 0 ? Math.max(0, supply - fact.volts) / (fact.atMilliamps / 1000) : 0;

function partDriver(feed: Feed, part: PartSheet): Driver {
  const { vohMin, volMax } = part.levels ?? {};
  const lowOhms = volMax && volMax.atMilliamps > 0 ? volMax.volts / (volMax.atMilliamps / 1000) : 0;
  // A level specified at a higher supply does not state the drop at this one.
  const fits = vohMin && vohMin.volts <= typical(feed.volts) ? vohMin : undefined;
  return { feed, highOhms: ohmsOf(typical(feed.volts), fits), lowVolts: lowOhms * INPUT_AMPS };
}

function partReceiver(feed: Feed, part: PartSheet, i2c: boolean): Receiver {
  const { vihMin, vilMax, tolerantVolts } = part.levels ?? {};
  return {
    feed,
    vih: vihMin ?? CMOS.high,
    vil: vilMax ?? CMOS.low,
    ...(tolerantVolts === undefined ? {} : { toleratedVolts: tolerantVolts }),
    above: i2c ? ABOVE.i2c : ABOVE.cmos,
    assumed: !vihMin || !vilMax,
  };
}

/** A part at its end of a line. */
export function partSide(context: PlanContext, { placement, part }: PlanTerminal, i2c: boolean): Required<Side> {
  const feed = logicOf(context, placement, part);
  return { driver: partDriver(feed, part), receiver: partReceiver(feed, part, i2c) };
}

/** The board at a pin. */
export function boardSide(board: IndexedBoard, pin: string | undefined): Required<Side> {
  const feed: Feed = { volts: logicVolts(board), rail: board.sheet.logicRail };
  const { vohMin, volMax, vihMin, vilMax, inputMaxAboveSupply } = board.sheet.electrical;
  const toleratedVolts = board.pins.get(pin ?? '')?.limits?.tolerantVolts;
  return {
    driver: {
      feed,
      highOhms: ohmsOf(typical(feed.volts), vohMin),
      lowVolts: volMax.atMilliamps > 0 ? (volMax.volts / (volMax.atMilliamps / 1000)) * INPUT_AMPS : volMax.volts,
    },
    receiver: {
      feed,
      vih: vihMin,
      vil: vilMax,
      ...(toleratedVolts === undefined ? {} : { toleratedVolts }),
      above: inputMaxAboveSupply,
      assumed: false,
    },
  };
}

/** A level shifter at one end of a channel. A MOSFET gives the supply of its side for high, through its pull-up, and passes a low on. */
export function shifterSide({ plan, sheets, board }: PlanContext, shifter: Placement, end: string): Side | undefined {
  const part = partSheet(sheets, shifter.sheet)?.sheet;
  const levelShifter = part?.levelShifter;
  if (!part || !levelShifter || otherEnd(part, end) === undefined) return undefined;
  const isLow = levelShifter.channels.some((c) => c.low === end);
  const feed = railAt(plan, sheets, board, terminalKey(shifter.id, isLow ? levelShifter.low : levelShifter.high));
  if (levelShifter.kind === 'drive') return { driver: partDriver(feed, part), receiver: partReceiver(feed, part, false) };
  return { driver: { feed, highOhms: 0, lowVolts: boardSide(board, undefined).driver.lowVolts + MOSFET_VOLTS } };
}

/** The rails of a level shifter if swapped: the low-side supply must not exceed the high-side supply. */
export function isFedBackwards(plan: Plan, sheets: Sheets, board: IndexedBoard, shifter: Placement): boolean {
  const levelShifter = partSheet(sheets, shifter.sheet)?.sheet.levelShifter;
  if (!levelShifter || levelShifter.low === levelShifter.high) return false;
  const nets = findNets(plan, sheets);
  const [low, high] = [terminalKey(shifter.id, levelShifter.low), terminalKey(shifter.id, levelShifter.high)];
  if (!nets.byTerminal.get(low)?.rails[0] || !nets.byTerminal.get(high)?.rails[0]) return false;
  return typical(railAt(plan, sheets, board, low).volts) > typical(railAt(plan, sheets, board, high).volts);
}
