import type { BuildWire } from '@roof-chart/core/outputs/buildList';
import { boardOf } from '@roof-chart/core/plan/edit';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { BoardPin, Header } from '@roof-chart/core/sheets/boardSheet';
import { useWorkbench } from '../../app/workbench';
import { WIRE_HEX } from '../chart/wireHex';
import styles from './Build.module.css';

const PITCH = 23;
const TOP = 34;
const [LEFT_X, RIGHT_X, WIDTH] = [92, 240, 332];

interface Spot {
  readonly pin: BoardPin;
  readonly x: number;
  readonly y: number;
  readonly side: Header['side'];
}

/** Positions of both sides from the USB end down, a small gap between headers of one side. */
function spots(headers: readonly Header[], pins: readonly BoardPin[]): readonly Spot[] {
  return (['left', 'right'] as const).flatMap((side) => {
    let y = TOP;
    return headers
      .filter((header) => header.side === side)
      .flatMap((header, at) => {
        if (at > 0) y += 10;
        return pins
          .filter((pin) => pin.header === header.id)
          .map((pin) => ({ pin, side, x: side === 'left' ? LEFT_X : RIGHT_X, y: (y += PITCH) - PITCH }));
      });
  });
}

/** "SDA ×6" beside a position: the labels that end there. */
function noteFor(wires: readonly BuildWire[]): string {
  const labels = [...new Set(wires.map((w) => w.label))];
  if (wires.length === 1) return labels[0]!;
  return labels.length === 1 ? `${labels[0]} ×${wires.length}` : `${wires.length} wires`;
}

/** The board's headers with the positions that are used; the wire under the pointer is ringed. */
export function BoardPicture({
  plan,
  wires,
  pointed,
}: {
  readonly plan: Plan;
  readonly wires: readonly BuildWire[];
  readonly pointed: BuildWire | null;
}) {
  const { sheets } = useWorkbench();
  const { sheet } = boardOf(plan, sheets)!;
  const places = spots(sheet.headers.list, sheet.pins.list);
  const height = Math.max(...places.map((p) => p.y)) + 40;
  const endsAt = (spot: Spot) => wires.filter((w) => w.at.some((at) => at.header === spot.pin.header && at.position === spot.pin.position));
  const isPointed = (spot: Spot) => pointed?.at.some((at) => at.header === spot.pin.header && at.position === spot.pin.position) ?? false;
  return (
    <figure className={styles.picture}>
      <svg width={WIDTH} height={height} viewBox={`0 0 ${WIDTH} ${height}`} role="img" aria-label={`${sheet.title}: used positions`}>
        <rect
          x={LEFT_X - 14}
          y={8}
          width={RIGHT_X - LEFT_X + 28}
          height={height - 16}
          rx="7"
          fill="var(--field)"
          stroke="var(--ink)"
          strokeWidth="1.5"
        />
        <rect x={(LEFT_X + RIGHT_X) / 2 - 25} y="1" width="50" height="20" rx="3" fill="var(--field)" stroke="var(--ink)" />
        <text x={(LEFT_X + RIGHT_X) / 2} y="15" className={styles.pinText} textAnchor="middle">
          USB
        </text>
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
              <text x={spot.x - outward * 12} y={spot.y + 4} className={styles.pinText} textAnchor={spot.side === 'left' ? 'start' : 'end'}>
                {spot.pin.label}
              </text>
              {here.length > 0 && (
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
