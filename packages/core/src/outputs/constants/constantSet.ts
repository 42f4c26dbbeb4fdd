import { has, type With } from '../../collections/has';
import type { PlanContext } from '../../plan/planContext';
import { atOrThrow, firstOrThrow, getOrThrow } from '../../collections/orThrow';
import { busClock } from '../../electrics/reports/busClock';
import { ladderReports } from '../../electrics/reports/ladderReport';
import { spiReport } from '../../electrics/reports/spiReport';
import { addressesOf } from '../../nets/addresses';
import { type Bus, findBuses, pinOfLine } from '../../nets/buses';
import { findNets } from '../../nets/nets';
import { passThroughSource } from '../../nets/passThrough';
import { type PlanTerminal, terminalsOf } from '../../nets/terminals';
import { boardOf } from '../../plan/edit';
import { type Placement, type Plan, splitKey } from '../../plan/plan';
import { type SegmentTable, segmentTable } from '../../displays/segmentTable';
import type { BoardPin, BoardSheet } from '../../sheets/boardSheet';
import { PIN_ROLES } from '../../sheets/roles';
import { type IndexedBoard, partSheet, partSheetOrThrow, type Sheets } from '../../sheets/sheetIndex';
import { positionsOf } from '../boardPosition';
import { openErrors } from '../openErrors';
import { identifier, identifiers } from './names';

export type ConstantValue =
  | { readonly is: 'int'; readonly value: number; readonly hex?: true }
  | { readonly is: 'text'; readonly value: string }
  /** Whole numbers of 0 to 65 535. */
  | { readonly is: 'ints'; readonly values: readonly number[]; readonly hex?: true };

/** One constant of the plan. */
export interface Constant {
  readonly name: string;
  readonly value: ConstantValue;
  /** What it is, for a comment. */
  readonly note: string;
}

export interface ConstantGroup {
  readonly name: string;
  readonly title: string;
  readonly constants: readonly Constant[];
}

/** All constants of a plan, independent of the language. */
export interface ConstantSet {
  readonly name: string;
  readonly title: string;
  readonly board: string;
  /** What the numbers of pins are: those of the chip's GPIO, or the board's own; ports have none. */
  readonly numbering: Numbering;
  /** Titles of the errors that are open in the plan. */
  readonly errors: readonly string[];
  readonly groups: readonly ConstantGroup[];
}

const int = (name: string, value: number, note: string, hex = false): Constant => ({
  name,
  value: { is: 'int', value, ...(hex ? { hex: true as const } : {}) },
  note,
});
const text = (name: string, value: string, note: string): Constant => ({ name, value: { is: 'text', value }, note });
const ints = (name: string, values: readonly number[], note: string, hex = false): Constant => ({
  name,
  value: { is: 'ints', values, ...(hex ? { hex: true as const } : {}) },
  note,
});

export type Numbering = NonNullable<BoardSheet['programPins']>['numbering'];

/** What programs call the pins of a board. Where its sheet does not say: GPIO numbers if the chip has them, else ports. */
export function numberingOf({ sheet }: IndexedBoard): Numbering {
  return sheet.programPins?.numbering ?? (sheet.pins.list.some((pin) => GPIO.test(pin.port ?? '')) ? 'gpio' : 'port');
}

const GPIO = /^GPIO(\d+)$/;
const DIGITAL = /^D(\d+)$/;

/** The pin number in programs for this board; undefined if pins are named by port.
 *  @example pinNumber(board, board.pins.get('D10')!) // 10, though it is bit 2 of port B */
export function pinNumber(board: IndexedBoard, pin: BoardPin): number | undefined {
  const own = board.sheet.programPins?.numbers?.[pin.id];
  if (own !== undefined) return own;
  const numbering = numberingOf(board);
  const names = numbering === 'gpio' ? [pin.port ?? pin.label] : numbering === 'board' ? [pin.label, pin.id, ...(pin.also ?? [])] : [];
  const digits = names.map((name) => (numbering === 'gpio' ? GPIO : DIGITAL).exec(name)?.[1]).find((found) => found !== undefined);
  return digits === undefined ? undefined : Number(digits);
}

/** The bit of a pin in its port, for chips whose ports have bits.
 *  @example portBit(pin) // 2 where its port is PB2 */
function portBit(board: IndexedBoard, pin: BoardPin): number | undefined {
  if (numberingOf(board) === 'gpio') return undefined;
  const digits = /(\d+)$/.exec(pin.port ?? '')?.[1];
  return digits === undefined ? undefined : Number(digits);
}

/** Number, label, port and bit of a pin under names of their own. */
function pinFacts(board: IndexedBoard, pin: BoardPin, name: string, words: string): readonly Constant[] {
  const [number, bit] = [pinNumber(board, pin), portBit(board, pin)];
  return [
    ...(number === undefined ? [] : [int(name, number, words)]),
    text(`${name}_label`, pin.label, number === undefined ? words : 'label on the board'),
    ...(pin.port ? [text(`${name}_port`, pin.port, 'chip pin name')] : []),
    ...(bit === undefined ? [] : [int(`${name}_bit`, bit, `bit of the port`)]),
  ];
}

/** The position of a pin on the board, for a comment. */
function pinWords(board: IndexedBoard, pin: BoardPin): string {
  const at = positionsOf(board, { to: 'pin', pin: pin.id })[0];
  const where = at ? `, ${at.headerTitle} ${at.row === undefined ? 'position' : 'pin'} ${at.position}` : '';
  return `${pin.label}${pin.port && pin.port !== pin.label ? ` (${pin.port})` : ''}${where}`;
}

/** The pin that a terminal's signal reaches, through a level shifter where one lies between. */
export function pinOf(
  plan: Plan,
  sheets: Sheets,
  board: IndexedBoard,
  item: PlanTerminal,
): { readonly pin: BoardPin; readonly through?: string } | undefined {
  const carrier = passThroughSource(plan, sheets, item.key);
  const id = pinOfLine(plan, item.key, findNets(plan, sheets), sheets);
  const pin = id === undefined ? undefined : board.pins.get(id);
  const through = carrier && plan.placements.find((p) => p.id === splitKey(carrier).placement)?.name;
  return pin && { pin, ...(through ? { through } : {}) };
}

function pinConstants({ plan, sheets, board }: PlanContext, item: PlanTerminal, name: string): readonly Constant[] {
  const { terminal, wire, part } = item;
  const found = pinOf(plan, sheets, board, item);
  if (!found) {
    if (wire?.end.to !== 'terminal') return [];
    const { placement, terminal: other } = wire.end;
    const helper = plan.placements.find((p) => p.id === placement)?.name ?? placement;
    return [text(`${name}_at`, `${helper} ${other}`, `${terminal.label} is connected to another part`)];
  }
  const { pin, through } = found;
  const isActiveLow = terminal.led !== undefined && part.polarity?.common === 'anode';
  const words = `${terminal.label}: ${pinWords(board, pin)}${through ? `, in series: ${through}` : ''}${isActiveLow ? ', active low' : ''}`;
  return pinFacts(board, pin, name, words);
}

/** The registers or bits that select the digits, where each digit has one. */
function digitConstants({ digits }: SegmentTable): readonly Constant[] {
  const places = digits.flatMap(({ index }) => index ?? []);
  if (places.length === 0 || places.length < digits.length) return [];
  const words = digits.map(({ digit, output }) => `${digit} at ${output}`).join(', ');
  return [ints('digit_places', places, `digit registers or bits, from 0: ${words}`)];
}

function partConstants(plan: Plan, sheets: Sheets, board: IndexedBoard, placement: Placement): readonly Constant[] {
  const part = partSheetOrThrow(sheets, placement.sheet).sheet;
  const signals = terminalsOf(plan, placement, sheets).filter((t) => PIN_ROLES[t.terminal.role] && t.terminal.role !== 'strap' && t.wire);
  const names = identifiers(signals.map((item) => item.terminal.id));
  const addresses = addressesOf(plan, placement, sheets);
  const of = (id: string) => (addresses.length > 1 ? `address_${identifier(id)}` : 'address');
  const spiRows = findBuses(plan, sheets)
    .filter((bus) => bus.kind === 'spi' && bus.controller !== undefined)
    .flatMap((bus) => spiReport(plan, sheets, board, bus).rows)
    .filter((row) => row.chain.includes(placement.id));
  const spi = spiRows.find((row) => !row.further);
  const ladder = ladderReports(plan, sheets).find((one) => one.placement === placement.id)?.reading;
  const table = segmentTable(plan, sheets, placement.id);
  return [
    ...signals.flatMap((item, at) => pinConstants({ plan, sheets, board }, item, `pin_${atOrThrow(names, at).replace(/_$/, '')}`)),
    ...addresses.map(({ device, address }) => int(of(device.id), address, `7-bit I2C address of ${device.chip}`, true)),
    ...(spi
      ? [
          int('write_hz', Math.floor(spi.write.hz), 'maximum SPI clock, writing'),
          ...(spi.read ? [int('read_hz', Math.floor(spi.read.hz), 'maximum SPI clock, reading')] : []),
          ...(part.bus.modes?.[0] === undefined ? [] : [int('spi_mode', part.bus.modes[0], 'SPI mode')]),
        ]
      : []),
    ...spiRows.flatMap(({ further, write, modes }) =>
      further
        ? [
            int(`${identifier(further.id)}_hz`, Math.floor(write.hz), `maximum SPI clock of the ${further.chip}`),
            int(`${identifier(further.id)}_spi_mode`, firstOrThrow(modes), `SPI mode of the ${further.chip}`),
          ]
        : [],
    ),
    ...(table
      ? [
          ints(
            'glyph_bytes',
            table.glyphs.map((g) => g.byte),
            `segment bytes of ${table.glyphs.map((g) => (g.glyph === ' ' ? 'blank' : g.glyph)).join(' ')}, as wired`,
            true,
          ),
          ints(
            'walk_bytes',
            table.walk.map((w) => w.byte),
            `segment walk test: ${table.walk.map((w) => w.segment).join(' ')}`,
            true,
          ),
          ...digitConstants(table),
        ]
      : []),
    ...(ladder ? [ints('thresholds', ladder.thresholds.map(Math.round), 'ADC thresholds between the keys, rising')] : []),
    ...Object.entries(part.readout?.unit === 'characters' ? (plan.readouts[placement.id]?.glyphs ?? {}) : {}).map(([character, rows], at) =>
      ints(`glyph_${at}`, rows, `custom character ${character}: eight rows of five dots`, true),
    ),
  ];
}

function busConstants(plan: Plan, sheets: Sheets, board: IndexedBoard, bus: With<Bus, 'controller'>): readonly Constant[] {
  const { software } = getOrThrow(board.controllers, bus.controller);
  const number = software ? undefined : /(\d+)$/.exec(bus.controller)?.[1];
  const hz = bus.kind === 'i2c' ? busClock(plan, sheets, bus).hz : undefined;
  return [
    ...(number === undefined ? [] : [int('number', Number(number), 'of the bus controller')]),
    ...(hz === undefined ? [] : [int('hz', Math.floor(hz), 'clock supported by all devices')]),
    ...Object.entries(bus.pins).flatMap(([line, id]) => {
      const pin = getOrThrow(board.pins, id);
      return pinFacts(board, pin, `pin_${line}`, `${line.toUpperCase()}: ${pinWords(board, pin)}`);
    }),
  ];
}

/** The constants of a plan: pins, addresses, clocks, tables. Undefined if the board sheet is missing. */
export function constantSet(plan: Plan, sheets: Sheets): ConstantSet | undefined {
  const board = boardOf(plan, sheets);
  if (!board) return undefined;
  const buses = findBuses(plan, sheets).filter(has('controller'));
  const parts = plan.placements.filter((p) => partSheet(sheets, p.sheet) && !partSheetOrThrow(sheets, p.sheet).sheet.levelShifter);
  const groups = [
    ...buses.map((bus) => ({
      name: bus.controller,
      otherwise: bus.controller,
      title: getOrThrow(board.controllers, bus.controller).title,
      constants: busConstants(plan, sheets, board, bus),
    })),
    ...parts.map((placement) => ({
      name: placement.name,
      otherwise: partSheetOrThrow(sheets, placement.sheet).sheet.short,
      title: `${placement.name}: ${partSheetOrThrow(sheets, placement.sheet).sheet.title}`,
      constants: partConstants(plan, sheets, board, placement),
    })),
  ].filter((group) => group.constants.length > 0);
  const names = identifiers(
    groups.map((group) => group.name),
    groups.map((group) => group.otherwise),
  );
  return {
    name: identifier(plan.name, 'plan'),
    title: plan.name,
    board: board.sheet.title,
    numbering: numberingOf(board),
    errors: openErrors(plan, sheets),
    groups: groups.map(({ title, constants }, at) => ({ name: atOrThrow(names, at), title, constants })),
  };
}
