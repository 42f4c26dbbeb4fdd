import { findOrThrow } from '../collections/orThrow';
import { typical } from '../quantity/range';
import type { BoardPin, BoardSheet, Controller, Duty, PinChoice } from './boardSheet';
import type { PinRow } from './pinTable';
import type { Sheets } from './sheetIndex';
import type { Source } from './source';

/** Suffixes for package, temperature range and module; they do not affect the copied facts. */
const ORDER_CODE = /^(?:[TUH][67]|-?[PAM]U|-?(?:WROOM|MINI)[-0-9A-Z]*)$/;

const plain = (chip: string): string => chip.toUpperCase().replace(/\s+/g, '');

const logicVolts = ({ rails, logicRail }: BoardSheet): number => typical(findOrThrow(rails.list, (rail) => rail.id === logicRail).volts);

/** The board in the library with a chip given by name or order code. Of several the one at the same logic voltage, then the one with the
 *  most signal pins, then the one at the higher voltage; boards made from a pin table are not used.
 *  @example boardOfChip(sheets, 'ATmega328P-PU')?.chip // 'ATmega328P'
 *  @example boardOfChip(sheets, 'ESP32-H2') // undefined: no ESP32 */
export function boardOfChip(sheets: Sheets, chip: string, volts?: number): BoardSheet | undefined {
  const isOther = (sheet: BoardSheet) => (volts !== undefined && Math.abs(logicVolts(sheet) - volts) > 0.5 ? 1 : 0);
  const wanted = plain(chip);
  const isNamed = (known: string) => wanted === known || (wanted.startsWith(known) && ORDER_CODE.test(wanted.slice(known.length)));
  return [...sheets.boards.values()]
    .filter(({ sheet }) => wanted !== '' && sheet.pins.source.trust !== 'bench' && isNamed(plain(sheet.chip)))
    .toSorted(
      (a, b) => isOther(a.sheet) - isOther(b.sheet) || b.ioPins.length - a.ioPins.length || logicVolts(b.sheet) - logicVolts(a.sheet),
    )[0]?.sheet;
}

/** A port by its name or number: "GPIO4", "GP4", "IO4" and "4" are one. */
function portKey(text: string): string {
  const number = /^(?:GPIO|GP|IO)?_?(\d+)$/i.exec(text.trim())?.[1];
  return number === undefined ? text.trim().toUpperCase() : `GPIO${Number(number)}`;
}

/** What a chip uses a pin for on whatever board it sits. */
const OF_THE_CHIP: readonly Duty[] = ['boot', 'flash', 'usb', 'debug'];

/** The facts of a chip's pin, without those of the board that the sheet describes. */
function pinFacts(pin: BoardPin): Partial<BoardPin> & Pick<BoardPin, 'grade'> {
  const { port, io, functions, adc, pwm, interrupts, touch, dac, crossbar, limits, atReset, starts, grade, trouble } = pin;
  const duties = (pin.duties ?? []).filter(({ duty }) => OF_THE_CHIP.includes(duty));
  // A trouble without a duty is the port's own.
  const keepsGrade = grade !== 'free' && (duties.length > 0 || (pin.duties ?? []).length === 0);
  const kept = { port, io, functions, adc, pwm, interrupts, touch, dac, crossbar, limits, atReset, starts };
  return {
    ...(Object.fromEntries(Object.entries(kept).filter(([, value]) => value !== undefined)) as Partial<BoardPin>),
    ...(duties.length > 0 ? { duties } : {}),
    ...(keepsGrade && trouble !== undefined ? { grade, trouble } : { grade: 'free' }),
  };
}

/** The chip facts of a board sheet, for another board with the same chip. */
export interface ChipFacts {
  readonly board: BoardSheet;
  /** Whether the other board runs the chip at the same voltage, so that levels in volts hold. */
  readonly sameVolts: boolean;
  /** The facts of the port of a pin table row. */
  readonly pinOf: (row: PinRow) => ReturnType<typeof pinFacts> | undefined;
}

/** @param logicVolts voltage at which the other board runs the chip */
export function chipFacts(board: BoardSheet, logicVolts: number): ChipFacts {
  const ports = new Map(
    board.pins.list.filter((pin) => pin.kind === 'io' && !pin.sameAs).map((pin) => [portKey(pin.port ?? pin.label), pinFacts(pin)]),
  );
  return {
    board,
    sameVolts: Math.abs(logicVolts / typical(board.electrical.vdd) - 1) <= 0.05,
    pinOf: (row) => (row.kind === 'io' ? ports.get(portKey(row.port ?? row.label)) : undefined),
  };
}

/** The same source, with the sheet from which the facts come. */
export function takenFrom(source: Source, board: BoardSheet): Source {
  return { ...source, note: `Copied from another board with this chip: ${board.title}.` };
}

/** The chip's controllers as far as a board brings them out.
 *  @param pins of the board that is made, with the functions that the chip gives them */
export function chipControllers(chip: BoardSheet, pins: readonly BoardPin[]): readonly Controller[] {
  const byPort = new Map(pins.flatMap((pin) => (pin.kind === 'io' ? [[portKey(pin.port ?? pin.label), pin.id] as const] : [])));
  const ports = new Map(chip.pins.list.map((pin) => [pin.id, portKey(pin.port ?? pin.label)]));
  const here = (set: PinChoice): PinChoice[] => {
    const lines = Object.entries(set).map(([line, pin]) => [line, byPort.get(ports.get(pin) ?? '')] as const);
    return lines.every(([, pin]) => pin !== undefined) ? [Object.fromEntries(lines) as PinChoice] : [];
  };
  return chip.controllers.list.flatMap((controller): Controller[] => {
    const { legal } = controller;
    if (legal.rule === 'any-pin') {
      const customary = (legal.customary ?? []).flatMap(here);
      const { customary: _all, ...rest } = legal;
      return [{ ...controller, legal: { ...rest, sets: legal.sets.flatMap(here), ...(customary.length > 0 ? { customary } : {}) } }];
    }
    const isOut = pins.some((pin) => pin.functions?.some((name) => name.startsWith(`${controller.id}.`)));
    if (!isOut) return [];
    if (legal.rule === 'membership') return [controller];
    const sets = legal.sets.flatMap(here);
    return [{ ...controller, legal: sets.length > 0 ? { ...legal, sets } : { rule: 'membership' } }];
  });
}
