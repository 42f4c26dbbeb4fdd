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

interface BandProps {
  readonly layout: ColumnLayout;
  readonly rows: RowLayout;
  readonly rowHeight: number;
  readonly row: string | null;
  readonly className: string | undefined;
}

/** A row of the field, tinted. */
function Band({ layout, rows, rowHeight, row, className }: BandProps) {
  const y = row ? rows.centre.get(row) : undefined;
  return y === undefined ? null : <rect x="0" y={y - rowHeight / 2} width={layout.width} height={rowHeight} className={className} />;
}

/** The frame around the cell that the keyboard is at. */
function Cursor({ layout, rows, rowHeight, focus }: Pick<ChartFieldProps, 'layout' | 'rows' | 'rowHeight' | 'focus'>) {
  const column = focus.column ? layout.byId.get(focus.column) : undefined;
  const y = focus.row ? rows.centre.get(focus.row) : undefined;
  if (!column || y === undefined) return null;
  return (
    <rect
      x={column.left + 0.75}
      y={y - rowHeight / 2 + 0.75}
      width={layout.columnWidth - 1.5}
      height={rowHeight - 1.5}
      rx="2"
      className={styles.cursor}
    />
  );
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
  const band = { layout, rows, rowHeight };
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
        {hovered !== focus.row && <Band {...band} row={hovered} className={styles.hoverBand} />}
        <Band {...band} row={focus.row} className={styles.focusBand} />
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
        <Cursor {...band} focus={focus} />
      </svg>
    </div>
  );
}
