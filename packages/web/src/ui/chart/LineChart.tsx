import type { ReactNode } from 'react';
import styles from './ScaleChart.module.css';
import { Disc } from './marks';

export interface LineColumn {
  readonly id: string;
  /** What the line does, and the pin it is at. */
  readonly label: string;
  readonly pin: string;
}

export interface LineRow {
  readonly id: string;
  readonly head: ReactNode;
  readonly value: string;
  /** Columns it is connected to. */
  readonly at: readonly string[];
  /** It receives its data from the row above instead of the axis: the column that this replaces. */
  readonly follows?: string;
}

const COLUMN = 84;
const ROOF = 40;
const ROW = 26;

/** Parts on the lines of a bus: one column per line with a vertical line through all parts on it; in a daisy chain the data continues
 *  from row to row. */
export function LineChart({
  label,
  columns,
  rows,
  headWidth = 190,
}: {
  readonly label: string;
  readonly columns: readonly LineColumn[];
  readonly rows: readonly LineRow[];
  readonly headWidth?: number;
}) {
  const width = columns.length * COLUMN;
  const height = ROOF + rows.length * ROW + 6;
  const x = (id: string) => columns.findIndex((c) => c.id === id) * COLUMN + COLUMN / 2;
  const y = (at: number) => ROOF + at * ROW + ROW / 2;
  return (
    <div className={styles.scale} role="group" aria-label={label} style={{ gridTemplateColumns: `${headWidth}px ${width}px` }}>
      <div className={styles.heads} style={{ paddingTop: ROOF }}>
        {rows.map((row) => (
          <div key={row.id} className={styles.head} style={{ height: ROW }}>
            <span className={styles.name}>{row.head}</span>
            <span className={styles.value}>{row.value}</span>
          </div>
        ))}
      </div>
      <svg className={styles.field} width={width} height={height} viewBox={`0 0 ${width} ${height}`} aria-hidden>
        {columns.map((column) => (
          <g key={column.id}>
            <text className={styles.tickLabel} x={x(column.id)} y={12} textAnchor="middle">
              {column.label}
            </text>
            <text className={styles.note} x={x(column.id)} y={28} textAnchor="middle">
              {column.pin}
            </text>
          </g>
        ))}
        <line className={styles.roof} x1={0} x2={width} y1={ROOF} y2={ROOF} />
        {rows.map((row, at) => (
          <line key={row.id} className={styles.rule} x1={0} x2={width} y1={ROOF + (at + 1) * ROW} y2={ROOF + (at + 1) * ROW} />
        ))}
        {columns.map((column) => {
          const last = rows.findLastIndex((row) => row.at.includes(column.id));
          return last < 0 ? null : (
            <line key={column.id} className={styles.line} x1={x(column.id)} x2={x(column.id)} y1={ROOF} y2={y(last)} />
          );
        })}
        {rows.map((row, at) => (
          <g key={row.id}>
            {row.at.map((id) => (
              <Disc key={id} x={x(id)} y={y(at)} />
            ))}
            {row.follows !== undefined && <Handed x={x(row.follows)} from={y(at - 1)} to={y(at)} />}
          </g>
        ))}
      </svg>
    </div>
  );
}

/** The data of a chain going on from one part to the next: beside the line, since it is another net. */
function Handed({ x, from, to }: { readonly x: number; readonly from: number; readonly to: number }) {
  const side = x + 16;
  return (
    <>
      <path className={styles.handed} d={`M${x} ${from}H${side}V${to}H${x + 5}`} />
      <path className={styles.handedHead} d={`M${x} ${to}l8 -4v8z`} />
    </>
  );
}
