import { headerPins } from '@roof-chart/core/sheets/headerPins';
import { firstOrThrow } from '@roof-chart/core/collections/orThrow';
import type { BoardPosition } from '@roof-chart/core/outputs/boardPosition';
import type { BuildWire } from '@roof-chart/core/outputs/buildList';
import { boardOrThrow } from '@roof-chart/core/plan/edit';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { BoardPin, BoardSheet, Header } from '@roof-chart/core/sheets/boardSheet';
import { useWorkbench } from '../../state/workbench';
import { WIRE_HEX } from '@roof-chart/core/outputs/wireHex';
import styles from './Build.module.css';

const PITCH = 23;
const TOP = 34;
/** Distance of the two rows of a double header. */
const ROW = 26;
/** Columns of the picture, in pixels: the outermost positions of both sides, and the full width. */
const NARROW = { left: 92, right: 240, width: 332 };
const WIDE = { left: 92, right: 262, width: 396 };
const ONE_SIDED = { left: 20, right: 206, width: 336 };

interface Spot {
  readonly pin: BoardPin;
  readonly x: number;
  readonly y: number;
  readonly side: Header['side'];
  /** The outer position of a double header: its label is outside of the board, because the inner row is beside it. */
  readonly outer: boolean;
}

/** Positions of both sides from the first end down, a small gap between headers of one side; double headers in two columns. */
function boardSpots(sheet: BoardSheet, columns: typeof NARROW): readonly Spot[] {
  return (['left', 'right'] as const).flatMap((side) => {
    let y = TOP;
    return sheet.headers.list
      .filter((header) => header.side === side)
      .flatMap((header, at): Spot[] => {
        if (at > 0) y += 10;
        const own = headerPins(sheet, header.id);
        if (header.rows !== 2) return own.map((pin) => ({ pin, side, x: columns[side], y: (y += PITCH) - PITCH, outer: false }));
        const top = y;
        y += PITCH * Math.ceil(own.length / 2);
        // Odd positions are in the left one of the two columns.
        const odd = side === 'left' ? columns.left : columns.right - ROW;
        return own.map((pin) => {
          const isOdd = pin.position % 2 === 1;
          const place = Math.floor((pin.position - 1) / 2);
          return { pin, side, x: isOdd ? odd : odd + ROW, y: top + PITCH * place, outer: isOdd === (side === 'left') };
        });
      });
  });
}

/** What is drawn at an end of the board: the socket, the notch or the antenna by which people tell the ends apart. */
const landmark = (end: string | undefined): string =>
  end === undefined || /^(far end|last pin)$/.test(end) ? '' : end.replace(/ end$/, '');

/** "SDA ×6" beside a position: the labels that end there. */
function noteFor(wires: readonly BuildWire[]): string {
  const labels = [...new Set(wires.map((w) => w.label))];
  if (wires.length === 1) return firstOrThrow(labels);
  return labels.length === 1 ? `${labels[0]} ×${wires.length}` : `${wires.length} wires`;
}

/** The colour of a position: that of its wire, or of ground and supplies. */
function toneOf({ pin }: Spot, wire: BuildWire | undefined): string {
  if (wire) return WIRE_HEX[wire.colour];
  if (pin.kind === 'ground') return WIRE_HEX.black;
  return pin.kind === 'supply' ? WIRE_HEX.red : 'var(--field)';
}

interface PositionProps {
  readonly spot: Spot;
  readonly isDouble: boolean;
  readonly isPointed: boolean;
  /** The wires that end there; of ground and supplies none. */
  readonly wires: readonly BuildWire[];
}

/** A position with its label, and beside it what ends there. */
function Position({ spot, isDouble, isPointed, wires }: PositionProps) {
  const outward = spot.side === 'left' ? -1 : 1;
  const noteStyle = isPointed ? styles.noteOn : styles.note;
  return (
    <g>
      {isPointed && <circle cx={spot.x} cy={spot.y} r="9" fill="none" stroke="var(--copper)" strokeWidth="2.5" />}
      <circle cx={spot.x} cy={spot.y} r="4.6" fill={toneOf(spot, wires[0])} stroke="var(--ink)" />
      <text
        x={spot.x + (spot.outer ? outward * 20 : -outward * 12)}
        y={spot.y + 4}
        className={styles.pinText}
        textAnchor={(spot.side === 'left') === spot.outer ? 'end' : 'start'}
      >
        {spot.pin.label}
        {isDouble && wires.length > 0 && <tspan className={noteStyle}>{`  ${noteFor(wires)}`}</tspan>}
      </text>
      {!isDouble && wires.length > 0 && (
        <text x={spot.x + outward * 22} y={spot.y + 4} className={noteStyle} textAnchor={spot.side === 'left' ? 'end' : 'start'}>
          {noteFor(wires)}
        </text>
      )}
    </g>
  );
}

/** What the ends of the board are known by. */
function Landmarks({ ends, x, height }: { readonly ends: readonly (string | undefined)[]; readonly x: number; readonly height: number }) {
  const [first, last] = ends;
  const marks = [
    { words: landmark(first), y: 1 },
    { words: /^pin /.test(last ?? '') ? '' : landmark(last), y: height - 21 },
  ];
  return marks
    .filter(({ words }) => words !== '')
    .map(({ words, y }) => (
      <g key={y}>
        <rect x={x - 30} y={y} width="60" height="20" rx="3" fill="var(--field)" stroke="var(--ink)" />
        <text x={x} y={y + 14} className={styles.pinText} textAnchor="middle">
          {words}
        </text>
      </g>
    ));
}

interface BoardPictureProps {
  readonly plan: Plan;
  readonly wires: readonly BuildWire[];
  readonly pointed: readonly BoardPosition[];
}

/** The board's headers with the positions that are used; those of the step under the pointer are ringed. */
export function BoardPicture({ plan, wires, pointed }: BoardPictureProps) {
  const { sheets } = useWorkbench();
  const { sheet } = boardOrThrow(plan, sheets);
  const headers = sheet.headers.list;
  const isDouble = (id: string | undefined) => headers.find((header) => header.id === id)?.rows === 2;
  const columns = !headers.some(({ side }) => side === 'left') ? ONE_SIDED : headers.some(({ rows }) => rows === 2) ? WIDE : NARROW;
  const { left, right, width } = columns;
  const places = boardSpots(sheet, columns);
  const height = Math.max(...places.map((p) => p.y)) + 40;
  const isAt =
    ({ pin }: Spot) =>
    (at: BoardPosition) =>
      at.header === pin.header && at.position === pin.position;
  return (
    <figure className={styles.picture}>
      <svg
        className={styles.drawing}
        width={width}
        height={height}
        viewBox={`0 0 ${width} ${height}`}
        role="img"
        aria-label={`${sheet.title}: used positions`}
      >
        <rect
          x={left - 14}
          y={8}
          width={right - left + 28}
          height={height - 16}
          rx="7"
          fill="var(--field)"
          stroke="var(--ink)"
          strokeWidth="1.5"
        />
        <Landmarks ends={headers.find(({ side }) => side !== 'inside')?.ends ?? []} x={(left + right) / 2} height={height} />
        {places.map((spot) => {
          const isPower = spot.pin.kind === 'ground' || spot.pin.kind === 'supply';
          return (
            <Position
              key={spot.pin.id}
              spot={spot}
              isDouble={isDouble(spot.pin.header)}
              isPointed={pointed.some(isAt(spot))}
              wires={isPower ? [] : wires.filter((w) => w.at.some(isAt(spot)))}
            />
          );
        })}
      </svg>
    </figure>
  );
}
