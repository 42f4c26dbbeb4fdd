import { beforeFirst } from '@roof-chart/core/collections/orThrow';
/** Geometry of a chart in pixels; pure functions. */

export interface ChartColumn {
  readonly id: string;
  readonly label: string;
  /** Small text above the label: a position, a unit. */
  readonly over?: string;
  /** `open` columns take marks; `quiet` ones are only shown. */
  readonly tone: 'open' | 'quiet' | 'power';
  /** Another name of the same column: marks of that one are echoed here. */
  readonly sameAs?: string;
  /** The full name, for people who do not see the chart. */
  readonly title: string;
}

export interface ColumnBlock {
  readonly id: string;
  readonly title: string;
  readonly columns: readonly ChartColumn[];
}

export interface PlacedColumn extends ChartColumn {
  readonly left: number;
  readonly centre: number;
}

export interface ColumnLayout {
  readonly columns: readonly PlacedColumn[];
  readonly byId: ReadonlyMap<string, PlacedColumn>;
  readonly blocks: readonly { readonly id: string; readonly title: string; readonly left: number; readonly width: number }[];
  readonly columnWidth: number;
  readonly width: number;
}

/** Upper estimate of a character's width in a block title, in pixels. */
const LETTER = 6;

/** A block title that fits its block: in full, otherwise up to its first comma, otherwise truncated.
 *  @example fittingTitle('left edge, from the USB end', 98) // 'left edge' */
export function fittingTitle(title: string, width: number): string {
  const fits = (text: string) => text.length * LETTER <= width;
  const head = beforeFirst(title, ',');
  if (fits(title)) return title;
  return fits(head) ? head : `${head.slice(0, Math.max(1, Math.floor(width / LETTER) - 1))}…`;
}

/** Columns side by side, blocks with a gap between them. */
export function layoutColumns(blocks: readonly ColumnBlock[], columnWidth: number, gap: number): ColumnLayout {
  const columns: PlacedColumn[] = [];
  const placedBlocks: ColumnLayout['blocks'][number][] = [];
  let x = 0;
  for (const block of blocks) {
    if (block.columns.length === 0) continue;
    if (placedBlocks.length > 0) x += gap;
    placedBlocks.push({ id: block.id, title: block.title, left: x, width: block.columns.length * columnWidth });
    for (const column of block.columns) {
      columns.push({ ...column, left: x, centre: x + columnWidth / 2 });
      x += columnWidth;
    }
  }
  return { columns, byId: new Map(columns.map((c) => [c.id, c])), blocks: placedBlocks, columnWidth, width: x };
}

/** The column under an x in the field, or undefined in a gap. */
export function columnAt(layout: ColumnLayout, x: number): PlacedColumn | undefined {
  return layout.columns.find((column) => x >= column.left && x < column.left + layout.columnWidth);
}

export interface RowLayout {
  /** Middle of each row, by row id. */
  readonly centre: ReadonlyMap<string, number>;
  /** Heights of the lines between groups. */
  readonly rules: readonly number[];
  readonly height: number;
}

/** Rows one under another, a gap before each group but the first. */
export function layoutRows(groups: readonly (readonly string[])[], rowHeight: number, groupGap: number): RowLayout {
  const centre = new Map<string, number>();
  const rules: number[] = [];
  let y = 0;
  for (const [at, rows] of groups.entries()) {
    if (at > 0) {
      rules.push(y + groupGap / 2);
      y += groupGap;
    }
    for (const row of rows) {
      centre.set(row, y + rowHeight / 2);
      y += rowHeight;
    }
  }
  return { centre, rules, height: y };
}

/** The row at a height in the field, or undefined in a gap between groups. */
export function rowAt(rows: RowLayout, rowHeight: number, y: number): string | undefined {
  for (const [id, centre] of rows.centre) if (Math.abs(y - centre) <= rowHeight / 2) return id;
  return undefined;
}

/** A path of small rings, one at each x: one element instead of hundreds.
 *  @example ringPath([7], 10, 2) // 'M5 10a2 2 0 1 0 4 0a2 2 0 1 0 -4 0' */
export function ringPath(xs: readonly number[], y: number, radius: number): string {
  return xs.map((x) => `M${x - radius} ${y}a${radius} ${radius} 0 1 0 ${2 * radius} 0a${radius} ${radius} 0 1 0 ${-2 * radius} 0`).join('');
}
