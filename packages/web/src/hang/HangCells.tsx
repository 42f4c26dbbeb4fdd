import { memo, type PointerEvent, useRef, useState } from 'react';
import styles from './HangChart.module.css';
import { type ColumnLayout, columnAt } from './layout';
import { ClashDisc, CostRing, Disc, Echo, LockedDisc, Ring } from './marks';
import { sameProps } from './sameProps';

/** What a column means for the focused row. */
export type Choice = 'free' | 'costs' | 'taken';

export interface HangCellsProps {
  readonly id: string;
  readonly layout: ColumnLayout;
  /** Middle of the row. */
  readonly y: number;
  readonly height: number;
  readonly at: string | null;
  readonly mark: 'does' | 'locked' | 'clash';
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
}: Pick<HangCellsProps, 'layout' | 'at' | 'y'> & { readonly choices: ReadonlyMap<string, Choice> }) {
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
    columnAt(layout, event.clientX - event.currentTarget.ownerSVGElement!.getBoundingClientRect().left);
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

/** The marks of one row. */
export const HangCells = memo(function HangCells({ id, layout, y, height, at, mark, choices, onDrop }: HangCellsProps) {
  const Mark = MARKS[mark];
  const here = at ? layout.byId.get(at) : undefined;
  return (
    <g>
      {choices && <Choices layout={layout} choices={choices} at={at} y={y} />}
      {here && <Mark x={here.centre} y={y} />}
      {at && layout.columns.filter((c) => c.sameAs === at).map((c) => <Echo key={c.id} x={c.centre} y={y} />)}
      {here && <Handle x={here.centre} y={y} height={height} layout={layout} onDrop={(target) => onDrop(id, target)} />}
    </g>
  );
}, sameProps);
