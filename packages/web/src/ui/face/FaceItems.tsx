import type { FaceItem } from '@roof-chart/core/faces/face';
import { type FaceShape, faceShapes } from '@roof-chart/core/faces/faceShapes';
import styles from './Face.module.css';

function Shape({ one }: { readonly one: FaceShape }) {
  switch (one.shape) {
    case 'rect':
      return <rect x={one.x} y={one.y} width={one.w} height={one.h} rx={one.round} className={styles[one.look]} />;
    case 'circle':
      return <circle cx={one.x} cy={one.y} r={one.r} className={styles[one.look]} />;
    case 'path':
      return <path d={one.d} className={styles[one.look]} />;
    case 'text':
      return (
        <text
          className={styles.marking}
          fontSize={one.size}
          textAnchor="middle"
          dominantBaseline="central"
          transform={`translate(${one.x} ${one.y})${one.isUpright ? ' rotate(-90)' : ''}`}
        >
          {one.text}
        </text>
      );
  }
}

/** What is drawn of a face besides its pads. */
export function FaceItems({ items, hasText }: { readonly items: readonly FaceItem[]; readonly hasText: boolean }) {
  return faceShapes(items, hasText).map((one, at) => <Shape key={at} one={one} />);
}
