import { type ReactNode, useRef } from 'react';
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

interface HangScaleProps {
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

/** Rows under an axis of one quantity: addresses, ohms, time. The marks are those of the Chart. */
export function ScaleChart({ label, scale, rows, windows, total, headWidth = 190, width = 620, children }: HangScaleProps) {
  const heads = useRef<HTMLDivElement>(null);
  const { x, value } = placing(scale, width);
  const rowHeight = rows.some((row) => row.marks.some((mark) => mark.name !== undefined)) ? NAMED_ROW_HEIGHT : ROW_HEIGHT;
  const foot = total ? 22 : 4;
  const height = HEADER_HEIGHT + rows.length * rowHeight + foot;
  const yOf = (at: number) => HEADER_HEIGHT + at * rowHeight + rowHeight / 2;
  return (
    <div className={styles.scale} role="group" aria-label={label} style={{ gridTemplateColumns: `${headWidth}px ${width + 2 * PAD}px` }}>
      <div ref={heads} className={styles.heads} style={{ paddingTop: HEADER_HEIGHT }}>
        <span className={styles.save}>
          <SavePicture
            label={label}
            svg={() => {
              // A head may have several elements; its accessible name is its visible text.
              const words = [...(heads.current?.querySelectorAll('[data-head]') ?? [])].map((one) => one.textContent ?? '');
              return scaleSvg({ label, scale, rows: rows.map((row, at) => ({ ...row, head: words[at] ?? row.id })), windows, total });
            }}
          />
        </span>
        {rows.map((row) => (
          <div
            key={row.id}
            className={styles.head}
            style={{ height: rowHeight }}
            {...(row.step
              ? {
                  role: 'slider',
                  tabIndex: 0,
                  'aria-label': row.stepLabel,
                  'aria-valuetext': row.value,
                  'aria-valuenow': row.marks.find((m) => m.kind !== 'ring')?.at ?? scale.min,
                  'aria-valuemin': scale.min,
                  'aria-valuemax': scale.max,
                  onKeyDown: (event) => {
                    const by =
                      event.key === 'ArrowRight' || event.key === 'ArrowUp'
                        ? 1
                        : event.key === 'ArrowLeft' || event.key === 'ArrowDown'
                          ? -1
                          : 0;
                    if (by === 0) return;
                    event.preventDefault();
                    row.step?.(by);
                  },
                }
              : {})}
          >
            <span className={styles.name} data-head>
              {row.head}
            </span>
            <span className={styles.value}>{row.value}</span>
          </div>
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
          <g key={`${one.from}-${one.to}-${one.tone}`}>
            <rect
              className={styles[one.tone]}
              x={x(one.from)}
              width={Math.max(0, x(one.to) - x(one.from))}
              y={HEADER_HEIGHT}
              height={height - HEADER_HEIGHT}
            />
            {one.fromLabel && (
              <text
                className={styles.note}
                x={x(one.from) + (x(one.from) > LABEL ? -4 : 3)}
                y={height - 6}
                textAnchor={x(one.from) > LABEL ? 'end' : 'start'}
              >
                {one.fromLabel}
              </text>
            )}
            {one.toLabel && (
              <text
                className={styles.note}
                x={x(one.to) + (width - x(one.to) > LABEL ? 4 : -3)}
                y={height - 6}
                textAnchor={width - x(one.to) > LABEL ? 'start' : 'end'}
              >
                {one.toLabel}
              </text>
            )}
          </g>
        ))}
        {scale.ticks.map(({ at, label: text }) => (
          <g key={at}>
            <line className={styles.tick} x1={x(at)} x2={x(at)} y1={text ? 16 : 20} y2={HEADER_HEIGHT} />
            {text && (
              <text className={styles.tickLabel} x={x(at)} y={12} textAnchor="middle">
                {text}
              </text>
            )}
          </g>
        ))}
        <line className={styles.roof} x1={0} x2={width} y1={HEADER_HEIGHT} y2={HEADER_HEIGHT} />
        {rows.map((row, at) => (
          <g key={row.id}>
            <line
              className={styles.rule}
              x1={0}
              x2={width}
              y1={HEADER_HEIGHT + (at + 1) * rowHeight}
              y2={HEADER_HEIGHT + (at + 1) * rowHeight}
            />
            {row.hung &&
              row.marks
                .filter((mark) => mark.kind === 'disc' || mark.kind === 'clash')
                .map((mark) => (
                  <line
                    key={mark.at}
                    className={mark.kind === 'clash' ? styles.lineBad : styles.line}
                    x1={x(mark.at)}
                    x2={x(mark.at)}
                    y1={HEADER_HEIGHT}
                    y2={yOf(at)}
                  />
                ))}
            {row.marks.map((mark) => (
              <g
                key={`${mark.kind}${mark.at}`}
                className={row.onMark && mark.kind === 'ring' ? styles.choice : undefined}
                onClick={() => mark.kind === 'ring' && row.onMark?.(mark.at)}
              >
                <Mark mark={mark} x={x} y={yOf(at)} />
              </g>
            ))}
          </g>
        ))}
        {total && (
          <>
            <line className={styles[total.tone]} x1={x(total.at)} x2={x(total.at)} y1={HEADER_HEIGHT} y2={height - 4} />
            <text
              className={styles[`${total.tone}Words`]}
              x={x(total.at) + (x(total.at) > width / 2 ? -6 : 6)}
              y={height - 18}
              textAnchor={x(total.at) > width / 2 ? 'end' : 'start'}
            >
              {total.words}
            </text>
          </>
        )}
        {children?.(x, value)}
      </svg>
    </div>
  );
}
