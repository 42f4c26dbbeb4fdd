import { memo, type MouseEvent, type PointerEvent, type ReactNode, useState } from 'react';
import { type ColumnLayout, columnAt, ringPath } from './layout';
import { sameProps } from './sameProps';
import { ClashDisc, CostRing, Disc, Echo, LockedDisc, Ring } from './marks';
import styles from './HangChart.module.css';

/** What a column means for the focused row. */
export type Choice = 'free' | 'costs' | 'taken';

export interface HangRowProps {
  readonly id: string;
  readonly layout: ColumnLayout;
  readonly height: number;
  readonly first: boolean;
  readonly gap: number;
  readonly head: ReactNode;
  /** What the row is, for people who do not see the chart. */
  readonly label: string;
  /** Columns where the row could go; kept small so that a full chart stays calm. */
  readonly could: readonly string[];
  readonly at: string | null;
  readonly mark: 'does' | 'locked' | 'clash';
  readonly focused: boolean;
  /** The column of the reading cursor, in the focused row only. */
  readonly column: string | null;
  /** Set in the focused row only. */
  readonly choices: ReadonlyMap<string, Choice> | null;
  readonly cellLabel: string;
  readonly onAct: (row: string, column: string) => void;
  /** The row's mark was dragged to a column. */
  readonly onDrop: (row: string, column: string) => void;
  readonly onFocus: (row: string) => void;
  readonly onHover: (row: string, column: string | null) => void;
}

const MARKS = { does: Disc, locked: LockedDisc, clash: ClashDisc };

function Choices({
  layout,
  choices,
  at,
  y,
}: {
  readonly layout: ColumnLayout;
  readonly choices: ReadonlyMap<string, Choice>;
  readonly at: string | null;
  readonly y: number;
}) {
  return [...choices].map(([id, choice]) => {
    const column = layout.byId.get(id);
    if (!column || id === at || choice === 'taken') return null;
    return choice === 'costs' ? <CostRing key={id} x={column.centre} y={y} /> : <Ring key={id} x={column.centre} y={y} />;
  });
}

interface HandleProps {
  readonly x: number;
  readonly y: number;
  readonly height: number;
  readonly width: number;
  readonly layout: ColumnLayout;
  readonly onDrop: (column: string) => void;
}

/** The disc as a handle: dragged along its row with mouse or finger, it shows where it would land. */
function Handle({ x, y, height, width, layout, onDrop }: HandleProps) {
  const [over, setOver] = useState<number | null>(null);
  const under = (event: PointerEvent<SVGRectElement>) =>
    columnAt(layout, event.clientX - event.currentTarget.ownerSVGElement!.getBoundingClientRect().left);
  return (
    <>
      {over !== null && over !== x && <circle cx={over} cy={y} r="5.6" className={styles.landing} />}
      <rect
        x={x - width / 2}
        y="0"
        width={width}
        height={height}
        className={styles.handle}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          setOver(x);
        }}
        onPointerMove={(event) => over !== null && setOver(under(event)?.centre ?? over)}
        onPointerUp={(event) => {
          const target = under(event);
          setOver(null);
          if (target && target.centre !== x) onDrop(target.id);
        }}
        onPointerCancel={() => setOver(null)}
        // A press without a move is a click on the cell; a drag is not.
        onClick={(event) => under(event as never)?.centre !== x && event.stopPropagation()}
      />
    </>
  );
}

/** One row of the chart: its head, its marks, and in the focused row the choices. */
export const HangRow = memo(function HangRow(props: HangRowProps) {
  const {
    id,
    layout,
    height,
    first,
    gap,
    head,
    label,
    could,
    at,
    mark,
    focused,
    column,
    choices,
    cellLabel,
    onAct,
    onDrop,
    onFocus,
    onHover,
  } = props;
  const y = height / 2;
  const Mark = MARKS[mark];
  const faint = could.filter((c) => c !== at && (!choices || choices.get(c) === 'taken')).flatMap((c) => layout.byId.get(c)?.centre ?? []);
  const here = at ? layout.byId.get(at) : undefined;
  const cursor = column ? layout.byId.get(column) : undefined;
  const columnOf = (event: MouseEvent<SVGSVGElement>) =>
    columnAt(layout, event.clientX - event.currentTarget.getBoundingClientRect().left)?.id ?? null;
  return (
    <div
      role="row"
      aria-label={label}
      aria-selected={focused}
      className={[styles.row, first ? styles.firstRow : '', focused ? styles.focusedRow : ''].join(' ')}
      style={{ height, marginTop: first ? gap : 0 }}
      data-row={id}
    >
      <div role="rowheader" className={styles.head} onClick={() => onFocus(id)}>
        {head}
      </div>
      <svg
        role="presentation"
        className={styles.cells}
        width={layout.width}
        height={height}
        onClick={(event) => {
          const target = columnOf(event);
          if (target) onAct(id, target);
        }}
        onMouseMove={(event) => onHover(id, columnOf(event))}
        onMouseLeave={() => onHover(id, null)}
      >
        {faint.length > 0 && <path d={ringPath(faint, y, 2)} className={styles.faint} />}
        {choices && <Choices layout={layout} choices={choices} at={at} y={y} />}
        {here && <Mark x={here.centre} y={y} />}
        {at && layout.columns.filter((c) => c.sameAs === at).map((c) => <Echo key={c.id} x={c.centre} y={y} />)}
        {here && (
          <Handle
            x={here.centre}
            y={y}
            height={height}
            width={layout.columnWidth}
            layout={layout}
            onDrop={(target) => onDrop(id, target)}
          />
        )}
        {cursor && (
          <g role="gridcell" id={`cell-${id}`} aria-label={cellLabel}>
            <rect x={cursor.left + 0.75} y={0.75} width={layout.columnWidth - 1.5} height={height - 1.5} rx="2" className={styles.cursor} />
          </g>
        )}
      </svg>
    </div>
  );
}, sameProps);
