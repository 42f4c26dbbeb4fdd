import { atOrThrow } from '../../collections/orThrow';
import type { Breadboard } from '../../plan/plan';
import { PITCH_MM } from '../../sheets/shape';

/** The two halves of a breadboard: five holes of a row are one strip in each. */
export const HALVES = ['ae', 'fj'] as const;
export type Half = (typeof HALVES)[number];

/** The columns of a half, from the edge of the breadboard inwards for `ae`, outwards for `fj`. */
export const COLUMNS: { readonly [H in Half]: readonly string[] } = { ae: ['a', 'b', 'c', 'd', 'e'], fj: ['f', 'g', 'h', 'i', 'j'] };

/** @example otherHalf('ae') // 'fj' */
export const otherHalf = (half: Half): Half => (half === 'ae' ? 'fj' : 'ae');

/** From column a, in pitches of 2.54 mm: the gap between e and f is 7.62 mm wide. */
export const acrossOf = (half: Half, column: number): number => (half === 'ae' ? column : 7 + column);

/** From a hole of one half to the same one of the other, in pitches. */
export const ACROSS = 7;

/** From a hole of one board to the same one of the next, which lies beside it with one rail strip between them: 35.6 mm of a board without
 *  rails and 10.2 mm of the strip. In pitches. */
export const NEXT_BOARD = 18;

/** From column j of one board to column a of the next, in millimetres. */
export const BETWEEN_BOARDS_MM = (NEXT_BOARD - acrossOf('fj', 4)) * PITCH_MM;

/** Whether two boards lie beside each other. */
export const isSideBySide = ({ arrangement, boards }: Breadboard): boolean => arrangement === 'side by side' && boards === 2;

/** A strip of five holes, as far as its place goes. */
export interface StripPlace {
  readonly half: Half;
  readonly row: number;
}

/** The halves of all boards that lie beside each other, by how far they are across from the first one, in pitches. */
export const lanesOf = (breadboard: Breadboard): readonly number[] =>
  isSideBySide(breadboard) ? [0, ACROSS, NEXT_BOARD, NEXT_BOARD + ACROSS] : [0, ACROSS];

/** Rows of a lane: of boards end to end those of all. */
export const laneRows = (breadboard: Breadboard): number => (isSideBySide(breadboard) ? breadboard.rows : rowsOf(breadboard));

/** The row along its lane of a row that is counted through all boards. */
export const alongLane = (breadboard: Breadboard, row: number): number => (isSideBySide(breadboard) ? rowOnBoard(breadboard, row)[1] : row);

/** Where a strip is: its number in `lanesOf`, and its row along that lane. */
export function laneOf(breadboard: Breadboard, { half, row }: StripPlace): { readonly lane: number; readonly along: number } {
  const board = isSideBySide(breadboard) ? rowOnBoard(breadboard, row)[0] : 0;
  return { lane: 2 * board + (half === 'ae' ? 0 : 1), along: alongLane(breadboard, row) };
}

/** The first column of a strip on the plane of all boards, in pitches. */
function pointOf(breadboard: Breadboard, place: StripPlace): { readonly along: number; readonly across: number } {
  const { lane, along } = laneOf(breadboard, place);
  return { along, across: atOrThrow(lanesOf(breadboard), lane) };
}

/** How far a wire between two strips goes, in pitches. */
export function pitchesApart(breadboard: Breadboard, a: StripPlace, b: StripPlace): number {
  const [from, to] = [pointOf(breadboard, a), pointOf(breadboard, b)];
  return Math.abs(from.along - to.along) + Math.abs(from.across - to.across);
}

export type RailSign = '+' | '−';

/** A hole of a row, or of a supply rail beside a row. Rows are counted through all boards. */
export type Hole =
  | { readonly at: 'strip'; readonly half: Half; readonly row: number; readonly column: number }
  | { readonly at: 'rail'; readonly half: Half; readonly row: number; readonly sign: RailSign };

/** Rows of all boards together. */
export const rowsOf = ({ rows, boards }: Breadboard): number => rows * boards;

/** The board that a row is on, from 0, and its number there. */
export function rowOnBoard({ rows }: Breadboard, row: number): readonly [board: number, row: number] {
  return [Math.floor((row - 1) / rows), ((row - 1) % rows) + 1];
}

/** Whether the rails of a half are there: between two boards side by side there is only one strip of them, that of the first. */
export const hasRails = (breadboard: Breadboard, half: Half, board: number): boolean =>
  !isSideBySide(breadboard) || half === 'fj' || board === 0;

/** Whether a rail has a hole beside a row: rails have their holes in groups of five, with a gap after each. */
export function hasRailHole(breadboard: Breadboard, half: Half, row: number): boolean {
  const [board, local] = rowOnBoard(breadboard, row);
  if (!hasRails(breadboard, half, board)) return false;
  const first = breadboard.rows === 63 ? 3 : 1;
  const last = breadboard.rows === 63 ? 61 : 29;
  return local >= first && local <= last && (local - first) % 6 !== 5;
}

/** The piece of a rail that a hole beside a row belongs to, counted along the breadboard: one for each board, two where rails are split. */
export function railPiece(breadboard: Breadboard, row: number): number {
  const [board, local] = rowOnBoard(breadboard, row);
  if (breadboard.rails === 'whole') return board;
  return 2 * board + (local > Math.floor(breadboard.rows / 2) ? 1 : 0);
}

/** The conductor that a hole belongs to: its strip, or its piece of a rail. */
export function conductorOf(breadboard: Breadboard, hole: Hole): string {
  if (hole.at === 'strip') return `${hole.half} ${hole.row}`;
  return `${hole.half} ${hole.sign} ${railPiece(breadboard, hole.row)}`;
}

/** What is printed beside a hole.
 *  @example holeText(breadboard, hole) // '8 i', on the second of two boards 'B2 8 i', of a rail '− rail a–e, row 8' */
export function holeText(breadboard: Breadboard, hole: Hole): string {
  const [board, local] = rowOnBoard(breadboard, hole.row);
  const before = breadboard.boards > 1 ? `B${board + 1} ` : '';
  return hole.at === 'strip'
    ? `${before}${local} ${atOrThrow(COLUMNS[hole.half], hole.column)}`
    : `${before}${hole.sign} rail ${hole.half === 'ae' ? 'a–e' : 'f–j'}, row ${local}`;
}

/** How far a hole is from the first column of its half, in pitches; the rails lie 2.5 to 3.5 beyond the outermost columns. */
function offsetOf(hole: Hole): number {
  if (hole.at === 'strip') return hole.column;
  const beyond = hole.sign === '+' ? 3.5 : 2.5;
  return hole.half === 'ae' ? -beyond : 4 + beyond;
}

/** How long a wire is that lies along the rows and columns, in pitches of 2.54 mm. */
export function pitchesBetween(breadboard: Breadboard, a: Hole, b: Hole): number {
  const [from, to] = [pointOf(breadboard, a), pointOf(breadboard, b)];
  return Math.abs(from.along - to.along) + Math.round(Math.abs(from.across + offsetOf(a) - to.across - offsetOf(b)));
}
