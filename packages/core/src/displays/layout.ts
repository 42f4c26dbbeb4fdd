import type { Readout } from '../plan/plan';
import type { PartSheet } from '../sheets/partSheet';
import { type Cell, digitCells, hasCharacter, starburstCells } from './glyphs';

/** Character cell of the smallest common font, in pixels. */
export const LETTER = { width: 6, height: 8 } as const;

/** Text as a display shows it. */
export interface Layout {
  readonly columns: number;
  readonly rows: number;
  /** The rows that have something, as far as they are seen. */
  readonly lines: readonly (readonly Cell[])[];
  /** The row of the first line: on a round display text is centred vertically. */
  readonly first: number;
  /** Characters that do not fit: beyond their row, and rows below the last. */
  readonly cut: number;
  /** What the display cannot show, each once. */
  readonly unknown: readonly string[];
  /** The text runs through the display: how many columns it is wide, and how many steps until it has gone by. */
  readonly scroll?: { readonly width: number; readonly steps: number };
  /** A text scale is set, but the display has a fixed font. */
  readonly oneFont: boolean;
}

interface Grid {
  readonly columns: number;
  readonly rows: number;
  readonly cells: (line: string) => readonly Cell[];
}

const plain =
  (has: (character: string) => boolean) =>
  (line: string): readonly Cell[] =>
    [...line].map((text) => ({ text, shown: has(text) }));

type Glyphs = NonNullable<Readout['glyphs']>;

/** Capacity in characters and available characters, by kind of display. */
function gridOf(part: PartSheet, scale: number, own: Glyphs): Grid | undefined {
  const { readout } = part;
  if (!readout) return undefined;
  const { columns, rows } = readout;
  if (readout.unit === 'digits')
    return {
      columns,
      rows,
      cells: readout.shape === 'fourteen segments' ? starburstCells : (line) => digitCells(line, own, readout.colons),
    };
  if (readout.unit === 'characters')
    return { columns, rows, cells: plain((character) => own[character] !== undefined || hasCharacter(character)) };
  return {
    columns: Math.floor(columns / (LETTER.width * scale)),
    rows: Math.floor(rows / (LETTER.height * scale)),
    cells: plain((character) => character >= ' ' && character <= '~'),
  };
}

/** Text laid out on the real geometry of a display; undefined for parts that show none. Round glass shows less at its edges: each row is as
 *  long as the glass is wide there. */
export function layoutText(part: PartSheet, readout: Readout): Layout | undefined {
  let of = layouts.get(readout);
  if (!of) layouts.set(readout, (of = new WeakMap()));
  let found = of.get(part);
  if (!found) of.set(part, (found = { layout: layoutOf(part, readout) }));
  return found.layout;
}

/** A plan and its trials have the same readouts: each is laid out once. */
const layouts = new WeakMap<Readout, WeakMap<PartSheet, { readonly layout: Layout | undefined }>>();

/** What of a cell cannot be shown: of a digit with a colon that is not there the colon alone. */
const lacking = ({ shown, text, segments }: Cell): readonly string[] =>
  shown ? [] : text.endsWith(':') && segments !== undefined ? [':'] : [text];

function layoutOf(part: PartSheet, { text = '', scale = 1, scroll, glyphs = {} }: Readout): Layout | undefined {
  const grid = gridOf(part, scale, glyphs);
  const display = part.readout;
  if (!grid || !display) return undefined;
  const lines = text === '' ? [] : text.split('\n').map(grid.cells);
  const round = display.shape === 'round';
  const width = (row: number) => (round ? roundColumns(display.columns, scale, row, grid.rows) : grid.columns);
  const first = round ? Math.max(0, Math.floor((grid.rows - lines.length) / 2)) : 0;
  const longest = Math.max(0, ...lines.map((line) => line.length));
  const runs = scroll === true && !round && longest > grid.columns;
  const step = display.unit === 'pixels' ? LETTER.width * scale : 1;
  const seen = runs ? lines.slice(0, grid.rows) : lines.slice(0, grid.rows).map((cells, row) => cells.slice(0, width(first + row)));
  const count = (list: readonly (readonly Cell[])[]) => list.reduce((sum, line) => sum + line.length, 0);
  return {
    columns: grid.columns,
    rows: grid.rows,
    lines: seen,
    first,
    cut: count(lines) - count(seen),
    oneFont: display.unit !== 'pixels' && scale > 1,
    ...(runs ? { scroll: { width: longest * step, steps: longest * step + display.columns } } : {}),
    unknown: [...new Set(lines.flat().flatMap(lacking))],
  };
}

/** Characters fully visible in a row of a round display: the chord at the row edge farther from the centre.
 *  @param diameter of the display, in pixels */
export function roundColumns(diameter: number, scale: number, row: number, rows: number): number {
  const radius = diameter / 2;
  const height = LETTER.height * scale;
  const top = (diameter - rows * height) / 2 + row * height;
  const far = Math.max(Math.abs(top - radius), Math.abs(top + height - radius));
  return far >= radius ? 0 : Math.floor((2 * Math.sqrt(radius ** 2 - far ** 2)) / (LETTER.width * scale));
}
