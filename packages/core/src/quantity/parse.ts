import { atOrThrow, entryOrThrow } from '../collections/orThrow';
const FACTORS: { readonly [prefix: string]: number } = {
  p: 1e-12,
  n: 1e-9,
  u: 1e-6,
  µ: 1e-6,
  μ: 1e-6,
  m: 1e-3,
  k: 1e3,
  K: 1e3,
  M: 1e6,
  G: 1e9,
  R: 1,
};

/** Maximum length of a value. */
const LONGEST = 60;

/** Ways to write ohms; the first two are the Greek letter and the ohm sign. */
const OHMS = ['Ω', 'Ω', 'ohms', 'Ohms', 'ohm', 'Ohm', 'R'];

/** "1,000" may be one or a thousand: it is neither. With a nought before the comma it can only be a decimal one. */
const isAmbiguous = (text: string): boolean => /^[+-]?[1-9]\d{0,2}(,\d{3})+(?!\d)/.test(text);

/** A value as people write it, in its base unit: with a prefix, with the unit, with the prefix in the place of the point
 *  (IEC 60062), or as per cent where it has no unit. Undefined where it is none, or could mean two things.
 *  @example parseSi('4k7', 'Ω') // 4700
 *  @example parseSi('R47', 'Ω') // 0.47
 *  @example parseSi('400 kHz', 'Hz') // 400_000
 *  @example parseSi('86pF', 'F') // 8.6e-11
 *  @example parseSi('5 %', '') // 0.05
 *  @example parseSi('1,000', 'Ω') // undefined: one, or a thousand? */
export function parseSi(text: string, unit: string): number | undefined {
  if (text.length > LONGEST) return undefined;
  const spaceless = text.trim().replace(/[\s_]/g, '');
  if (isAmbiguous(spaceless)) return undefined;
  const bare = spaceless.replace(',', '.');
  if (unit === '' && bare.endsWith('%')) {
    const percent = parseSi(bare.slice(0, -1), '');
    return percent === undefined ? undefined : percent / 100;
  }
  const code = unit === 'Ω' ? /^([RkKMG])(\d+)$/.exec(bare) : null;
  if (code) return Number(`0.${code[2]}`) * entryOrThrow(FACTORS, atOrThrow(code, 1));
  const own = (unit === 'Ω' ? OHMS : [unit]).find((u) => bare.endsWith(u));
  const rest = own ? bare.slice(0, -own.length) : bare;
  const inner = /^(\d+)([pnuµμmkKMGR])(\d+)$/.exec(rest);
  if (inner) return Number(`${inner[1]}.${inner[3]}`) * entryOrThrow(FACTORS, atOrThrow(inner, 2));
  const match = /^([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)([pnuµμmkKMG]?)$/i.exec(rest);
  if (!match) return undefined;
  const value = Number(match[1]) * (match[2] ? entryOrThrow(FACTORS, match[2]) : 1);
  return Number.isFinite(value) ? value : undefined;
}

/** A blank between a number and its unit or prefix parts no list. */
const BEFORE_UNIT = /(\d)\s+(?=(?:[pnuµμmkKMG]?(?:Ω|Ω|ohms?|[AVFW]|Hz)|[kKMG])(?![a-z]))/gi;
/** "4,7k": a decimal comma, or two values? */
const COMMA_BETWEEN = /^\d{1,3},\d{1,2}[a-zµμΩΩ]*$/i;

/** The values of a list as written, separated by spaces, semicolons, or commas followed by a space.
 *  @returns the pieces, or the first ambiguous piece
 *  @example splitValues('4.7 kΩ, 330 470 ohms') // { pieces: ['4.7kΩ', '330', '470ohms'] }
 *  @example splitValues('4,7k') // { ambiguous: '4,7k' } */
export function splitValues(text: string): { readonly pieces: readonly string[] } | { readonly ambiguous: string } {
  const glued = text.slice(0, 20_000).replace(BEFORE_UNIT, '$1');
  const ambiguous = glued.split(/[;\s]+/).find((piece) => COMMA_BETWEEN.test(piece.replace(/,$/, '')));
  return ambiguous === undefined ? { pieces: glued.split(/[;,\s]+/).filter(Boolean) } : { ambiguous: ambiguous.replace(/,$/, '') };
}

/** What to say about a piece that could be one value or two. */
export const ambiguousText = (piece: string): string => `${piece} is ambiguous: use a decimal point (4.7k) and a space after each comma`;
