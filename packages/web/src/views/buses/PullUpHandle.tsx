import { orThrow } from '@roof-chart/core/collections/orThrow';
import { type PointerEvent, useRef } from 'react';
import { PAD } from '../../ui/chart/ScaleChart';
import { Ring } from '../../ui/chart/marks';
import styles from './Buses.module.css';

/** The ring that is dragged along the axis; by keyboard the row beside it is a slider. */
export function PullUpHandle({
  x,
  y,
  words,
  onDrag,
  onDrop,
}: {
  readonly x: number;
  readonly y: number;
  readonly words: string;
  readonly onDrag: (x: number) => void;
  readonly onDrop: () => void;
}) {
  const place = useRef<SVGGElement>(null);
  const at = (event: PointerEvent) => {
    const svg = orThrow(place.current?.ownerSVGElement, 'chart');
    return event.clientX - svg.getBoundingClientRect().left - PAD;
  };
  return (
    <g
      ref={place}
      className={styles.handle}
      aria-hidden
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        onDrag(at(event));
      }}
      onPointerMove={(event) => event.currentTarget.hasPointerCapture(event.pointerId) && onDrag(at(event))}
      onPointerUp={onDrop}
    >
      <circle cx={x} cy={y} r={11} fill="transparent" />
      {words && (
        <text className={styles.dragIn} x={x - 10} y={y + 4} textAnchor="end">
          {words}
        </text>
      )}
      <Ring x={x} y={y} />
    </g>
  );
}
