import clsx from 'clsx';
import { memo } from 'react';
import { drawnLabel, type Face, type FacePad } from '@roof-chart/core/faces/face';
import { FaceItems } from './FaceItems';
import styles from './Face.module.css';

interface FaceProps {
  readonly face: Face;
  /** Pads that are circled: the terminal in focus, or the ends of a step. */
  readonly lit?: readonly string[];
  /** Pads that are filled, each with the colour of its wire. */
  readonly filled?: ReadonlyMap<string, string>;
  /** Whether pads have their labels: not in a list, where they would be too small to read. */
  readonly labels?: boolean;
  /** Pixels per millimetre at most, so that small parts look smaller than large ones. */
  readonly maxScale?: number;
}

const TONE: { readonly [K in FacePad['kind']]: string | undefined } = {
  signal: styles.signal,
  ground: styles.ground,
  supply: styles.supply,
  control: styles.control,
};

function Pad({
  pad,
  fill,
  isLit,
  hasLabel,
}: {
  readonly pad: FacePad;
  readonly fill: string | undefined;
  readonly isLit: boolean;
  readonly hasLabel: boolean;
}) {
  const { x, y, form, text } = pad;
  const shown = { className: clsx(styles.pad, fill === undefined && TONE[pad.kind]), ...(fill === undefined ? {} : { fill }) };
  return (
    <g>
      {form === 'leg' ? <rect x={x - 0.9} y={y - 0.9} width={1.8} height={1.8} {...shown} /> : <circle cx={x} cy={y} r={0.8} {...shown} />}
      {isLit && <circle cx={x} cy={y} r={1.45} className={hasLabel ? styles.lit : clsx(styles.lit, styles.litSmall)} />}
      {hasLabel && (
        <text
          className={isLit ? styles.labelLit : styles.label}
          textAnchor={text.anchor}
          dominantBaseline="central"
          transform={`translate(${text.x} ${text.y}) rotate(${text.turn})`}
        >
          {drawnLabel(pad.label)}
        </text>
      )}
    </g>
  );
}

/** The likeness of a board or part, drawn from the facts of its sheet. */
export const FacePicture = memo(function FacePicture({ face, lit = [], filled, labels = true, maxScale = 9 }: FaceProps) {
  const { x, y, w, h } = face.view;
  const named = lit.length > 0 ? `; marked: ${face.pads.flatMap(({ id, label }) => (lit.includes(id) ? [label] : [])).join(', ')}` : '';
  return (
    <svg
      className={styles.face}
      width={w * maxScale}
      height={h * maxScale}
      viewBox={`${x} ${y} ${w} ${h}`}
      role="img"
      aria-label={`${face.title}${named}`}
    >
      <desc>{face.description}</desc>
      <FaceItems items={face.items} hasText={labels} />
      {face.pads.map((pad) => (
        <Pad key={pad.id} pad={pad} fill={filled?.get(pad.id)} isLit={lit.includes(pad.id)} hasLabel={labels} />
      ))}
    </svg>
  );
});
