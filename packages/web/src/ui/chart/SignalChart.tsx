import { type KeyboardEvent, type ReactNode, useEffect, useMemo } from 'react';
import { AXIS_HEIGHT, ChartAxis, type AxisBracket } from './ChartAxis';
import styles from './SignalChart.module.css';
import type { Choice } from './ChartCells';
import { ChartField } from './ChartField';
import { ChartRowHead } from './ChartRowHead';
import type { NetLine } from './ChartUnderlay';
import { type ColumnBlock, layoutColumns, layoutRows } from './layout';
import type { RowModel } from './rowModel';
import { useViewport } from './viewport';
import { useStableReference } from './stableReference';

export interface SignalChartProps {
  readonly label: string;
  readonly blocks: readonly ColumnBlock[];
  readonly brackets: readonly AxisBracket[];
  readonly groups: readonly { readonly id: string; readonly rows: readonly RowModel[] }[];
  readonly lines: readonly NetLine[];
  readonly clashes: ReadonlySet<string>;
  readonly focus: { readonly row: string | null; readonly column: string | null };
  readonly choices: ReadonlyMap<string, Choice> | null;
  readonly dim: ReadonlySet<string>;
  readonly headWidth: number;
  readonly columnWidth: number;
  readonly rowHeight: number;
  /** Shown over the empty corner left of the roof. */
  readonly corner: ReactNode;
  /** The accessible name of a cell. */
  readonly describe: (row: string, column: string) => string;
  readonly onFocus: (row: string | null, column: string | null) => void;
  /** A row was chosen by its head; the column stays. Must be stable, or every row is drawn anew. */
  readonly onRow: (row: string) => void;
  readonly onColumn: (column: string) => void;
  readonly onAct: (row: string, column: string) => void;
  readonly onDrop: (row: string, column: string) => void;
  readonly onHover: (row: string, column: string | null) => void;
  /** Keys beyond the arrows and Enter. @returns whether the key was used */
  readonly onKey: (event: KeyboardEvent, row: string | null, column: string | null) => boolean;
}

const GROUP_GAP = 4;
const BLOCK_GAP = 8;

const step = <T,>(list: readonly T[], at: number, by: number): T | undefined => list[Math.max(0, Math.min(list.length - 1, at + by))];

/** How far a key moves the reading cursor: rows, columns. */
const MOVES: { readonly [key: string]: readonly [number, number] } = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
  PageUp: [-10, 0],
  PageDown: [10, 0],
  Home: [0, -Infinity],
  End: [0, Infinity],
};

/** Where rows and columns are. The same while they are: their places, and with them the still ground, outlive an edit. */
function useLayout({ blocks, groups, columnWidth, rowHeight }: SignalChartProps) {
  const layout = useMemo(() => layoutColumns(blocks, columnWidth, BLOCK_GAP), [blocks, columnWidth]);
  const rowIds = useStableReference(useMemo(() => groups.map((group) => group.rows.map((row) => row.id)), [groups]));
  const rows = useMemo(() => layoutRows(rowIds, rowHeight, GROUP_GAP), [rowIds, rowHeight]);
  const flat = useMemo(() => rowIds.flat(), [rowIds]);
  return { layout, rows, flat };
}

type Layout = ReturnType<typeof useLayout>;

/** Keeps the reading cursor in view. @returns the ref of what scrolls */
function useCursorInSight({ focus, columnWidth, rowHeight, headWidth }: SignalChartProps, { layout, rows }: Layout) {
  const [scroller, viewport] = useViewport();
  useEffect(() => {
    if (!viewport.current) return;
    const y = focus.row ? rows.centre.get(focus.row) : undefined;
    const x = focus.column ? layout.byId.get(focus.column)?.centre : undefined;
    viewport.current.bring(
      x === undefined ? undefined : { at: x, clear: columnWidth },
      y === undefined ? undefined : { at: y, clear: rowHeight },
      { left: headWidth, top: AXIS_HEIGHT },
    );
  }, [viewport, focus.row, focus.column, rows, layout, rowHeight, columnWidth, headWidth]);
  return scroller;
}

/** The keys of the chart: its own, then the arrows, Enter and Space. */
function keyHandler({ focus, onFocus, onAct, onKey }: SignalChartProps, { layout, flat }: Layout) {
  const move = ([dRow, dColumn]: readonly [number, number]) => {
    const row = focus.row && flat.includes(focus.row) ? step(flat, flat.indexOf(focus.row), dRow) : flat[0];
    const at = layout.columns.findIndex((c) => c.id === focus.column);
    const column =
      dColumn === 0 ? focus.column : step(layout.columns, at < 0 ? (dColumn > 0 ? -1 : layout.columns.length) : at, dColumn)?.id;
    onFocus(row ?? null, column ?? null);
  };
  return (event: KeyboardEvent<HTMLDivElement>) => {
    if (onKey(event, focus.row, focus.column)) return event.preventDefault();
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const by = event.shiftKey ? undefined : MOVES[event.key];
    if (by) move(by);
    else if ((event.key === 'Enter' || event.key === ' ') && focus.row && focus.column) onAct(focus.row, focus.column);
    else return;
    event.preventDefault();
  };
}

function RowHeads({ chart, rows }: { readonly chart: SignalChartProps; readonly rows: Layout['rows'] }) {
  const { groups, focus, headWidth, rowHeight, describe, onRow } = chart;
  return (
    <div role="rowgroup" className={styles.heads} style={{ width: headWidth, height: rows.height }}>
      {groups.map((group) =>
        group.rows.map((row, at) => {
          const focused = row.id === focus.row;
          return (
            <ChartRowHead
              key={row.id}
              id={row.id}
              top={(rows.centre.get(row.id) ?? 0) - rowHeight / 2}
              height={rowHeight}
              first={at === 0}
              head={row.head}
              label={row.label}
              focused={focused}
              cellLabel={focused && focus.column ? describe(row.id, focus.column) : ''}
              onFocus={onRow}
            />
          );
        }),
      )}
    </div>
  );
}

/** A chart with an axis at the top and rows below it. Arrow keys move the reading cursor, Enter or Space acts on its cell. */
export function SignalChart(props: SignalChartProps) {
  const { groups, rowHeight, headWidth, focus, onFocus } = props;
  const own = useLayout(props);
  const { layout, rows, flat } = own;
  const scroller = useCursorInSight(props, own);
  const models = useMemo(() => groups.flatMap((group) => group.rows), [groups]);
  return (
    <div className={styles.chart}>
      <div className={styles.corner} style={{ width: headWidth, height: AXIS_HEIGHT }}>
        {props.corner}
      </div>
      <div
        ref={scroller}
        className={styles.scroller}
        role="grid"
        aria-label={props.label}
        aria-rowcount={flat.length + 1}
        aria-colcount={layout.columns.length + 1}
        aria-activedescendant={focus.row && focus.column ? `cell-${focus.row}` : undefined}
        tabIndex={0}
        onKeyDown={keyHandler(props, own)}
        onFocus={(event) => {
          // Only on arrival by keyboard: a mouse press is about to choose a row of its own.
          if (!focus.row && flat[0] && event.currentTarget.matches(':focus-visible')) onFocus(flat[0], focus.column);
        }}
      >
        <div role="row" className={styles.roof} style={{ paddingLeft: headWidth, width: headWidth + layout.width }}>
          <ChartAxis layout={layout} brackets={props.brackets} clashes={props.clashes} column={focus.column} onColumn={props.onColumn} />
        </div>
        <div className={styles.body} style={{ width: headWidth + layout.width }}>
          <RowHeads chart={props} rows={rows} />
          <ChartField
            layout={layout}
            rows={rows}
            rowHeight={rowHeight}
            models={models}
            lines={props.lines}
            clashes={props.clashes}
            dim={props.dim}
            focus={focus}
            choices={props.choices}
            onAct={props.onAct}
            onDrop={props.onDrop}
            onHover={props.onHover}
          />
        </div>
      </div>
    </div>
  );
}
