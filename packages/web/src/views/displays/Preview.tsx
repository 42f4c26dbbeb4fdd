import type { Cell } from '@roof-chart/core/displays/glyphs';
import { LETTER, type Layout, layoutText } from '@roof-chart/core/displays/layout';
import type { Readout } from '@roof-chart/core/plan/plan';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import styles from './Displays.module.css';

/** Where the seven segments of a digit lie in a box of 24 × 40, in the order of the bits: a to g, the point. */
const SEGMENT_LINES = [
  [5, 3, 17, 3],
  [18, 4, 18, 18],
  [18, 21, 18, 36],
  [5, 37, 17, 37],
  [4, 21, 4, 36],
  [4, 4, 4, 18],
  [5, 19.5, 17, 19.5],
] as const;

function Digit({ cell, x }: { readonly cell: Cell | undefined; readonly x: number }) {
  const lit = cell?.segments ?? 0;
  return (
    <g transform={`translate(${x} 4)`}>
      {SEGMENT_LINES.map(([x1, y1, x2, y2], bit) => (
        <line key={bit} x1={x1} y1={y1} x2={x2} y2={y2} className={lit & (1 << bit) ? styles.lit : styles.unlit} />
      ))}
      <circle cx={23} cy={37} r={2} className={lit & 0x80 ? styles.litPoint : styles.unlitPoint} />
      {cell?.colon && (
        <>
          <circle cx={26} cy={14} r={2} className={styles.litPoint} />
          <circle cx={26} cy={26} r={2} className={styles.litPoint} />
        </>
      )}
      {cell && !cell.shown && (
        <text x={11} y={25} textAnchor="middle" className={styles.cannot}>
          {cell.text}
        </text>
      )}
    </g>
  );
}

interface Box {
  readonly width: number;
  readonly height: number;
}

/** A custom character, dot by dot. */
function OwnDots({ dots, x, y, cell }: { readonly dots: readonly number[]; readonly x: number; readonly y: number; readonly cell: Box }) {
  const size = Math.min(cell.width / 6, cell.height / 9);
  return (
    <g transform={`translate(${x + size / 2} ${y + size / 2})`}>
      {dots.flatMap((value, row) =>
        [4, 3, 2, 1, 0].map(
          (bit, column) =>
            (value & (1 << bit)) !== 0 && (
              <rect
                key={`${row} ${bit}`}
                className={styles.letter}
                x={column * size}
                y={row * size}
                width={size * 0.9}
                height={size * 0.9}
              />
            ),
        ),
      )}
    </g>
  );
}

/** Characters in cells; unavailable ones are struck out. */
function Letters({
  layout,
  cell,
  left,
  glyphs = {},
}: {
  readonly layout: Layout;
  readonly cell: { readonly width: number; readonly height: number };
  readonly left: (row: number) => number;
  readonly glyphs?: Readout['glyphs'];
}) {
  return (
    <>
      {layout.lines.map((line, row) =>
        line.map((one, at) => {
          const own = glyphs[one.text];
          const x = left(row) + at * cell.width;
          if (own) return <OwnDots key={`${row} ${at}`} dots={own} x={x} y={(layout.first + row) * cell.height} cell={cell} />;
          return (
            <text
              key={`${row} ${at}`}
              x={x + cell.width / 2}
              y={(layout.first + row + 0.78) * cell.height}
              textAnchor="middle"
              fontSize={cell.height * 0.86}
              className={one.shown ? styles.letter : styles.cannot}
            >
              {one.text}
            </text>
          );
        }),
      )}
    </>
  );
}

interface PreviewProps {
  readonly part: PartSheet;
  readonly readout: Readout;
  readonly name: string;
  /** Of a running text: how many columns of it have come in. */
  readonly step: number;
}

interface GlassProps {
  readonly layout: Layout;
  readonly glass: NonNullable<PartSheet['readout']>;
  readonly readout: Readout;
  readonly label: string;
  /** Columns from the left at which a running text begins. */
  readonly shift: number;
}

function CharacterGlass({ layout, glass: { columns, rows }, readout, label, shift }: GlassProps) {
  const cell = { width: 15, height: 24 };
  return (
    <svg className={styles.glass} width={columns * cell.width + 8} height={rows * cell.height + 8} role="img" aria-label={label}>
      <g transform="translate(4 4)">
        {Array.from({ length: rows * columns }, (_, n) => (
          <rect
            key={n}
            className={styles.box}
            x={(n % columns) * cell.width + 0.5}
            y={Math.floor(n / columns) * cell.height + 0.5}
            width={cell.width - 1}
            height={cell.height - 1}
          />
        ))}
        <Letters layout={layout} cell={cell} left={() => shift * cell.width} glyphs={readout.glyphs} />
      </g>
    </svg>
  );
}

function PixelGlass({ layout, glass: { columns, rows, shape }, readout, label, shift }: GlassProps) {
  const scale = readout.scale ?? 1;
  const round = shape === 'round';
  const zoom = Math.min(12, 300 / columns, 240 / rows);
  const cell = { width: LETTER.width * scale, height: LETTER.height * scale };
  const top = round ? (rows - layout.rows * cell.height) / 2 : 0;
  const left = (row: number) => (round ? (columns - (layout.lines[row]?.length ?? 0) * cell.width) / 2 : shift);
  return (
    <svg
      className={styles.bare}
      width={columns * zoom}
      height={rows * zoom}
      viewBox={`0 0 ${columns} ${rows}`}
      role="img"
      aria-label={label}
    >
      {round ? (
        <circle cx={columns / 2} cy={rows / 2} r={columns / 2 - 0.5} className={styles.face} />
      ) : (
        <rect x={0.5} y={0.5} width={columns - 1} height={rows - 1} className={styles.face} />
      )}
      <g transform={`translate(0 ${top})`}>
        <Letters layout={layout} cell={cell} left={left} />
      </g>
    </svg>
  );
}

/** A display with its text in its real columns and rows, unavailable characters marked. */
export function Preview({ part, readout, name, step }: PreviewProps) {
  const layout = layoutText(part, readout);
  if (!layout || !part.readout) return null;
  const { columns, unit, shape } = part.readout;
  const label = `${name} shows: ${layout.lines.map((line) => line.map((cell) => cell.text).join('')).join(' / ') || 'nothing'}`;
  // A running text comes in from the right.
  const shift = layout.scroll ? columns - step : 0;
  if (unit === 'digits' && shape !== 'fourteen segments')
    return (
      <svg className={styles.glass} width={columns * 28 + 12} height={50} role="img" aria-label={label}>
        {Array.from({ length: columns }, (_, at) => (
          <Digit key={at} cell={layout.lines[0]?.[at - shift]} x={8 + at * 28} />
        ))}
      </svg>
    );
  const drawn = { layout, glass: part.readout, readout, label, shift };
  return unit === 'pixels' ? <PixelGlass {...drawn} /> : <CharacterGlass {...drawn} />;
}
