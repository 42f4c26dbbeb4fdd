import { atOrThrow, firstOrThrow } from '../../collections/orThrow';
import { boardFace } from '../../faces/boardFace';
import type { Box, Face, FacePad } from '../../faces/face';
import { partFace } from '../../faces/partFace';
import { memoizeByObject } from '../../memo/memoizeByObject';
import { singleLed } from '../../nets/leds';
import type { BoardSheet } from '../../sheets/boardSheet';
import type { PartSheet } from '../../sheets/partSheet';
import { PITCH_MM } from '../../sheets/shape';
import { acrossOf, type Half, NEXT_BOARD } from './breadboard';

/** A leg in its row, counted from the first one. Of a footprint with one row of legs, its half is that in which it is plugged. */
export interface Leg {
  readonly id: string;
  readonly row: number;
  readonly half: Half;
}

/** How something is plugged into a breadboard. */
export interface Footprint {
  readonly legs: readonly Leg[];
  /** With two rows of legs: the column of each half that they are in. With one row, undefined: in the outermost column, the body beyond it. */
  readonly across?: { readonly [H in Half]: number };
  /** Over two boards side by side: one row of legs is in f–j of the first, the other in a–e of the second. */
  readonly overTwo?: true;
  /** The rows that the body lies over, relative to that of the first leg. */
  readonly body: readonly [number, number];
  /** Whether the body lies over the supply rails: that of a module with one row of pins. */
  readonly overRails?: true;
}

/** Why something cannot be plugged in. */
export type Unpluggable =
  'leads' | 'no pins' | 'double row' | 'row distance unknown' | 'channel pins unknown' | 'rows too far apart' | 'irregular' | 'sockets';

/** How something is plugged into one breadboard, and where that leaves no more than one hole beside a row of legs, into two side by side. */
export type Plugged = ({ readonly ok: true; readonly footprint: Footprint } | { readonly ok: false; readonly why: Unpluggable }) & {
  readonly overTwo?: Footprint;
};

const refused = (why: Unpluggable): Plugged => ({ ok: false, why });
/** How far a leg may be from its hole, in pitches. */
const SLACK = 0.2;

/** Columns for two rows of legs, so that as many holes as possible stay free on the side that has fewer; undefined if there are none.
 *  @param pitches from row to row */
export function columnsAcross(pitches: number): { readonly [H in Half]: number } | undefined {
  const choices = [0, 1, 2, 3, 4].flatMap((ae) => {
    const fj = pitches - acrossOf('fj', 0) + ae;
    return fj >= 0 && fj <= 4 && ae > 0 && fj < 4 ? [{ ae, fj }] : [];
  });
  return choices.toSorted((one, other) => Math.min(other.ae, 4 - other.fj) - Math.min(one.ae, 4 - one.fj))[0];
}

/** Columns for two rows of legs over two boards side by side, so that as many holes as possible stay free on the side that has fewer: `fj` of
 *  the first board, `ae` of the second.
 *  @param pitches from row to row */
export function columnsOverTwo(pitches: number): { readonly [H in Half]: number } | undefined {
  const choices = [0, 1, 2, 3, 4].flatMap((ae) => {
    const fj = NEXT_BOARD + ae - pitches - acrossOf('fj', 0);
    return fj > 0 && fj <= 4 && ae < 4 ? [{ ae, fj }] : [];
  });
  return choices.toSorted((one, other) => Math.min(other.fj, 4 - other.ae) - Math.min(one.fj, 4 - one.ae))[0];
}

/** Places along a row in whole pitches from the first one, or undefined where they are not on the grid. */
function onGrid(places: readonly number[], origin: number): readonly number[] | undefined {
  const rows = places.map((place) => (place - origin) / PITCH_MM);
  return rows.every((row) => Math.abs(row - Math.round(row)) <= SLACK) ? rows.map(Math.round) : undefined;
}

/** The rows under a body: those whose holes it covers. */
const covered = (from: number, to: number, origin: number): readonly [number, number] => [
  Math.ceil((from - origin) / PITCH_MM - SLACK),
  Math.floor((to - origin) / PITCH_MM + SLACK),
];

const isAlike = (values: readonly number[]): boolean => Math.max(...values) - Math.min(...values) < 0.4;

/** From the outermost column to the rails, in millimetres: what reaches so far lies over them. */
const TO_RAILS_MM = 5;

interface OneRow {
  readonly outline: { readonly from: number; readonly to: number };
  /** How far the body goes beyond the row. */
  readonly depth: number;
  readonly along: (pad: FacePad) => number;
}

/** One row of legs along a body. Turned so that the row is above: from left to right as they are then read. */
function oneRow(pads: readonly FacePad[], { outline, depth, along }: OneRow): Plugged {
  const origin = Math.min(...pads.map(along));
  const rows = onGrid(pads.map(along), origin);
  if (!rows || new Set(rows).size < rows.length) return refused('irregular');
  return {
    ok: true,
    footprint: {
      legs: pads.map(({ id }, at) => ({ id, row: atOrThrow(rows, at), half: 'fj' })),
      body: covered(outline.from, outline.to, origin),
      ...(depth > TO_RAILS_MM ? { overRails: true as const } : {}),
    },
  };
}

interface TwoRows {
  /** The pads of the half f–j, and those of a–e. */
  readonly lower: readonly FacePad[];
  readonly upper: readonly FacePad[];
  readonly along: (pad: FacePad) => number;
  readonly outline: { readonly from: number; readonly to: number };
  readonly pitches: number;
}

function twoRows({ lower, upper, along, outline, pitches }: TwoRows): Plugged {
  const all = [...lower, ...upper];
  const origin = Math.min(...all.map(along));
  const rows = onGrid(all.map(along), origin);
  if (!rows) return refused('irregular');
  const whole = Math.round(pitches);
  if (whole < 3) return refused('double row');
  if (Math.abs(pitches - whole) > SLACK) return refused('irregular');
  const across = columnsAcross(whole);
  const legs = all.map(({ id }, at): Leg => ({ id, row: atOrThrow(rows, at), half: at < lower.length ? 'fj' : 'ae' }));
  const body = covered(outline.from, outline.to, origin);
  const isTight = !across || Math.min(across.ae, 4 - across.fj) < 2;
  const apart = isTight ? columnsOverTwo(whole) : undefined;
  const overTwo = apart ? { overTwo: { legs, across: apart, overTwo: true as const, body } } : {};
  return across ? { ok: true, footprint: { legs, across, body }, ...overTwo } : { ...refused('rows too far apart'), ...overTwo };
}

const bodyOf = ({ items, view }: Face): Box => items.find((item) => item.is === 'body') ?? view;

/** From row to row of a chip's legs, in pitches, by the width of its body. */
const chipPitches = (bodyMm: number): number => Math.round((bodyMm + 1.3) / PITCH_MM);

function chipFootprint(face: Face): Plugged {
  const body = bodyOf(face);
  const middle = body.y + body.h / 2;
  return twoRows({
    lower: face.pads.filter(({ y }) => y > middle),
    upper: face.pads.filter(({ y }) => y <= middle),
    along: ({ x }) => x,
    outline: { from: body.x, to: body.x + body.w },
    pitches: chipPitches(body.h),
  });
}

/** How a part is plugged into a breadboard. Legs are all those of its header; what leads elsewhere has none.
 *  @example partFootprint(sheet) // { ok: true, footprint: { legs: [{ id: 'GND', row: 0, half: 'fj' }, …], body: [-3, 6] } } */
export const partFootprint = memoizeByObject((part: PartSheet): Plugged => {
  const { shape } = part;
  if (shape?.mount !== undefined) return refused(shape.mount);
  const face = partFace(part);
  // Channels are along another edge than the header, at a distance that no sheet states.
  if (part.terminals.list.some(({ role, channel }) => role === 'external' && channel)) return refused('channel pins unknown');
  if (shape?.body === 'dip') return chipFootprint(face);
  if (singleLed(part) || shape?.body === 'leads')
    return {
      ok: true,
      footprint: { legs: face.pads.map(({ id }, row) => ({ id, row, half: 'fj' })), body: [0, face.pads.length - 1] },
    };
  const body = bodyOf(face);
  const { pads } = face;
  if (pads.length === 0) return refused('irregular');
  if (isAlike(pads.map(({ y }) => y))) {
    // With the row below, the part is turned half round.
    const isAbove = firstOrThrow(pads).y < body.y + body.h / 2;
    return isAbove
      ? oneRow(pads, { outline: { from: body.x, to: body.x + body.w }, depth: body.y + body.h - firstOrThrow(pads).y, along: ({ x }) => x })
      : oneRow(pads, { outline: { from: -body.x - body.w, to: -body.x }, depth: firstOrThrow(pads).y - body.y, along: ({ x }) => -x });
  }
  if (isAlike(pads.map(({ x }) => x))) {
    const isLeft = firstOrThrow(pads).x < body.x + body.w / 2;
    return isLeft
      ? oneRow(pads, {
          outline: { from: -body.y - body.h, to: -body.y },
          depth: body.x + body.w - firstOrThrow(pads).x,
          along: ({ y }) => -y,
        })
      : oneRow(pads, { outline: { from: body.y, to: body.y + body.h }, depth: firstOrThrow(pads).x - body.x, along: ({ y }) => y });
  }
  if (shape?.rowsMm === undefined && !shape?.rows) return refused('row distance unknown');
  return edgesFootprint(pads, body, shape.rowsMm);
});

/** Rows along two edges that are opposite: of upright rows the left one is in f–j, of level ones the lower one. */
function edgesFootprint(pads: readonly FacePad[], body: Box, rowsMm: number | undefined): Plugged {
  const [xs, ys] = [new Set(pads.map(({ x }) => Math.round(x * 10))), new Set(pads.map(({ y }) => Math.round(y * 10)))];
  if (xs.size === 2) {
    const [left, right] = [Math.min(...pads.map(({ x }) => x)), Math.max(...pads.map(({ x }) => x))];
    // A quarter turn to the left brings the left edge below.
    return twoRows({
      lower: pads.filter(({ x }) => x - left < 0.4),
      upper: pads.filter(({ x }) => x - left >= 0.4),
      along: ({ y }) => y,
      outline: { from: body.y, to: body.y + body.h },
      pitches: (rowsMm ?? right - left) / PITCH_MM,
    });
  }
  if (ys.size !== 2) return refused('irregular');
  const [top, bottom] = [Math.min(...pads.map(({ y }) => y)), Math.max(...pads.map(({ y }) => y))];
  return twoRows({
    lower: pads.filter(({ y }) => bottom - y < 0.4),
    upper: pads.filter(({ y }) => bottom - y >= 0.4),
    along: ({ x }) => x,
    outline: { from: body.x, to: body.x + body.w },
    pitches: (rowsMm ?? bottom - top) / PITCH_MM,
  });
}

/** How a microcontroller board is plugged in: its two long rows of pins over the gap, the end with the USB socket at the left. Pins of other
 *  headers have no hole. */
export const boardFootprint = memoizeByObject((sheet: BoardSheet): Plugged => {
  const face = boardFace(sheet);
  if (sheet.shape?.body === 'dip') return chipFootprint(face);
  if (sheet.headers.list.some(({ contact }) => contact === 'socket')) return refused('sockets');
  const rowOf = (side: 'left' | 'right') =>
    sheet.headers.list.find((header) => header.side === side && header.rows !== 2 && header.contact === 'pin');
  const [left, right] = [rowOf('left'), rowOf('right')];
  if (!left || !right) return refused(sheet.headers.list.some(({ rows }) => rows === 2) ? 'double row' : 'no pins');
  if (!face.toScale) return refused('row distance unknown');
  const padsOn = (header: string) => face.pads.filter(({ id }) => sheet.pins.list.some((pin) => pin.id === id && pin.header === header));
  const [lower, upper] = [padsOn(left.id), padsOn(right.id)];
  const body = bodyOf(face);
  const isTurned = /^USB/.test(left.ends[1]) && !/^USB/.test(left.ends[0]);
  const sign = isTurned ? -1 : 1;
  const rows: TwoRows = {
    lower: isTurned ? upper : lower,
    upper: isTurned ? lower : upper,
    along: ({ y }) => sign * y,
    outline: isTurned ? { from: -body.y - body.h, to: -body.y } : { from: body.y, to: body.y + body.h },
    pitches: (firstOrThrow(upper).x - firstOrThrow(lower).x) / PITCH_MM,
  };
  return twoRows(rows);
});

/** Footprint of a component with its legs in a row, in the order given. */
export const inRow = (legs: readonly string[]): Footprint => ({
  legs: legs.map((id, row) => ({ id, row, half: 'fj' })),
  body: [0, legs.length - 1],
});

/** Pitches that two legs may be apart where a resistor, capacitor or diode goes from one to the other: 25.4 mm of leads. */
export const REACH = 10;
