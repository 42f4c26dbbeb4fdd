import type { PlanContext } from '../../plan/planContext';
import { lastOrThrow } from '../../collections/orThrow';
import { USUAL_TOLERANCE } from '../../quantity/tolerance';
import { listPerComponent } from '../../nets/connectedComponents';
import { cathodeOf } from '../../nets/leds';
import { findNets } from '../../nets/nets';
import { type PlanTerminal, planTerminals, terminalsOf } from '../../nets/terminals';
import { boardOf, partOf } from '../../plan/edit';
import { type Driver, type Plan, splitKey, type TerminalKey, terminalKey } from '../../plan/plan';
import { type Range, typical } from '../../quantity/range';
import { valuesWithin } from '../../quantity/series';
import type { PartSheet } from '../../sheets/partSheet';
import type { IndexedBoard, Sheets } from '../../sheets/sheetIndex';
import { feedOf, logicVolts } from './busInputs';
import { cathodeKeys, ledString, sharedResistors } from './ledStrings';
import { BASE_VOLTS } from '../formulas/transistor';

/** What drives an LED: a board pin, an output of a part, or a rail as long as there is power. */
export type LedSource =
  | { readonly by: 'pin'; readonly pin: string }
  | { readonly by: 'part'; readonly placement: string; readonly key: TerminalKey }
  | { readonly by: 'rail'; readonly rail: string };

/** One LED of a plan, or several in series, with everything in the circuit. */
export interface LedReport {
  readonly key: TerminalKey;
  readonly placement: string;
  /** The anodes of a string of LEDs in series, the driven one first; of a single LED it alone. */
  readonly anodes: readonly TerminalKey[];
  /** The terminal in whose wire the resistor sits, or should. */
  readonly resistorAt: TerminalKey;
  readonly driver: LedSource;
  /** The output sinks the current: the other end is at a supply. */
  readonly sinks: boolean;
  /** Number of multiplexed digits; 1 for a steady LED. */
  readonly digits: number;
  readonly supply: Range;
  readonly forwardVolts: Range;
  /** What the output itself drops, as a resistance: 0 at best, the guaranteed value in the worst case; with what other resistors a
   *  string has. */
  readonly driveOhms: Range;
  /** What the transistor of a digit keeps. */
  readonly dropVolts: Range;
  /** Resistor in its wire, in ohms; undefined where there is none. */
  readonly ohms: number | undefined;
  /** While it is lit, at the corners of supply, forward voltage, output and resistor, in amperes. */
  readonly amps: Range;
  /** What it is meant to have while it is lit, and what it may have at most, in amperes. */
  readonly targetAmps: number;
  readonly maxAmps: number;
  /** Absolute maximum of the LEDs alone, in amperes. */
  readonly ledAmps: number;
  /** What a resistor to fit would be exactly, and from the values on hand; undefined where none is so large. */
  readonly exactOhms: number;
  readonly fitOhms: number | undefined;
}

/** Default current of an indicator LED, bright enough with modern LEDs. */
const USUAL_AMPS = 5e-3;
/** Mean current of a segment of several digits. */
const DIGIT_AMPS = 2e-3;
/** A pin is not planned to its limit. */
const OF_LIMIT = 0.8;
/** What a saturated transistor keeps between collector and emitter; a field-effect transistor keeps less. */
const SATURATED: Range = { min: 0.05, typ: 0.2, max: 0.4 };
const NONE: Range = { min: 0, typ: 0, max: 0 };

/** Outputs drop at most what their sheet guarantees; the typical one half of that. */
const outputOhms = (worst: number): Range => ({ min: 0, typ: worst / 2, max: worst });

const droppedBy = (supply: number, fact: { readonly volts: number; readonly atMilliamps: number } | undefined, low: boolean): number => {
  if (!fact || fact.atMilliamps <= 0) return 0;
  return Math.max(0, low ? fact.volts : supply - fact.volts) / (fact.atMilliamps / 1000);
};

/** Limit of one output of the board at a pin, in amperes. */
export const pinLimit = (board: IndexedBoard, pin: string): number =>
  (board.pins.get(pin)?.limits?.milliamps ?? board.sheet.electrical.pinMilliamps) / 1000;

/** The board pin in the net of a terminal, as the output of an LED: its drop, and what it carries at most. */
function pinDriver({ plan, sheets, board }: PlanContext, key: TerminalKey, sinks: boolean) {
  const pin = findNets(plan, sheets).byTerminal.get(key)?.pins[0];
  if (pin === undefined) return undefined;
  const { vohMin, volMax, outputOhms: stated } = board.sheet.electrical;
  const driveOhms = stated ?? outputOhms(droppedBy(typical(logicVolts(board)), sinks ? volMax : vohMin, sinks));
  return { driver: { by: 'pin', pin }, driveOhms, limitAmps: pinLimit(board, pin) } as const;
}

interface Circuit {
  readonly driver: LedSource;
  readonly supply: Range;
  readonly driveOhms: Range;
  /** Of one output, and of all outputs of its package together. */
  readonly limitAmps: number;
  readonly totalAmps: number | undefined;
}

/** The output at the end of an LED's wire. */
function circuitOf(context: PlanContext, item: PlanTerminal, sinks: boolean): Circuit | undefined {
  const { plan, sheets, board } = context;
  const atPin = pinDriver(context, item.key, sinks);
  if (atPin) return { ...atPin, supply: logicVolts(board), totalAmps: undefined };
  const end = item.wire?.end;
  const rail = end?.to === 'rail' && item.terminal.led ? board.sheet.rails.list.find(({ id }) => id === end.rail) : undefined;
  if (rail)
    return { driver: { by: 'rail', rail: rail.id }, supply: rail.volts, driveOhms: NONE, limitAmps: Infinity, totalAmps: undefined };
  if (end?.to !== 'terminal') return undefined;
  const other = terminalsOf(plan, { id: end.placement }, sheets).find((t) => t.terminal.id === end.terminal);
  if (!other?.terminal.serves?.some((does) => does === 'output' || does === 'select')) return undefined;
  const { part } = other;
  const feed = feedOf(plan, sheets, board, end.placement).volts;
  const worst = droppedBy(typical(feed), sinks ? part.levels?.volMax : fitting(part, feed), sinks);
  return {
    driver: { by: 'part', placement: end.placement, key: other.key },
    supply: feed,
    driveOhms: outputOhms(worst),
    limitAmps: (part.drive?.milliamps ?? Infinity) / 1000,
    totalAmps: part.drive && part.drive.totalMilliamps / 1000,
  };
}

/** The pin that takes the current of a string from a rail: where its last cathode ends. */
function sunkBy(context: PlanContext, circuit: Circuit, last: PlanTerminal): Circuit | undefined {
  const cathode = cathodeOf(last.part);
  if (circuit.driver.by !== 'rail' || cathode === null) return undefined;
  const atPin = pinDriver(context, terminalKey(last.placement.id, cathode), true);
  return atPin && { ...circuit, ...atPin };
}

/** A high level that is specified at this supply, not at a higher one. */
const fitting = (part: PartSheet, feed: Range) => {
  const fact = part.levels?.vohMin;
  return fact && fact.volts <= typical(feed) ? fact : undefined;
};

/** The current through an LED, both corners. */
export function ledCurrent(
  circuit: Pick<LedReport, 'supply' | 'forwardVolts' | 'driveOhms' | 'dropVolts'>,
  ohms: number,
  tolerance = USUAL_TOLERANCE,
): Range {
  const { supply, forwardVolts, driveOhms, dropVolts } = circuit;
  const at = (volts: number, vf: number, r: number, drive: number, drop: number) => {
    const left = Math.max(0, volts - vf - drop);
    return left === 0 ? 0 : left / (r + drive);
  };
  return {
    min: at(supply.min, forwardVolts.max, ohms * (1 + tolerance), driveOhms.max, dropVolts.max),
    typ: at(typical(supply), typical(forwardVolts), ohms, typical(driveOhms), typical(dropVolts)),
    max: at(supply.max, forwardVolts.min, ohms * (1 - tolerance), driveOhms.min, dropVolts.min),
  };
}

/** The resistor that gives the meant current at nominal values, and never more than the most at any corner. */
function exactOhms(circuit: Pick<LedReport, 'supply' | 'forwardVolts' | 'driveOhms' | 'dropVolts'>, meant: number, most: number): number {
  const { supply, forwardVolts, driveOhms, dropVolts } = circuit;
  const nominal = (typical(supply) - typical(forwardVolts) - typical(dropVolts)) / meant - typical(driveOhms);
  const safe = ((supply.max - forwardVolts.min - dropVolts.min) / most - driveOhms.min) / (1 - USUAL_TOLERANCE);
  return Math.max(0, nominal, safe);
}

/** The smallest resistor on hand that keeps the worst-case LED current within a limit, in ohms; undefined if none is large enough. */
export const ledResistor = (plan: Plan, led: LedReport, maxAmps: number): number | undefined =>
  valuesWithin(plan.valuesOnHand, 10, 1e6).find((value) => ledCurrent(led, value).max <= maxAmps * (1 + 1e-9));

/** Whether the common of a part's LEDs is at a supply, so that the outputs take their current. */
const isSunk = (part: PartSheet): boolean => part.polarity?.common === 'anode';

/** What an open-collector output keeps at the common line of a display. */
function sinkDrop(plan: Plan, sheets: Sheets, own: readonly PlanTerminal[]): Range | undefined {
  for (const { wire } of own) {
    const sinks = wire?.end.to === 'terminal' ? partOf(plan, wire.end.placement, sheets)?.sheet.sinks : undefined;
    if (sinks?.channels.some(({ output }) => wire?.end.to === 'terminal' && output === wire.end.terminal)) return sinks.dropVolts;
  }
  return undefined;
}

function ledOf(context: PlanContext, item: PlanTerminal, own: readonly PlanTerminal[]): readonly LedReport[] {
  const { plan, sheets, board } = context;
  const { part, terminal, placement, key } = item;
  const { polarity } = part;
  if (!terminal.led || !polarity || item.joins || isBehindAnother(plan, sheets, key)) return [];
  const isSunkPart = isSunk(part);
  const fed = circuitOf(context, item, isSunkPart);
  if (!fed) return [];
  const { anodes, forwardVolts, maxAmps: ledAmps } = ledString(plan, sheets, item);
  const sunk = sunkBy(context, fed, lastOrThrow(anodes));
  const circuit = sunk ?? fed;
  const sinks = isSunkPart || sunk !== undefined;
  const digits = Math.max(1, own.filter((t) => t.terminal.digit).length);
  const common = own.find((t) => t.terminal.role === 'supply.vcc');
  const switched = own.some((t) => t.terminal.digit && plan.drivers[t.key]?.kind.length === 3);
  const keys = anodes.map((anode) => anode.key);
  // A resistor limits the current on either side of its LED.
  const supplies = own.length === 2 && common ? [common.key] : [];
  const resistors = [...keys, ...supplies, ...anodes.flatMap((anode) => cathodeKeys(plan, sheets, anode))].filter(
    (one) => plan.series[one] !== undefined,
  );
  const resistorAt = resistors[0] ?? key;
  const further = resistors.reduce((sum, one) => sum + (one === resistorAt ? 0 : (plan.series[one] ?? 0)), 0);
  const given = {
    supply: sinks && common ? feedOf(plan, sheets, board, placement.id).volts : circuit.supply,
    forwardVolts,
    driveOhms: further === 0 ? circuit.driveOhms : inSeries(circuit.driveOhms, further),
    dropVolts: switched ? SATURATED : (sinkDrop(plan, sheets, own) ?? NONE),
  };
  const lit = own.filter((t) => t.terminal.led && t.wire).length;
  const share = circuit.totalAmps === undefined ? Infinity : circuit.totalAmps / Math.max(1, lit);
  const maxAmps = Math.min(ledAmps, circuit.limitAmps / (digits > 1 ? 1 : besideAt(plan, sheets, item)), share);
  const wanted = digits > 1 ? DIGIT_AMPS * digits : USUAL_AMPS;
  const targetAmps = Math.min(wanted, maxAmps * OF_LIMIT);
  const exact = exactOhms(given, targetAmps, maxAmps);
  const ohms = plan.series[resistorAt];
  return [
    {
      key,
      placement: placement.id,
      anodes: keys,
      resistorAt,
      driver: circuit.driver,
      sinks,
      digits,
      ...given,
      ohms,
      amps: ledCurrent(given, ohms ?? 0),
      targetAmps,
      maxAmps,
      ledAmps,
      exactOhms: exact,
      fitOhms: valuesWithin(plan.valuesOnHand, 10, 1e6).find((value) => value >= exact * (1 - 1e-9)),
    },
  ];
}

/** Whether an LED has no wire of its own to an output: it shares the resistor of another, which counts for both. */
const isBehindAnother = (plan: Plan, sheets: Sheets, key: TerminalKey): boolean =>
  sharedResistors(plan, sheets).some(({ others }) => others.some((other) => other.key === key));

/** How many LEDs, each with its own resistor, the output of an LED drives: they share its limit. */
function besideAt(plan: Plan, sheets: Sheets, { key, terminal }: PlanTerminal): number {
  const net = terminal.led && findNets(plan, sheets).byTerminal.get(key);
  const alike = net ? net.terminals.filter((t) => t.terminal.led && !isBehindAnother(plan, sheets, t.key)) : [];
  return Math.max(1, alike.length);
}

/** An output with a further resistor after it. */
const inSeries = (drive: Range, ohms: number): Range => ({
  min: drive.min + ohms * (1 - USUAL_TOLERANCE),
  typ: typical(drive) + ohms,
  max: drive.max + ohms * (1 + USUAL_TOLERANCE),
});

/** Every LED that is driven, with its current as wired. */
export const ledReports = listPerComponent((plan: Plan, sheets: Sheets): readonly LedReport[] => {
  const board = boardOf(plan, sheets);
  if (!board) return [];
  return plan.placements.flatMap((placement) => {
    const own = terminalsOf(plan, placement, sheets);
    return own.some((t) => t.terminal.led) ? own.flatMap((item) => ledOf({ plan, sheets, board }, item, own)) : [];
  });
});

/** The load of a pin or an output and its maximum current. */
export interface Load {
  readonly key: TerminalKey;
  readonly driver: LedSource;
  /** Peak current, average current if multiplexed, and peak with nominal values. */
  readonly amps: number;
  readonly averageAmps: number;
  readonly nominalAmps: number;
  readonly sinks: boolean;
  /** Loads with the same turn are on one after another, never together: the digits of a display. */
  readonly turn?: string;
}

/** What loads take that are there at the same time, in amperes: of those that take turns the largest. */
export function togetherAmps(loads: readonly Pick<Load, 'amps' | 'averageAmps' | 'turn'>[]): {
  readonly peak: number;
  readonly mean: number;
} {
  const turns = new Map<string, number>();
  let [peak, mean] = [0, 0];
  for (const { amps, averageAmps, turn } of loads) {
    mean += averageAmps;
    if (turn === undefined) peak += amps;
    else turns.set(turn, Math.max(turns.get(turn) ?? 0, amps));
  }
  for (const amps of turns.values()) peak += amps;
  return { peak, mean };
}

/** The base current through a driver's resistor, in amperes; a gate draws none.
 *  @param high of what drives it, at most, in volts */
export const baseAmps = (high: number, { kind, ohms }: Driver): number =>
  kind === 'npn' || kind === 'pnp' ? Math.max(0, high - BASE_VOLTS) / (ohms * (1 - USUAL_TOLERANCE)) : 0;

/** All segments of a digit together, which its common line carries. */
export function digitAmps(plan: Plan, sheets: Sheets, placement: string): number {
  return ledReports(plan, sheets).reduce((sum, led) => sum + (led.placement === placement ? led.amps.max : 0), 0);
}

/** What the open-collector outputs of a part switch: coils and other loads, and the common lines of digits. */
export const sunkLoads = (plan: Plan, sheets: Sheets, sinks: string): readonly Pick<Load, 'key' | 'amps' | 'averageAmps' | 'turn'>[] =>
  planTerminals(plan, sheets).flatMap(({ key, terminal, wire, placement }) => {
    if (wire?.end.to !== 'terminal' || wire.end.placement !== sinks) return [];
    if (terminal.loadMilliamps !== undefined)
      return [{ key, amps: terminal.loadMilliamps / 1000, averageAmps: terminal.loadMilliamps / 1000 }];
    if (!terminal.digit) return [];
    const amps = digitAmps(plan, sheets, placement.id);
    return Number.isFinite(amps) ? [{ key, amps, averageAmps: amps, turn: placement.id }] : [];
  });

/** Every known load of board pins and of part outputs: LEDs, digits, and terminal loads of the sheets. */
export const loadsOf = listPerComponent((plan: Plan, sheets: Sheets): readonly Load[] => {
  const board = boardOf(plan, sheets);
  if (!board) return [];
  const leds = ledReports(plan, sheets).map(({ key, driver, amps, sinks }): Load => ({
    key,
    driver,
    amps: amps.max,
    averageAmps: amps.max,
    nominalAmps: typical(amps),
    sinks,
  }));
  const others = planTerminals(plan, sheets).flatMap((item): Load[] => {
    const { terminal, part, key } = item;
    if (!terminal.digit && terminal.loadMilliamps === undefined) return [];
    const circuit = circuitOf({ plan, sheets, board }, item, isSunk(part));
    if (!circuit) return [];
    const { driver } = circuit;
    const transistor = plan.drivers[key];
    const { placement } = splitKey(key);
    const digits = terminal.digit ? terminalsOf(plan, { id: placement }, sheets).filter((t) => t.terminal.digit).length : 1;
    const taking = (amps: number, sinks: boolean): Load => ({
      key,
      driver,
      amps,
      averageAmps: amps / digits,
      nominalAmps: amps,
      sinks,
      ...(terminal.digit ? { turn: placement } : {}),
    });
    if (transistor) return [taking(baseAmps(circuit.supply.max, transistor), transistor.kind.startsWith('p'))];
    if (!terminal.digit) return [taking((terminal.loadMilliamps ?? 0) / 1000, false)];
    // The pin of a digit is at the other end of its segments.
    return [taking(digitAmps(plan, sheets, placement), !isSunk(part))];
  });
  return [...leds, ...others];
});
