/** Segments of a digit, bit 0 to bit 7: a (top), b, c (right), d (bottom), e, f (left), g (middle), the point. */
export const SEGMENTS = ['a', 'b', 'c', 'd', 'e', 'f', 'g', 'dp'] as const;

/** What seven segments show, as bits of `SEGMENTS`; letters in their most legible form. */
const SEVEN: { readonly [glyph: string]: number } = {
  '0': 0x3f,
  '1': 0x06,
  '2': 0x5b,
  '3': 0x4f,
  '4': 0x66,
  '5': 0x6d,
  '6': 0x7d,
  '7': 0x07,
  '8': 0x7f,
  '9': 0x6f,
  A: 0x77,
  b: 0x7c,
  C: 0x39,
  c: 0x58,
  d: 0x5e,
  E: 0x79,
  F: 0x71,
  G: 0x3d,
  H: 0x76,
  h: 0x74,
  I: 0x06,
  i: 0x04,
  J: 0x1e,
  L: 0x38,
  n: 0x54,
  O: 0x3f,
  o: 0x5c,
  P: 0x73,
  q: 0x67,
  r: 0x50,
  S: 0x6d,
  t: 0x78,
  U: 0x3e,
  u: 0x1c,
  y: 0x6e,
  Z: 0x5b,
  '-': 0x40,
  _: 0x08,
  '=': 0x48,
  '°': 0x63,
  ' ': 0x00,
  "'": 0x20,
  '"': 0x22,
  '?': 0x53,
};
const POINT = 0x80;

/** The segments of a character: as it is, else in its other case; undefined where seven segments cannot show it.
 *  @example sevenSegments('B') // 0x7c: as b */
export function sevenSegments(character: string): number | undefined {
  return SEVEN[character] ?? SEVEN[character.toLowerCase()] ?? SEVEN[character.toUpperCase()];
}

/** A cell of a display: what is meant, and whether it can be shown. */
export interface Cell {
  readonly text: string;
  readonly segments?: number;
  /** The colon after this digit is lit. */
  readonly colon?: true;
  readonly shown: boolean;
}

/** Text on digits: a decimal point or colon belongs to the digit before it.
 *  @param own custom characters, as bits of `SEGMENTS`
 *  @param colons the digits that have a colon after them, from 1
 *  @example digitCells('12:34', {}, [2]).length // 4 */
export function digitCells(
  text: string,
  own: { readonly [character: string]: readonly number[] } = {},
  colons: readonly number[] = [],
): readonly Cell[] {
  const cells: Cell[] = [];
  for (const character of text) {
    const last = cells.at(-1);
    if (character === ':' && own[character] === undefined && last && !last.text.includes(':')) {
      const there = colons.includes(cells.length);
      const with_ = { ...last, text: `${last.text}:` };
      cells[cells.length - 1] = there ? { ...with_, colon: true } : { ...with_, shown: false };
      continue;
    }
    const point = own[character] === undefined && (character === '.' || character === ',');
    if (point && last && ((last.segments ?? 0) & POINT) === 0) {
      cells[cells.length - 1] = { ...last, text: `${last.text}.`, segments: (last.segments ?? 0) | POINT };
      continue;
    }
    const segments = own[character]?.[0] ?? (point ? POINT : sevenSegments(character));
    cells.push({ text: character, shown: segments !== undefined, ...(segments === undefined ? {} : { segments }) });
  }
  return cells;
}

/** What ROM A00 of the HD44780 has beyond ASCII (datasheet, table 4), and signs that people write for the same character. */
const ROM_A00 = new Set('°→←¥·äßβεµμσρ√¢ñöθ∞ΩΩüΣπ÷█');

/** Whether a character display of the usual kind (HD44780, ROM A00) has a character: ASCII but for two, half-width katakana, and
 *  some Greek and accented letters. */
export const hasCharacter = (character: string): boolean =>
  (character >= ' ' && character <= '}' && character !== '\\') ||
  (character >= '\uff61' && character <= '\uff9f') ||
  ROM_A00.has(character);

/** As `digitCells`, on fourteen segments with a point each. */
export function starburstCells(text: string): readonly Cell[] {
  const cells: Cell[] = [];
  for (const character of text) {
    const last = cells.at(-1);
    if ((character === '.' || character === ',') && last && !/[.,]$/.test(last.text))
      cells[cells.length - 1] = { ...last, text: `${last.text}.` };
    else cells.push({ text: character, shown: hasFourteen(character) });
  }
  return cells;
}

/** Fourteen segments show capitals, digits and common symbols, lower case as capitals. */
export const hasFourteen = (character: string): boolean => /^[A-Za-z0-9 .,\-+*/\\_=<>()'"$%&?!|°]$/.test(character);
