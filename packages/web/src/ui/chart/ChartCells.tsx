import { orThrow } from '@roof-chart/core/collections/orThrow';
import { memo, type PointerEvent, useRef, useState } from 'react';
import styles from './SignalChart.module.css';
import { type ColumnLayout, columnAt } from './layout';
import { ClashDisc, Coming, CostRing, Disc, Echo, Leaving, LockedDisc, Ring } from './marks';
import { shallowEqual } from './shallowEqual';

/** What a column means for the focused row. */
export type Choice = 'free' | 'costs' | 'taken';

export interface ChartCellsProps {
  readonly id: string;
  readonly layout: ColumnLayout;
  /** Middle of the row. */
  readonly y: number;
  readonly height: number;
  readonly at: string | null;
  readonly mark: 'does' | 'locked' | 'clash';
  /** Where a proposal would put it, if anywhere else; null for nowhere. */
  readonly next?: string | null | undefined;
  /** Set in the focused row only. */
  readonly choices: ReadonlyMap<string, Choice> | null;
  readonly onDrop: (row: string, column: string) => void;
}

const MARKS = { does: Disc, locked: LockedDisc, clash: ClashDisc };

function Choices({
  layout,
  choices,
  at,
  y,
}: Pick<ChartCellsProps, 'layout' | 'at' | 'y'> & { readonly choices: ReadonlyMap<string, Choice> }) {
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
  readonly layout: ColumnLayout;
  readonly onDrop: (column: string) => void;
}

/** The disc as a handle: dragged along its row with mouse or finger, it shows where it would land. */
function Handle({ x, y, height, layout, onDrop }: HandleProps) {
  const [over, setOver] = useState<number | null>(null);
  const dropped = useRef(false);
  const under = (event: { readonly clientX: number; readonly currentTarget: SVGRectElement }) =>
    columnAt(layout, event.clientX - orThrow(event.currentTarget.ownerSVGElement, 'chart').getBoundingClientRect().left);
  return (
    <>
      {over !== null && over !== x && <circle cx={over} cy={y} r="5.6" className={styles.landing} />}
      <rect
        x={x - layout.columnWidth / 2}
        y={y - height / 2}
        width={layout.columnWidth}
        height={height}
        className={styles.handle}
        onPointerDown={(event: PointerEvent<SVGRectElement>) => {
          dropped.current = false;
          event.currentTarget.setPointerCapture(event.pointerId);
          setOver(x);
        }}
        onPointerMove={(event) => over !== null && setOver(under(event)?.centre ?? over)}
        onPointerUp={(event) => {
          const target = under(event);
          setOver(null);
          dropped.current = target?.centre !== x;
          if (target && dropped.current) onDrop(target.id);
        }}
        onPointerCancel={() => setOver(null)}
        // A press without a move is a click on the cell. A drag ends in a click, too, by then on the moved mark.
        onClick={(event) => dropped.current && event.stopPropagation()}
      />
    </>
  );
}

/** A wire that a proposal moves: where it would leave, where it would come, and the way between. */
function Proposed({ from, to, y }: { readonly from: number | undefined; readonly to: number | undefined; readonly y: number }) {
  return (
    <g>
      {from !== undefined && to !== undefined && <path d={`M${from} ${y}H${to}`} className={styles.proposed} />}
      {from !== undefined && <Leaving x={from} y={y} />}
      {to !== undefined && <Coming x={to} y={y} />}
    </g>
  );
}

/** The marks of one row. */
export const ChartCells = memo(function ChartCells({ id, layout, y, height, at, mark, next, choices, onDrop }: ChartCellsProps) {
  const Mark = MARKS[mark];
  const here = at ? layout.byId.get(at) : undefined;
  return (
    <g>
      {choices && <Choices layout={layout} choices={choices} at={at} y={y} />}
      {next === undefined || next === at ? (
        here && <Mark x={here.centre} y={y} />
      ) : (
        <Proposed from={here?.centre} to={next === null ? undefined : layout.byId.get(next)?.centre} y={y} />
      )}
      {at && layout.columns.filter((c) => c.sameAs === at).map((c) => <Echo key={c.id} x={c.centre} y={y} />)}
      {here && <Handle x={here.centre} y={y} height={height} layout={layout} onDrop={(target) => onDrop(id, target)} />}
    </g>
  );
}, shallowEqual);
