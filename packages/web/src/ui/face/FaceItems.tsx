import type { Box, FaceItem } from '@roof-chart/core/faces/face';
import styles from './Face.module.css';

/** One path for every cell of a grid: a drawing of many dots is one element. */
function gridPath({ x, y, w, h }: Box, columns: number, rows: number, cell: (cx: number, cy: number) => string): string {
  return Array.from({ length: rows * columns }, (_, at) =>
    cell(x + ((at % columns) + 0.5) * (w / columns), y + (Math.floor(at / columns) + 0.5) * (h / rows)),
  ).join('');
}

const dot = (r: number) => (cx: number, cy: number) => `M${cx - r} ${cy}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0`;
const rectangle = (w: number, h: number) => (cx: number, cy: number) => `M${cx - w / 2} ${cy - h / 2}h${w}v${h}h${-w}z`;

/** The side of a key, which leaves a gap to the next one. */
const keySize = ({ w, columns }: { readonly w: number; readonly columns: number }): number => (w / columns) * 0.86;

/** A marking along the longer side of its box, small enough to fit. */
function Marking({ box, text, least = 0.7 }: { readonly box: Box; readonly text: string; readonly least?: number }) {
  const isUpright = box.h > box.w * 1.4;
  const length = isUpright ? box.h : box.w;
  const size = Math.min(2.4, (length - 0.6) / (text.length * 0.62));
  if (size < least) return null;
  return (
    <text
      className={styles.marking}
      fontSize={size}
      textAnchor="middle"
      dominantBaseline="central"
      transform={`translate(${box.x + box.w / 2} ${box.y + box.h / 2})${isUpright ? ' rotate(-90)' : ''}`}
    >
      {text}
    </text>
  );
}

function Feature({ item, hasText }: { readonly item: Extract<FaceItem, { is: 'feature' }>; readonly hasText: boolean }) {
  const { what, x, y, w, h, label } = item;
  if (what === 'hole') return <circle cx={x + w / 2} cy={y + h / 2} r={w / 2} className={styles.hole} />;
  if (what === 'cylinder') {
    const r = Math.min(w, h) / 2;
    return (
      <g>
        <circle cx={x + w / 2} cy={y + h / 2} r={r} className={styles.feature} />
        <circle cx={x + w / 2} cy={y + h / 2} r={r * 0.72} className={styles.feature} />
        {label !== undefined && hasText && <Marking box={{ x: x + w / 4, y: y + h / 4, w: w / 2, h: h / 2 }} text={label} />}
      </g>
    );
  }
  if (what === 'antenna') {
    const along = w >= h;
    const turns = Array.from({ length: 7 }, (_, at) => (at + 0.5) / 7);
    const d = turns.map((share, at) => {
      const [a, b] = at % 2 === 0 ? [0.15, 0.85] : [0.85, 0.15];
      const point = (across: number) => (along ? `${x + share * w} ${y + across * h}` : `${x + across * w} ${y + share * h}`);
      return `${at === 0 ? 'M' : 'L'}${point(a)} L${point(b)}`;
    });
    return <path d={d.join(' ')} className={styles.trace} />;
  }
  return (
    <g>
      <rect
        x={x}
        y={y}
        width={w}
        height={h}
        rx={what === 'button' ? w / 2 : 0.4}
        className={what === 'chip' || what === 'radio module' ? styles.chip : styles.feature}
      />
      {label !== undefined && (hasText || what === 'chip' || what === 'radio module') && (
        <Marking box={item} text={label} least={hasText ? 0.7 : 1.2} />
      )}
    </g>
  );
}

function Item({ item, hasText }: { readonly item: FaceItem; readonly hasText: boolean }) {
  switch (item.is) {
    case 'body':
      return (
        <rect
          x={item.x}
          y={item.y}
          width={item.w}
          height={item.h}
          rx={item.body === 'chip' ? 0.5 : 1.2}
          className={item.body === 'chip' ? styles.chip : styles.board}
        />
      );
    case 'marking':
      return <Marking box={item} text={item.label} />;
    case 'notch':
      return (
        <path
          d={item.turned ? `M${item.x} ${item.y - 1.2} a1.2 1.2 0 0 1 0 2.4` : `M${item.x - 1.2} ${item.y} a1.2 1.2 0 0 0 2.4 0`}
          className={styles.notch}
        />
      );
    case 'feature':
      return <Feature item={item} hasText={hasText} />;
    case 'cells':
      return (
        <g>
          <rect x={item.x} y={item.y} width={item.w} height={item.h} rx={item.round ? item.w / 2 : 0.4} className={styles.glass} />
          {item.unit === 'characters' && <path d={gridPath(item, item.columns, item.rows, rectangle(2.8, 4.8))} className={styles.cell} />}
          {item.unit === 'digits' && <path d={gridPath(item, item.columns, 1, digitPath)} className={styles.digit} />}
        </g>
      );
    case 'dots':
      return <path d={gridPath(item, item.columns, item.rows, dot(1.5))} className={styles.dot} />;
    case 'keys':
      return (
        <g>
          <path d={gridPath(item, item.columns, item.rows, rectangle(keySize(item), keySize(item)))} className={styles.feature} />
          <path d={gridPath(item, item.columns, item.rows, dot(keySize(item) * 0.28))} className={styles.board} />
        </g>
      );
    case 'knob':
      return (
        <g>
          <rect x={item.x} y={item.y} width={item.w} height={item.h} rx={1} className={styles.feature} />
          <circle cx={item.x + item.w / 2} cy={item.y + item.h / 2} r={item.w * 0.33} className={styles.board} />
          <path d={`M${item.x + item.w / 2} ${item.y + item.h * 0.17} v${item.h * 0.16}`} className={styles.trace} />
        </g>
      );
    case 'lens':
      return (
        <g>
          <path d={`M0 ${item.h - 1.2} V2.9 a2.9 2.9 0 0 1 ${item.w} 0 V${item.h - 1.2} z`} className={styles.lens} />
          <rect x={-0.6} y={item.h - 1.2} width={item.w + 0.8} height={1.2} className={styles.lens} />
          <path d={`M1.6 ${item.h} V16 M4.14 ${item.h} V14`} className={styles.trace} />
        </g>
      );
  }
}

/** A seven-segment eight, 5 mm wide and 9 mm high. */
const digitPath = (cx: number, cy: number): string => `M${cx - 2.5} ${cy - 4.5} h5 v9 h-5 z M${cx - 2.5} ${cy} h5`;

/** What is drawn of a face besides its pads. */
export function FaceItems({ items, hasText }: { readonly items: readonly FaceItem[]; readonly hasText: boolean }) {
  return items.map((item, at) => <Item key={at} item={item} hasText={hasText} />);
}
