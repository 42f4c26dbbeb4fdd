import { memo } from 'react';
import styles from './SignalChart.module.css';
import type { ColumnLayout } from './layout';

/** A net: a vertical line from the roof to its lowest mark. */
export interface NetLine {
  readonly id: string;
  readonly column: string;
  readonly toRow: string;
  readonly tone: 'net' | 'bus' | 'clash';
}

interface HangUnderProps {
  readonly layout: ColumnLayout;
  readonly rows: ReadonlyMap<string, number>;
  readonly height: number;
  readonly lines: readonly NetLine[];
  readonly clashes: ReadonlySet<string>;
  readonly column: string | null;
  /** Columns that cannot serve the focused row. */
  readonly dim: ReadonlySet<string>;
}

const LINE_CLASS = { net: 'net', bus: 'bus', clash: 'clashLine' } as const;

const columnPath = (layout: ColumnLayout, height: number, chosen: (id: string) => boolean): string =>
  layout.columns
    .filter((c) => chosen(c.id))
    .map((c) => `M${c.left} 0h${layout.columnWidth}v${height}h${-layout.columnWidth}z`)
    .join('');

/** What lies under the marks: tinted columns, net lines. */
export const ChartUnderlay = memo(function HangUnder({ layout, rows, height, lines, clashes, column, dim }: HangUnderProps) {
  return (
    <g>
      <path d={columnPath(layout, height, (id) => id === column && !clashes.has(id))} className={styles.focusTint} />
      <path d={columnPath(layout, height, (id) => clashes.has(id))} className={styles.clashTint} />
      {lines.map((line) => {
        const x = layout.byId.get(line.column)?.centre;
        const y = rows.get(line.toRow);
        return x !== undefined && y !== undefined && <path key={line.id} d={`M${x} 0V${y}`} className={styles[LINE_CLASS[line.tone]]} />;
      })}
      <path d={columnPath(layout, height, (id) => dim.has(id))} className={styles.dim} />
    </g>
  );
});
