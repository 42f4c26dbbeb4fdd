import { type KeyboardEvent, type ReactNode, useRef } from 'react';
import { SavePicture } from '../SavePicture';
import { ClashDisc, Disc, Ring } from './marks';
import styles from './ScaleChart.module.css';
import { NAME_ABOVE, NAME_BELOW, NAMED_ROW_HEIGHT, placing, ROW_HEIGHT, type Scale } from './placing';
import { scaleSvg } from './scaleSvg';

interface ScaleMark {
  readonly at: number;
  readonly kind: 'ring' | 'disc' | 'clash' | 'also';
  /** Where a mark is an interval: a line from here to there through the mark. */
  readonly from?: number;
  readonly to?: number;
  /** What the value is called, in small above or below its mark. */
  readonly name?: string;
  readonly nameBelow?: true;
}

export interface ScaleRow {
  readonly id: string;
  readonly head: ReactNode;
  readonly value: string;
  readonly marks: readonly ScaleMark[];
  /** Draws a line from the roof down to its disc. */
  readonly hung?: boolean;
  /** Steps through its values by arrow keys, as a slider. */
  readonly step?: (by: 1 | -1) => void;
  readonly stepLabel?: string;
  readonly onMark?: (at: number) => void;
}

export interface ScaleWindow {
  readonly from: number;
  readonly to: number;
  readonly tone: 'good' | 'quiet' | 'clash';
  readonly fromLabel?: string;
  readonly toLabel?: string;
}

interface ScaleChartProps {
  readonly label: string;
  readonly scale: Scale;
  readonly rows: readonly ScaleRow[];
  readonly windows: readonly ScaleWindow[];
  /** A line over all rows with words at its foot. */
  readonly total?: { readonly at: number; readonly words: string; readonly tone: 'good' | 'risky' };
  readonly headWidth?: number;
  readonly width?: number;
  readonly children?: (x: (value: number) => number, value: (x: number) => number) => ReactNode;
}

/** Room for the labels of the first and last tick. */
export const PAD = 18;
export const HEADER_HEIGHT = 26;
/** Room for the words at an edge of a window, beside it where there is so much. */
const LABEL = 110;

function Mark({ mark, x, y }: { readonly mark: ScaleMark; readonly x: (value: number) => number; readonly y: number }) {
  const at = x(mark.at);
  return (
    <>
      {mark.from !== undefined && mark.to !== undefined && <line className={styles.span} x1={x(mark.from)} x2={x(mark.to)} y1={y} y2={y} />}
      {mark.kind === 'disc' && <Disc x={at} y={y} />}
      {mark.kind === 'clash' && <ClashDisc x={at} y={y} />}
      {mark.kind === 'ring' && <Ring x={at} y={y} />}
      {mark.kind === 'also' && (
        <path className={styles.also} d={`M${at - 3} ${y - 3}L${at + 3} ${y + 3}M${at - 3} ${y + 3}L${at + 3} ${y - 3}`} />
      )}
      {mark.name !== undefined && (
        <text className={styles.markName} x={at} y={y + (mark.nameBelow ? NAME_BELOW : NAME_ABOVE)} textAnchor="middle">
          {mark.name}
        </text>
      )}
    </>
  );
}

/** Where things are in the picture. */
interface Places {
  readonly x: (value: number) => number;
  readonly width: number;
  readonly height: number;
  readonly rowHeight: number;
}

/** The arrow keys of a row that is a slider. */
function onSliderKey(event: KeyboardEvent, step: (by: 1 | -1) => void): void {
  const isUp = event.key === 'ArrowRight' || event.key === 'ArrowUp';
  const isDown = event.key === 'ArrowLeft' || event.key === 'ArrowDown';
  if (!isUp && !isDown) return;
  event.preventDefault();
  step(isUp ? 1 : -1);
}

function Head({ row, scale, height }: { readonly row: ScaleRow; readonly scale: Scale; readonly height: number }) {
  const { step } = row;
  const slider = step && {
    role: 'slider',
    tabIndex: 0,
    'aria-label': row.stepLabel,
    'aria-valuetext': row.value,
    'aria-valuenow': row.marks.find((m) => m.kind !== 'ring')?.at ?? scale.min,
    'aria-valuemin': scale.min,
    'aria-valuemax': scale.max,
    onKeyDown: (event: KeyboardEvent) => onSliderKey(event, step),
  };
  return (
    <div className={styles.head} style={{ height }} {...slider}>
      <span className={styles.name} data-head>
        {row.head}
      </span>
      <span className={styles.value}>{row.value}</span>
    </div>
  );
}

/** Words at an edge of a window: outside of it where there is room, else inside. */
function EdgeNote({ at, isOutside, side, y, words }: EdgeNoteProps) {
  const isLeft = (side === 'from') === isOutside;
  const gap = isOutside ? 4 : 3;
  return (
    <text className={styles.note} x={at + (isLeft ? -gap : gap)} y={y} textAnchor={isLeft ? 'end' : 'start'}>
      {words}
    </text>
  );
}

interface EdgeNoteProps {
  readonly at: number;
  readonly isOutside: boolean;
  readonly side: 'from' | 'to';
  readonly y: number;
  readonly words: string;
}

function Window({ window: { from, to, tone, fromLabel, toLabel }, places }: { readonly window: ScaleWindow; readonly places: Places }) {
  const { x, width, height } = places;
  const [left, right] = [x(from), x(to)];
  return (
    <g>
      <rect className={styles[tone]} x={left} width={Math.max(0, right - left)} y={HEADER_HEIGHT} height={height - HEADER_HEIGHT} />
      {fromLabel && <EdgeNote at={left} isOutside={left > LABEL} side="from" y={height - 6} words={fromLabel} />}
      {toLabel && <EdgeNote at={right} isOutside={width - right > LABEL} side="to" y={height - 6} words={toLabel} />}
    </g>
  );
}

/** The ticks of the scale with their labels, and the line above all rows. */
function Axis({ scale, places: { x, width } }: { readonly scale: Scale; readonly places: Places }) {
  return (
    <>
      {scale.ticks.map(({ at, label }) => {
        // The last label ends where the picture does.
        const isLast = at === scale.max;
        return (
          <g key={at}>
            <line className={styles.tick} x1={x(at)} x2={x(at)} y1={label ? 16 : 20} y2={HEADER_HEIGHT} />
            {label && (
              <text className={styles.tickLabel} x={isLast ? width + PAD : x(at)} y={12} textAnchor={isLast ? 'end' : 'middle'}>
                {label}
              </text>
            )}
          </g>
        );
      })}
      <line className={styles.roof} x1={0} x2={width} y1={HEADER_HEIGHT} y2={HEADER_HEIGHT} />
    </>
  );
}

function Row({ row, at, places: { x, width, rowHeight } }: { readonly row: ScaleRow; readonly at: number; readonly places: Places }) {
  const y = HEADER_HEIGHT + at * rowHeight + rowHeight / 2;
  const below = HEADER_HEIGHT + (at + 1) * rowHeight;
  const hung = row.hung ? row.marks.filter((mark) => mark.kind === 'disc' || mark.kind === 'clash') : [];
  return (
    <g>
      <line className={styles.rule} x1={0} x2={width} y1={below} y2={below} />
      {hung.map((mark) => (
        <line
          key={mark.at}
          className={mark.kind === 'clash' ? styles.lineBad : styles.line}
          x1={x(mark.at)}
          x2={x(mark.at)}
          y1={HEADER_HEIGHT}
          y2={y}
        />
      ))}
      {row.marks.map((mark) => (
        <g
          key={`${mark.kind}${mark.at}`}
          className={row.onMark && mark.kind === 'ring' ? styles.choice : undefined}
          onClick={() => mark.kind === 'ring' && row.onMark?.(mark.at)}
        >
          <Mark mark={mark} x={x} y={y} />
        </g>
      ))}
    </g>
  );
}

type Total = NonNullable<ScaleChartProps['total']>;

function TotalLine({ total: { at, words, tone }, places: { x, width, height } }: { readonly total: Total; readonly places: Places }) {
  const isRight = x(at) > width / 2;
  return (
    <>
      <line className={styles[tone]} x1={x(at)} x2={x(at)} y1={HEADER_HEIGHT} y2={height - 4} />
      <text className={styles[`${tone}Words`]} x={x(at) + (isRight ? -6 : 6)} y={height - 18} textAnchor={isRight ? 'end' : 'start'}>
        {words}
      </text>
    </>
  );
}

/** Rows under an axis of one quantity: addresses, ohms, time. The marks are those of the Chart. */
export function ScaleChart({ label, scale, rows, windows, total, headWidth = 190, width = 620, children }: ScaleChartProps) {
  const heads = useRef<HTMLDivElement>(null);
  const { x, value } = placing(scale, width);
  const rowHeight = rows.some((row) => row.marks.some((mark) => mark.name !== undefined)) ? NAMED_ROW_HEIGHT : ROW_HEIGHT;
  const height = HEADER_HEIGHT + rows.length * rowHeight + (total ? 22 : 4);
  const places: Places = { x, width, height, rowHeight };
  const svg = () => {
    // A head may have several elements; its accessible name is its visible text.
    const words = [...(heads.current?.querySelectorAll('[data-head]') ?? [])].map((one) => one.textContent ?? '');
    return scaleSvg({ label, scale, rows: rows.map((row, at) => ({ ...row, head: words[at] ?? row.id })), windows, total });
  };
  return (
    <div className={styles.scale} role="group" aria-label={label} style={{ gridTemplateColumns: `${headWidth}px ${width + 2 * PAD}px` }}>
      <div ref={heads} className={styles.heads} style={{ paddingTop: HEADER_HEIGHT }}>
        <span className={styles.save}>
          <SavePicture label={label} svg={svg} />
        </span>
        {rows.map((row) => (
          <Head key={row.id} row={row} scale={scale} height={rowHeight} />
        ))}
      </div>
      <svg
        className={styles.field}
        width={width + 2 * PAD}
        height={height}
        viewBox={`${-PAD} 0 ${width + 2 * PAD} ${height}`}
        aria-hidden={!children}
      >
        {windows.map((one) => (
          <Window key={`${one.from}-${one.to}-${one.tone}`} window={one} places={places} />
        ))}
        <Axis scale={scale} places={places} />
        {rows.map((row, at) => (
          <Row key={row.id} row={row} at={at} places={places} />
        ))}
        {total && <TotalLine total={total} places={places} />}
        {children?.(x, value)}
      </svg>
    </div>
  );
}
