import { has } from '../collections/has';
import { type HeaderPin, headerPins } from '../sheets/headerPins';
import { findOrThrow } from '../collections/orThrow';
import type { IndexedBoard } from '../sheets/sheetIndex';
import type { WireEnd } from '../plan/plan';

/** A position on the board, counted the ways a finger counts. */
export interface BoardPosition {
  readonly header: string;
  readonly headerTitle: string;
  readonly side: 'left' | 'right' | 'inside';
  /** The number on the header, from pin 1. */
  readonly position: number;
  /** Of a header with two rows, the row that it is in. */
  readonly row: 'odd' | 'even' | undefined;
  /** Counted from the nearer end of the header, or of its row, from 1. */
  readonly fromEnd: number;
  readonly end: string;
  readonly label: string;
  readonly port: string | undefined;
}

function positionOf(board: IndexedBoard, pin: HeaderPin): BoardPosition {
  const header = findOrThrow(board.sheet.headers.list, (h) => h.id === pin.header);
  const all = headerPins(board.sheet, header.id);
  // In two rows a finger counts along one of them: pin 5 is the third of the odd ones.
  const row = header.rows === 2 ? all.filter((p) => p.position % 2 === pin.position % 2) : all;
  const fromFirst = row.indexOf(pin) + 1;
  const fromLast = row.length - fromFirst + 1;
  const nearFirst = fromFirst <= fromLast;
  return {
    header: header.id,
    headerTitle: header.title,
    side: header.side,
    position: pin.position,
    row: header.rows === 2 ? (pin.position % 2 === 1 ? 'odd' : 'even') : undefined,
    fromEnd: nearFirst ? fromFirst : fromLast,
    end: header.ends[nearFirst ? 0 : 1],
    label: pin.label,
    port: pin.port,
  };
}

/** The pin at a position of a header. */
export const pinAtPosition = (board: IndexedBoard, at: Pick<BoardPosition, 'header' | 'position'>): string | undefined =>
  board.sheet.pins.list.find((pin) => pin.header === at.header && pin.position === at.position)?.id;

/** Every position on the board where a wire end can be plugged in, in sheet order. */
export function positionsOf(board: IndexedBoard, end: WireEnd): readonly BoardPosition[] {
  const pins = board.sheet.pins.list.filter(has('position')).filter((pin) => {
    if (!pin.header) return false;
    if (end.to === 'pin') return (pin.sameAs ?? pin.id) === end.pin;
    if (end.to === 'rail') return pin.kind === 'supply' && pin.rail === end.rail;
    return end.to === 'ground' && pin.kind === 'ground';
  });
  return pins.map((pin) => positionOf(board, pin));
}
