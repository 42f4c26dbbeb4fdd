import { getOrThrow } from '@roof-chart/core/collections/orThrow';
import { type MouseEvent, useState } from 'react';
import styles from './SignalChart.module.css';
import { type Choice, ChartCells } from './ChartCells';
import { ChartGround } from './ChartGround';
import { type NetLine, ChartUnderlay } from './ChartUnderlay';
import { type ColumnLayout, columnAt, rowAt, type RowLayout } from './layout';
import type { RowModel } from './rowModel';

interface ChartFieldProps {
  readonly layout: ColumnLayout;
  readonly rows: RowLayout;
  readonly rowHeight: number;
  readonly models: readonly RowModel[];
  readonly lines: readonly NetLine[];
  readonly clashes: ReadonlySet<string>;
  readonly dim: ReadonlySet<string>;
  readonly focus: { readonly row: string | null; readonly column: string | null };
  readonly choices: ReadonlyMap<string, Choice> | null;
  readonly onAct: (row: string, column: string) => void;
  readonly onDrop: (row: string, column: string) => void;
  readonly onHover: (row: string, column: string | null) => void;
}

/** The field under the roof: one drawing of all rows. */
export function ChartField(props: ChartFieldProps) {
  const { layout, rows, rowHeight, focus } = props;
  const [hovered, setHovered] = useState<string | null>(null);
  const place = (event: MouseEvent<SVGSVGElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    return { row: rowAt(rows, rowHeight, event.clientY - box.top), column: columnAt(layout, event.clientX - box.left)?.id ?? null };
  };
  const hover = (row: string | null, column: string | null) => {
    setHovered(row);
    props.onHover(row ?? '', row && column);
  };
  const band = (row: string | null, className: string | undefined) => {
    const y = row ? rows.centre.get(row) : undefined;
    return y !== undefined && <rect x="0" y={y - rowHeight / 2} width={layout.width} height={rowHeight} className={className} />;
  };
  const cursor = focus.column ? layout.byId.get(focus.column) : undefined;
  const cursorY = focus.row ? rows.centre.get(focus.row) : undefined;
  return (
    <div className={styles.fieldBox}>
      <ChartGround layout={layout} rows={rows} could={props.models.map((model) => [model.id, model.could])} />
      <svg
        className={styles.field}
        width={layout.width}
        height={rows.height}
        aria-hidden
        onClick={(event) => {
          const { row, column } = place(event);
          if (row && column) props.onAct(row, column);
        }}
        onMouseMove={(event) => {
          const { row, column } = place(event);
          hover(row ?? null, column);
        }}
        onMouseLeave={() => hover(null, null)}
      >
        <ChartUnderlay
          layout={layout}
          rows={rows.centre}
          height={rows.height}
          lines={props.lines}
          clashes={props.clashes}
          column={focus.column}
          dim={props.dim}
        />
        {hovered !== focus.row && band(hovered, styles.hoverBand)}
        {band(focus.row, styles.focusBand)}
        {props.models.map((model) => (
          <ChartCells
            key={model.id}
            id={model.id}
            layout={layout}
            y={getOrThrow(rows.centre, model.id)}
            height={rowHeight}
            at={model.at}
            mark={model.mark}
            next={model.next}
            choices={model.id === focus.row ? props.choices : null}
            onDrop={props.onDrop}
          />
        ))}
        {cursor && cursorY !== undefined && (
          <rect
            x={cursor.left + 0.75}
            y={cursorY - rowHeight / 2 + 0.75}
            width={layout.columnWidth - 1.5}
            height={rowHeight - 1.5}
            rx="2"
            className={styles.cursor}
          />
        )}
      </svg>
    </div>
  );
}
