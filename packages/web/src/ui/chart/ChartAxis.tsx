import { memo } from 'react';
import styles from './SignalChart.module.css';
import { fittingTitle, type ColumnLayout } from './layout';

export interface AxisBracket {
  readonly id: string;
  readonly label: string;
  readonly columns: readonly string[];
  /** Drawn solid: in use. Otherwise faint: a choice. */
  readonly chosen: boolean;
}

interface HangAxisProps {
  readonly layout: ColumnLayout;
  readonly brackets: readonly AxisBracket[];
  readonly clashes: ReadonlySet<string>;
  readonly column: string | null;
  readonly onColumn: (id: string) => void;
}

export const AXIS_HEIGHT = 118;
const BRACKET_Y = 40;
const LABEL_Y = 110;

interface PlacedBracket extends AxisBracket {
  readonly from: number;
  readonly to: number;
}

/** Chosen brackets first, then the faint ones that lie beside them: brackets never cover each other. */
function placeBrackets(layout: ColumnLayout, brackets: readonly AxisBracket[]): readonly PlacedBracket[] {
  const placed: PlacedBracket[] = [];
  for (const bracket of [...brackets].sort((a, b) => Number(b.chosen) - Number(a.chosen))) {
    const xs = bracket.columns.flatMap((id) => layout.byId.get(id)?.centre ?? []);
    if (xs.length === 0) continue;
    const [from, to] = [Math.min(...xs) - 4, Math.max(...xs) + 4];
    if (placed.some((other) => from < other.to + 2 && to > other.from - 2)) continue;
    placed.push({ ...bracket, from, to });
  }
  return placed;
}

function Bracket({ bracket }: { readonly bracket: PlacedBracket }) {
  const { from, to } = bracket;
  return (
    <g className={bracket.chosen ? styles.chosenBracket : styles.bracket}>
      <path d={`M${from} ${BRACKET_Y + 5}V${BRACKET_Y}H${to}V${BRACKET_Y + 5}`} />
      <text x={(from + to) / 2} y={BRACKET_Y - 3.5}>
        {bracket.label}
      </text>
    </g>
  );
}

/** The axis: block titles, brackets, positions, labels, and the baseline. */
export const ChartAxis = memo(function HangAxis({ layout, brackets, clashes, column, onColumn }: HangAxisProps) {
  return (
    <svg className={styles.axis} width={layout.width} height={AXIS_HEIGHT} role="presentation">
      {layout.blocks.map((block) => (
        <text key={block.id} x={block.left} y="13" className={styles.blockTitle}>
          {fittingTitle(block.title, block.width)}
        </text>
      ))}
      {placeBrackets(layout, brackets).map((bracket) => (
        <Bracket key={bracket.id} bracket={bracket} />
      ))}
      {layout.columns.map((c) => (
        <g
          key={c.id}
          role="columnheader"
          aria-label={clashes.has(c.id) ? `${c.title}, error` : c.title}
          onClick={() => onColumn(c.id)}
          className={styles.columnHead}
        >
          <rect
            x={c.left}
            y={46}
            width={layout.columnWidth}
            height={AXIS_HEIGHT - 46}
            className={headTone(c.tone, clashes.has(c.id), column === c.id)}
          />
          {c.over && (
            <text x={c.centre} y={56} className={styles.over}>
              {c.over}
            </text>
          )}
          <text
            transform={`translate(${c.centre + 3.6} ${LABEL_Y}) rotate(-90)`}
            className={clashes.has(c.id) ? styles.clashLabel : c.tone === 'open' ? styles.label : styles.quietLabel}
          >
            {c.label}
          </text>
          <title>{c.title}</title>
        </g>
      ))}
      {layout.blocks.map((block) => (
        <rect key={block.id} x={block.left} y={AXIS_HEIGHT - 3} width={block.width} height="3" fill="var(--ink)" />
      ))}
    </svg>
  );
});

function headTone(tone: string, clash: boolean, focused: boolean): string | undefined {
  if (clash) return styles.clashColumn;
  if (focused) return styles.focusColumn;
  return tone === 'open' ? styles.openColumn : styles.quietColumn;
}
