import { findOrThrow } from '../../collections/orThrow';
import { formatSi, plain } from '../../quantity/format';
import { ambiguousText, parseSi, splitValues } from '../../quantity/parse';
import type { Range } from '../../quantity/range';
import { SERIES, type Series, valuesOf } from '../../quantity/series';
import type { Sheets } from '../../sheets/sheetIndex';
import type { Step } from '../formulas/working';

/** One input of a calculation. Without a default it must be given. */
export interface CalcInput {
  readonly name: string;
  readonly words: string;
  /** SI unit in which the value is; `list` of it; or `text`. */
  readonly unit: string;
  readonly list?: true;
  readonly default?: string;
}

/** What a result looks like on an axis: ranges one under another, and windows that they should lie in, or must not touch. */
export interface Spans {
  readonly unit: string;
  readonly from: number;
  readonly to: number;
  readonly rows: readonly { readonly label: string; readonly range: Range }[];
  readonly windows: readonly { readonly from: number; readonly to: number; readonly good: boolean }[];
}

/** What a calculation gives. */
export interface CalcOutput {
  readonly name: string;
  readonly unit: string;
  readonly words: string;
  /** Of a text that is one of a few: what each of them means. */
  readonly meanings?: { readonly [value: string]: string };
}

/** The output that judges the others, with what each verdict means. */
export const verdictOutput = (meanings: NonNullable<CalcOutput['meanings']>): CalcOutput => ({
  name: 'verdict',
  unit: 'text',
  words: 'verdict',
  meanings,
});

/** What a verdict means that several calculations come to. */
export const NO_VALUE = { 'no-value': 'no preferred value in range' } as const;
export const SUPPLY_TOO_LOW = { 'too-low': 'supply below the forward voltage' } as const;

export interface CalcResult {
  readonly outputs: { readonly [name: string]: number | string | null };
  readonly working: readonly Step[];
  readonly spans?: Spans;
  /** Resistors as numbers where the outputs say them as text, in ohms: the pull first, then the row. */
  readonly values?: readonly number[];
}

/** What a calculation may ask for beside its inputs. */
export interface CalcContext {
  /** The sheets, for tables of a part. */
  readonly sheets: () => Sheets;
  /** Hears how much of a long search is done, from 0 to 1. */
  readonly onProgress?: (share: number) => void;
}

/** A calculation with a name that needs no plan. */
export interface Calculation {
  readonly id: string;
  readonly words: string;
  readonly inputs: readonly CalcInput[];
  readonly outputs: readonly CalcOutput[];
  readonly source: string;
  run(values: Values, context: CalcContext): CalcResult;
}

/** Inputs as read: numbers in base units, by name. */
export interface Values {
  number(name: string): number;
  numbers(name: string): readonly number[];
  text(name: string): string;
}

/** Corners on an axis from zero: what could be drawn of them, with a tenth of room beyond the largest.
 *  @param window where they should lie, if there is one that is not empty */
export function cornersFrom(
  unit: string,
  rows: Spans['rows'],
  window?: { readonly from: number; readonly to: number },
): Pick<CalcResult, 'spans'> {
  const drawn = rows.filter(({ range }) => Number.isFinite(range.max) && range.min <= range.max);
  const isOpen = window !== undefined && Number.isFinite(window.to) && window.from < window.to;
  const most = Math.max(...drawn.map(({ range }) => range.max), isOpen ? window.to : 0);
  if (drawn.length === 0 || !(most > 0)) return {};
  return { spans: { unit, from: 0, to: most * 1.1, rows: drawn, windows: isOpen ? [{ ...window, good: true }] : [] } };
}

/** A number as an output; none where it is not finite. */
export const finite = (value: number | undefined): number | null => (value !== undefined && Number.isFinite(value) ? value : null);

/** An output as people read it: numbers without a unit exactly where they are whole, values with an SI prefix. */
export function outputText(value: number | string | null, unit: string): string {
  if (value === null) return 'none';
  if (typeof value === 'string') return value;
  return unit === '1' ? plain(value) : formatSi(value, unit);
}

/** What an output is; of one of a few texts, what that one means.
 *  @example outputWords({ words: 'verdict', meanings: { weak: 'VGS below the specified value' } }, 'weak') // 'verdict: VGS below …' */
export function outputWords({ words, meanings }: Pick<CalcOutput, 'words' | 'meanings'>, value: number | string | null): string {
  const meaning = typeof value === 'string' ? meanings?.[value] : undefined;
  return meaning === undefined ? words : `${words}: ${meaning}`;
}

/** A whole number of at least nothing.
 *  @throws RangeError naming the input */
export function whole(values: Values, name: string): number {
  const value = values.number(name);
  if (!Number.isInteger(value) || value < 0) throw new RangeError(`${name} ${value}: expected a whole number, 0 or more`);
  return value;
}

/** A number above zero.
 *  @throws RangeError naming the input */
export function above(values: Values, name: string): number {
  const value = values.number(name);
  if (!(value > 0)) throw new RangeError(`${name} ${value}: expected a value above zero`);
  return value;
}

/** A tolerance as a share.
 *  @throws RangeError naming the input */
export function share(values: Values, name: string): number {
  const value = values.number(name);
  if (!(value >= 0 && value < 1)) throw new RangeError(`${name} ${value}: expected a fraction from 0 to below 1`);
  return value;
}

const isSeries = (text: string): text is Series => Object.hasOwn(SERIES, text);

/** The values of the input `series`: those of a standard series within bounds, or a custom list.
 *  @throws RangeError naming the series there are */
export function valuesIn(values: Values, min: number, max: number): readonly number[] {
  const series = values.text('series').trim();
  if (isSeries(series)) return valuesOf(series, min, max);
  const own = /^[\d.,;\sRkKM]/.test(series) ? values.numbers('series') : [];
  if (own.length === 0 || own.some((value) => !(value > 0)))
    throw new RangeError(
      `series ${series || '(empty)'}: expected one of ${Object.keys(SERIES).join(', ')}, or comma-separated values above zero`,
    );
  return own.toSorted((a, b) => a - b);
}

/** The input that every calculation with a resistor has. */
export const SERIES_INPUT: CalcInput = {
  name: 'series',
  words: 'preferred values: E3 to E192, or your own, such as 330, 4k7',
  unit: 'text',
  default: 'E12',
};
export const TOLERANCE_INPUT: CalcInput = {
  name: 'tolerance',
  words: 'resistor tolerance, as a fraction',
  unit: '1',
  default: '0.05',
};

/** The inputs of a calculation from texts.
 *  @throws RangeError naming the input, what was expected there and what was given */
export function readValues(calculation: Calculation, given: { readonly [name: string]: string }): Values {
  const strange = Object.keys(given).find((name) => !calculation.inputs.some((input) => input.name === name));
  if (strange !== undefined)
    throw new RangeError(`${strange}: expected one of ${calculation.inputs.map((input) => input.name).join(', ')}`);
  const inputOf = (name: string): CalcInput => findOrThrow(calculation.inputs, (input) => input.name === name);
  const unitOf = (name: string): string => {
    const { unit } = inputOf(name);
    return unit === '1' || unit === 'text' ? '' : unit;
  };
  const textOf = (name: string): string => {
    const text = given[name] ?? inputOf(name).default;
    if (text === undefined) throw new RangeError(`${name}: expected ${inputOf(name).words}`);
    return text;
  };
  const numberOf = (name: string, text: string): number => {
    const value = parseSi(text, unitOf(name));
    if (value === undefined)
      throw new RangeError(`${text.trim() === '' ? name : `${name} ${text}`}: expected a number${unitOf(name) && ` in ${unitOf(name)}`}`);
    if (value < 0) throw new RangeError(`${name} ${text}: expected 0 or more`);
    return value;
  };
  return {
    text: textOf,
    number: (name) => numberOf(name, textOf(name)),
    numbers: (name) => {
      const split = splitValues(textOf(name));
      if ('ambiguous' in split) throw new RangeError(`${name}: ${ambiguousText(split.ambiguous)}`);
      return split.pieces.map((text) => numberOf(name, text));
    },
  };
}
