import type { BoardPosition } from '@roof-chart/core/outputs/boardPosition';
import type { BuildWire } from '@roof-chart/core/outputs/buildList';
import { boardOf } from '@roof-chart/core/plan/edit';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { BoardPin, Header } from '@roof-chart/core/sheets/boardSheet';
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
function boardSpots(headers: readonly Header[], pins: readonly BoardPin[], columns: typeof NARROW): readonly Spot[] {
  return (['left', 'right'] as const).flatMap((side) => {
    let y = TOP;
    return headers
      .filter((header) => header.side === side)
      .flatMap((header, at): Spot[] => {
        if (at > 0) y += 10;
        const own = pins.filter((pin) => pin.header === header.id);
        if (header.rows !== 2) return own.map((pin) => ({ pin, side, x: columns[side], y: (y += PITCH) - PITCH, outer: false }));
        const top = y;
        y += PITCH * Math.ceil(own.length / 2);
        // Odd positions are in the left one of the two columns.
        const odd = side === 'left' ? columns.left : columns.right - ROW;
        return own.map((pin) => {
          const isOdd = pin.position! % 2 === 1;
          const place = Math.floor((pin.position! - 1) / 2);
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
  if (wires.length === 1) return labels[0]!;
  return labels.length === 1 ? `${labels[0]} ×${wires.length}` : `${wires.length} wires`;
}

/** The board's headers with the positions that are used; those of the step under the pointer are ringed. */
export function BoardPicture({
  plan,
  wires,
  pointed,
}: {
  readonly plan: Plan;
  readonly wires: readonly BuildWire[];
  readonly pointed: readonly BoardPosition[];
}) {
  const { sheets } = useWorkbench();
  const { sheet } = boardOf(plan, sheets)!;
  const isWide = sheet.headers.list.some((header) => header.rows === 2);
  const columns = !sheet.headers.list.some((header) => header.side === 'left') ? ONE_SIDED : isWide ? WIDE : NARROW;
  const { left: leftX, right: rightX, width } = columns;
  const places = boardSpots(sheet.headers.list, sheet.pins.list, columns);
  const [first, last] = sheet.headers.list.find((header) => header.side !== 'inside')?.ends ?? [];
  const height = Math.max(...places.map((p) => p.y)) + 40;
  const endsAt = (spot: Spot) => wires.filter((w) => w.at.some((at) => at.header === spot.pin.header && at.position === spot.pin.position));
  const isDouble = (spot: Spot) => sheet.headers.list.find((header) => header.id === spot.pin.header)?.rows === 2;
  const isPointed = (spot: Spot) => pointed.some((at) => at.header === spot.pin.header && at.position === spot.pin.position);
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
          x={leftX - 14}
          y={8}
          width={rightX - leftX + 28}
          height={height - 16}
          rx="7"
          fill="var(--field)"
          stroke="var(--ink)"
          strokeWidth="1.5"
        />
        {[
          { words: landmark(first), y: 1 },
          { words: /^pin /.test(last ?? '') ? '' : landmark(last), y: height - 21 },
        ].map(
          ({ words, y }) =>
            words !== '' && (
              <g key={y}>
                <rect x={(leftX + rightX) / 2 - 30} y={y} width="60" height="20" rx="3" fill="var(--field)" stroke="var(--ink)" />
                <text x={(leftX + rightX) / 2} y={y + 14} className={styles.pinText} textAnchor="middle">
                  {words}
                </text>
              </g>
            ),
        )}
        {places.map((spot) => {
          const here = spot.pin.kind === 'ground' || spot.pin.kind === 'supply' ? [] : endsAt(spot);
          const outward = spot.side === 'left' ? -1 : 1;
          const tone = here[0]
            ? WIRE_HEX[here[0].colour]
            : spot.pin.kind === 'ground'
              ? WIRE_HEX.black
              : spot.pin.kind === 'supply'
                ? WIRE_HEX.red
                : 'var(--field)';
          return (
            <g key={spot.pin.id}>
              {isPointed(spot) && <circle cx={spot.x} cy={spot.y} r="9" fill="none" stroke="var(--copper)" strokeWidth="2.5" />}
              <circle cx={spot.x} cy={spot.y} r="4.6" fill={tone} stroke="var(--ink)" />
              <text
                x={spot.x + (spot.outer ? outward * 20 : -outward * 12)}
                y={spot.y + 4}
                className={styles.pinText}
                textAnchor={(spot.side === 'left') === spot.outer ? 'end' : 'start'}
              >
                {spot.pin.label}
                {isDouble(spot) && here.length > 0 && (
                  <tspan className={isPointed(spot) ? styles.noteOn : styles.note}>{`  ${noteFor(here)}`}</tspan>
                )}
              </text>
              {!isDouble(spot) && here.length > 0 && (
                <text
                  x={spot.x + outward * 22}
                  y={spot.y + 4}
                  className={isPointed(spot) ? styles.noteOn : styles.note}
                  textAnchor={spot.side === 'left' ? 'end' : 'start'}
                >
                  {noteFor(here)}
                </text>
              )}
            </g>
          );
        })}
      </svg>
    </figure>
  );
}
