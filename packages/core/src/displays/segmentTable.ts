import { orThrow } from '../collections/orThrow';
import { findNets } from '../nets/nets';
import { BANK, commonsOf, driverAt } from '../nets/multiplexed';
import { terminalsOf } from '../nets/terminals';
import { boardOf, partOf } from '../plan/edit';
import { type Plan, terminalKey } from '../plan/plan';
import type { PartSheet, Service } from '../sheets/partSheet';
import { portsOf } from '../sheets/ports';
import type { Sheets } from '../sheets/sheetIndex';
import { SEGMENTS, sevenSegments } from './glyphs';

type Segment = (typeof SEGMENTS)[number];

/** One segment and the bit that lights it. */
export interface SegmentBit {
  readonly segment: Segment;
  readonly bit: number;
  /** The output of a part, or the pin of the board, that it is wired to. */
  readonly output: string;
}

/** A digit of a display and what selects it. */
export interface DigitPlace {
  /** The common terminal of the digit, by its label. */
  readonly digit: string;
  /** The output of a part, or the pin of the board. */
  readonly output: string;
  /** Register of a driver, or bit of a shift register or expander, from 0; undefined at a pin. */
  readonly index: number | undefined;
}

/** What a program sends for each glyph, as the segments are really wired. */
export interface SegmentTable {
  /** Bit 0 first. */
  readonly bits: readonly SegmentBit[];
  /** Where the digits are selected, the first one first; empty where the digit is always on. */
  readonly digits: readonly DigitPlace[];
  /** A segment lights while its bit is low: the common is an anode. */
  readonly activeLow: boolean;
  readonly glyphs: readonly { readonly glyph: string; readonly byte: number }[];
  /** Each segment alone, a to g and the point: what a first test walks through. */
  readonly walk: readonly { readonly segment: Segment; readonly byte: number }[];
}

export const TABLE_GLYPHS = [...'0123456789AbCdEF', '-', ' '] as const;

/** A byte from the segments that are to be lit.
 *  @param lit bits of `SEGMENTS` */
function byteOf(bits: readonly SegmentBit[], lit: number, activeLow: boolean): number {
  const on = bits.reduce((byte, { segment, bit }) => (lit & (1 << SEGMENTS.indexOf(segment)) ? byte | (1 << bit) : byte), 0);
  const all = bits.reduce((byte, { bit }) => byte | (1 << bit), 0);
  return activeLow ? all & ~on : on;
}

/** The outputs of a part, bit 0 first: of a driver as its sheet lists them, else in the order of their labels: QA of a shift register
 *  receives the bit that is shifted in last. */
export function outputsOf(plan: Plan, sheets: Sheets, placement: string): readonly string[] {
  const part = partOf(plan, placement, sheets)?.sheet;
  return part?.multiplex ? part.multiplex.segments : serving(part, 'output');
}

/** The terminals of a helper that serve in a way, in the order of their labels. */
const serving = (part: PartSheet | undefined, does: Service): readonly string[] =>
  (part ? portsOf(part, does) : []).map((t) => t.id).toSorted((a, b) => a.localeCompare(b, 'en', { numeric: true }));

const labelOf = (plan: Plan, sheets: Sheets, placement: string, terminal: string): string =>
  partOf(plan, placement, sheets)?.terminals.get(terminal)?.label ?? terminal;

/** What selects the digits of a display. A common that is at ground or a rail is always on. */
function digitsOf(plan: Plan, sheets: Sheets, placement: string, part: PartSheet): readonly DigitPlace[] {
  const nets = findNets(plan, sheets);
  return commonsOf(part).flatMap(({ id, label }): DigitPlace[] => {
    const key = terminalKey(placement, id);
    const end = plan.wires[key]?.end;
    if (end?.to === 'terminal') {
      const driven = driverAt(plan, sheets, key);
      const bit = outputsOf(plan, sheets, end.placement).indexOf(end.terminal);
      // A decoder counts its outputs: the number that selects one is its place.
      const select = serving(partOf(plan, end.placement, sheets)?.sheet, 'select').indexOf(end.terminal);
      const index = driven?.is === 'digit' ? driven.index : bit >= 0 ? bit : select >= 0 ? select : undefined;
      return [{ digit: label, output: labelOf(plan, sheets, end.placement, end.terminal), index }];
    }
    const pin = nets.byTerminal.get(key)?.pins[0];
    return pin === undefined ? [] : [{ digit: label, output: pin, index: undefined }];
  });
}

/** The table of a display of bare segments, in whatever order they are wired: to the outputs of one part, whose bits count in the order of
 *  its outputs, or to pins of the board, whose bits count in the order of the segments. Undefined where a segment is not wired, or they
 *  are at several parts. */
export function segmentTable(plan: Plan, sheets: Sheets, placement: string): SegmentTable | undefined {
  const part = partOf(plan, placement, sheets)?.sheet;
  if (!part?.polarity || !boardOf(plan, sheets)) return undefined;
  const nets = findNets(plan, sheets);
  const items = terminalsOf(plan, { id: placement }, sheets).filter((t) => t.terminal.led && SEGMENTS.includes(t.terminal.id as Segment));
  const drivers = new Set(items.map((item) => (item.wire?.end.to === 'terminal' ? item.wire.end.placement : undefined)));
  const [register] = drivers;
  if (items.length === 0 || drivers.size !== 1) return undefined;
  const outputs = register === undefined ? [] : outputsOf(plan, sheets, register);
  const bits = items.flatMap((item): SegmentBit[] => {
    const segment = item.terminal.id as Segment;
    const end = item.wire?.end;
    if (end?.to === 'terminal') {
      const bit = outputs.indexOf(end.terminal);
      return bit < 0 ? [] : [{ segment, bit, output: labelOf(plan, sheets, end.placement, end.terminal) }];
    }
    const pin = nets.byTerminal.get(item.key)?.pins[0];
    return pin === undefined ? [] : [{ segment, bit: SEGMENTS.indexOf(segment), output: pin }];
  });
  if (bits.length < items.length) return undefined;
  // A driver with more than eight segment outputs keeps a byte for each eight of them.
  const banks = new Set(bits.map(({ bit }) => Math.floor(bit / BANK)));
  if (banks.size !== 1) return undefined;
  const inByte = bits.map((one) => ({ ...one, bit: one.bit % BANK }));
  const activeLow = part.polarity.common === 'anode';
  const own = plan.readouts[placement]?.glyphs ?? {};
  return {
    bits: inByte.toSorted((a, b) => a.bit - b.bit),
    digits: digitsOf(plan, sheets, placement, part),
    activeLow,
    glyphs: [
      ...TABLE_GLYPHS.filter((glyph) => own[glyph] === undefined).map((glyph) => ({
        glyph,
        lit: orThrow(sevenSegments(glyph), 'glyph of seven segments'),
      })),
      ...Object.entries(own).map(([glyph, [lit = 0]]) => ({ glyph, lit })),
    ].map(({ glyph, lit }) => ({ glyph, byte: byteOf(inByte, lit, activeLow) })),
    walk: SEGMENTS.filter((s) => bits.some((b) => b.segment === s)).map((segment) => ({
      segment,
      byte: byteOf(inByte, 1 << SEGMENTS.indexOf(segment), activeLow),
    })),
  };
}
