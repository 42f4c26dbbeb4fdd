import { memo } from 'react';
import styles from './HangChart.module.css';
import type { ColumnLayout } from './layout';

/** A net: a vertical line from the roof to its lowest mark. */
export interface HangLine {
  readonly id: string;
  readonly column: string;
  readonly toRow: string;
  readonly tone: 'net' | 'bus' | 'clash';
}

interface HangUnderProps {
  readonly layout: ColumnLayout;
  readonly rows: ReadonlyMap<string, number>;
  readonly height: number;
  readonly lines: readonly HangLine[];
  readonly clashes: ReadonlySet<string>;
  readonly column: string | null;
  /** Columns that cannot serve the focused row. */
  readonly dim: ReadonlySet<string>;
}

const LINE_CLASS = { net: 'net', bus: 'bus', clash: 'clashLine' } as const;

/** What lies under the rows: column grounds, net lines. */
export const HangUnder = memo(function HangUnder({ layout, rows, height, lines, clashes, column, dim }: HangUnderProps) {
  const tone = (id: string, quiet: boolean) => {
    if (clashes.has(id)) return styles.clashColumn;
    if (column === id) return styles.focusColumn;
    return quiet ? styles.quietColumn : styles.openColumn;
  };
  return (
    <svg className={styles.under} width={layout.width} height={height} aria-hidden>
      {layout.columns.map((c) => (
        <rect key={c.id} x={c.left + 0.4} width={layout.columnWidth - 0.8} height={height} className={tone(c.id, c.tone === 'quiet')} />
      ))}
      {lines.map((line) => {
        const x = layout.byId.get(line.column)?.centre;
        const y = rows.get(line.toRow);
        return x !== undefined && y !== undefined && <path key={line.id} d={`M${x} 0V${y}`} className={styles[LINE_CLASS[line.tone]]} />;
      })}
      {layout.columns
        .filter((c) => dim.has(c.id))
        .map((c) => (
          <rect key={c.id} x={c.left} width={layout.columnWidth} height={height} className={styles.dim} />
        ))}
    </svg>
  );
});
