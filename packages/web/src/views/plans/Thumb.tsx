import type { Thumbnail } from '@roof-chart/core/outputs/thumbnail';
import styles from './Plans.module.css';

const WIDTH = 132;
const ROW = 6;

/** A plan as a small roof picture: one line a part, its wires as dots, clashing columns in red with a cross. */
export function Thumb({ thumbnail }: { readonly thumbnail: Thumbnail }) {
  const { columns, rows, clashes } = thumbnail;
  const shown = rows.slice(0, 9);
  const x = (column: number) => 4 + ((column + 0.5) * (WIDTH - 8)) / Math.max(1, columns);
  const height = 8 + Math.max(4, shown.length) * ROW;
  const lowest = new Map<number, number>();
  for (const [at, row] of shown.entries()) for (const column of row) lowest.set(column, at);
  const y = (at: number) => 9 + at * ROW;
  return (
    <svg width={WIDTH} height={64} viewBox={`0 0 ${WIDTH} ${Math.max(64, height)}`} className={styles.thumb} aria-hidden>
      {[...lowest].map(([column, at]) => (
        <path
          key={column}
          d={`M${x(column)} 4V${y(at)}`}
          stroke={clashes.includes(column) ? 'var(--brick)' : 'var(--ink)'}
          strokeDasharray={clashes.includes(column) ? '2 2' : undefined}
          strokeWidth="0.8"
        />
      ))}
      {shown.flatMap((row, at) =>
        row.map((column) => (
          <circle
            key={`${at}-${column}`}
            cx={x(column)}
            cy={y(at)}
            r="1.7"
            fill={clashes.includes(column) ? 'var(--brick)' : 'var(--ink)'}
          />
        )),
      )}
      <rect x="2" y="2" width={WIDTH - 4} height="2.5" fill="var(--ink)" />
    </svg>
  );
}
