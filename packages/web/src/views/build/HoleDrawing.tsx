import clsx from 'clsx';
import type { KeyboardEvent } from 'react';
import type { HolePicture } from '@roof-chart/core/outputs/holes/holePicture';
import type { HoleShape } from '@roof-chart/core/outputs/holes/holeShapes';
import type { ItemMove } from '@roof-chart/core/outputs/holes/moveItem';
import type { MarkedHoles } from '@roof-chart/core/outputs/holes/markedHoles';
import { WIRE_HEX } from '@roof-chart/core/outputs/wireHex';
import styles from './Holes.module.css';
import pictureStyles from './Picture.module.css';
import { scaledTo } from './PictureFrame';

interface HoleDrawingProps {
  readonly label: string;
  readonly picture: HolePicture;
  /** What stands out; all else recedes. Undefined: everything is drawn alike. */
  readonly marked: MarkedHoles | undefined;
  readonly onMark: (mark: string) => void;
  /** What an item is called, with its place. */
  readonly itemLabel: (id: string) => string;
  readonly onMove: (id: string, move: ItemMove) => void;
  readonly scale: number | null;
}

const MOVES: { readonly [key: string]: ItemMove } = {
  ArrowLeft: { by: -1 },
  ArrowRight: { by: 1 },
  ArrowUp: 'across',
  ArrowDown: 'across',
};

function isDim({ item, net, strip, role }: HoleShape, marked: MarkedHoles | undefined): boolean {
  if (!marked || role === 'roof' || role === 'number' || role === 'letter' || role === 'rail') return false;
  return !(
    (item !== undefined && marked.items.has(item)) ||
    (net !== undefined && marked.nets.has(net)) ||
    (strip !== undefined && marked.strips.has(strip))
  );
}

function Shape({
  shape,
  marked,
  onMark,
}: {
  readonly shape: HoleShape;
  readonly marked: MarkedHoles | undefined;
  readonly onMark: (mark: string) => void;
}) {
  const { role, net } = shape;
  const isLit = marked !== undefined && !isDim(shape, marked);
  if (role === 'rail-wire' && !isLit) return null;
  const colour = shape.colour && WIRE_HEX[shape.colour];
  const className = [styles[role], isDim(shape, marked) ? pictureStyles.dim : '', shape.colour === 'black' ? styles.black : '']
    .filter(Boolean)
    .join(' ');
  const press = net === undefined ? {} : { onClick: () => onMark(`net ${net}`) };
  switch (shape.is) {
    case 'line': {
      const path = shape.points.map(([x, y], at) => `${at === 0 ? 'M' : 'L'}${x} ${y}`).join('');
      return (
        <g className={className} {...press}>
          {net !== undefined && <path d={path} className={pictureStyles.touch} />}
          {shape.colour === 'white' && <path d={path} className={styles.casing} />}
          <path d={path} stroke={colour} />
        </g>
      );
    }
    case 'circle':
      return <circle cx={shape.x} cy={shape.y} r={shape.r} className={className} fill={colour} {...press} />;
    case 'rect':
      return <rect x={shape.x} y={shape.y} width={shape.w} height={shape.h} className={className} />;
    case 'text':
      return (
        <text
          x={shape.x}
          y={shape.y}
          className={className}
          textAnchor={shape.anchor}
          fill={shape.role === 'sign' || shape.role === 'letter' ? colour : undefined}
          transform={shape.turn === 0 ? undefined : `rotate(${shape.turn} ${shape.x} ${shape.y})`}
        >
          {shape.text}
        </text>
      );
  }
}

/** The hole plan itself: row numbers are the roof, below them the five holes of each used row. An item is selected by a press and moved with
 *  the arrow keys. */
export function HoleDrawing({ label, picture, marked, onMark, itemLabel, onMove, scale }: HoleDrawingProps) {
  const { width, height, shapes, strips, items } = picture;
  const onKey = (id: string) => (event: KeyboardEvent) => {
    const move = MOVES[event.key];
    if (event.key !== 'Enter' && event.key !== ' ' && !move) return;
    event.preventDefault();
    if (move) onMove(id, move);
    else onMark(`part ${id}`);
  };
  return (
    <svg {...scaledTo(width, height, scale)} role="group" aria-label={label}>
      {shapes.map((shape, at) => (
        <Shape key={at} shape={shape} marked={marked} onMark={onMark} />
      ))}
      {[...(marked?.strips ?? [])].flatMap((key) => {
        const strip = strips.get(key);
        return strip
          ? [<rect key={key} x={strip.x} y={strip.y} width={strip.w} height={strip.h} rx={8} className={styles.ring} data-ring />]
          : [];
      })}
      {items.map(({ id, x, y, w, h }) => (
        <rect
          key={id}
          x={x}
          y={y}
          width={w}
          height={h}
          rx={4}
          className={clsx(styles.item, marked?.items.has(id) && styles.selected)}
          role="button"
          tabIndex={0}
          aria-label={itemLabel(id)}
          aria-pressed={marked?.items.has(id) ?? false}
          onClick={() => onMark(`part ${id}`)}
          onKeyDown={onKey(id)}
        />
      ))}
    </svg>
  );
}
