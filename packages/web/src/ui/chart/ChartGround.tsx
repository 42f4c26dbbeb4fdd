import { atOrThrow, getOrThrow } from '@roof-chart/core/collections/orThrow';
import { memo } from 'react';
import styles from './SignalChart.module.css';
import { type ColumnLayout, ringPath, type RowLayout } from './layout';
import type { RowModel } from './rowModel';

interface HangGroundProps {
  readonly layout: ColumnLayout;
  readonly rows: RowLayout;
  /** Where each row could go, by row id; the same arrays while the sheets are the same. */
  readonly could: readonly (readonly [string, RowModel['could']])[];
}

const sameCould = (a: HangGroundProps['could'], b: HangGroundProps['could']): boolean =>
  a.length === b.length && a.every(([id, columns], at) => id === atOrThrow(b, at)[0] && columns === atOrThrow(b, at)[1]);

/** What no edit changes: columns, the lines between parts, a small ring wherever a wire could go. On a large board
 *  this is most of the picture, so it has a layer of its own that the browser paints once. */
export const ChartGround = memo(
  function HangGround({ layout, rows, could }: HangGroundProps) {
    const xs = (columns: readonly string[]) => columns.flatMap((id) => layout.byId.get(id)?.centre ?? []);
    return (
      <svg className={styles.ground} width={layout.width} height={rows.height} aria-hidden>
        {layout.columns.map((c) => (
          <rect
            key={c.id}
            x={c.left + 0.4}
            width={layout.columnWidth - 0.8}
            height={rows.height}
            className={c.tone === 'quiet' ? styles.quietColumn : styles.openColumn}
          />
        ))}
        <path d={rows.rules.map((y) => `M0 ${y}h${layout.width}`).join('')} className={styles.rule} />
        {could.map(
          ([id, columns]) =>
            columns.length > 0 && <path key={id} d={ringPath(xs(columns), getOrThrow(rows.centre, id), 2)} className={styles.faint} />,
        )}
      </svg>
    );
  },
  (a, b) => a.layout === b.layout && a.rows === b.rows && sameCould(a.could, b.could),
);
