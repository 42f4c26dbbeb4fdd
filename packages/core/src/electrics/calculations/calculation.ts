import { parseSi } from '../../quantity/parse';
import { SERIES, type Series } from '../../quantity/series';
import type { Step } from '../working';

/** One input of a calculation. Without a default it must be given. */
export interface CalcInput {
  readonly name: string;
  readonly words: string;
  /** SI unit in which the value is; `list` of it; or `text`. */
  readonly unit: string;
  readonly list?: true;
  readonly default?: string;
}

export interface CalcResult {
  readonly outputs: { readonly [name: string]: number | string | null };
  readonly working: readonly Step[];
}

/** A calculation that can be asked for by name, without a plan. */
export interface Calculation {
  readonly id: string;
  readonly words: string;
  readonly inputs: readonly CalcInput[];
  readonly outputs: readonly { readonly name: string; readonly unit: string; readonly words: string }[];
  readonly source: string;
  run(values: Values): CalcResult;
}

/** Inputs as read: numbers in base units, by name. */
export interface Values {
  number(name: string): number;
  numbers(name: string): readonly number[];
  text(name: string): string;
}

/** A number as an output; none where it is not finite. */
export const finite = (value: number | undefined): number | null => (value !== undefined && Number.isFinite(value) ? value : null);

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
  if (!(value >= 0 && value < 1)) throw new RangeError(`${name} ${value}: expected a share from 0 to below 1`);
  return value;
}

/** A series of preferred values.
 *  @throws RangeError naming those there are */
export function seriesOf(values: Values): Series {
  const series = values.text('series');
  if (!Object.hasOwn(SERIES, series)) throw new RangeError(`series ${series}: expected one of ${Object.keys(SERIES).join(', ')}`);
  return series as Series;
}

/** The input that every calculation with a resistor has. */
export const SERIES_INPUT: CalcInput = {
  name: 'series',
  words: `preferred values: ${Object.keys(SERIES).join(', ')}`,
  unit: 'text',
  default: 'E12',
};
export const TOLERANCE_INPUT: CalcInput = {
  name: 'tolerance',
  words: 'tolerance of the resistances, as a share',
  unit: '1',
  default: '0.05',
};

/** The inputs of a calculation from texts.
 *  @throws RangeError naming the input, what was expected there and what was given */
export function readValues(calculation: Calculation, given: { readonly [name: string]: string }): Values {
  const strange = Object.keys(given).find((name) => !calculation.inputs.some((input) => input.name === name));
  if (strange !== undefined)
    throw new RangeError(`${strange}: expected one of ${calculation.inputs.map((input) => input.name).join(', ')}`);
  const inputOf = (name: string): CalcInput => calculation.inputs.find((input) => input.name === name)!;
  const textOf = (name: string): string => {
    const text = given[name] ?? inputOf(name).default;
    if (text === undefined) throw new RangeError(`${name}: expected ${inputOf(name).words}`);
    return text;
  };
  const numberOf = (name: string, text: string): number => {
    const value = parseSi(text, inputOf(name).unit === '1' ? '' : inputOf(name).unit);
    if (value === undefined)
      throw new RangeError(`${name} ${text}: expected a number${inputOf(name).unit === '1' ? '' : ` in ${inputOf(name).unit}`}`);
    return value;
  };
  return {
    text: textOf,
    number: (name) => numberOf(name, textOf(name)),
    numbers: (name) =>
      textOf(name)
        .split(/[,;\s]+/)
        .filter(Boolean)
        .map((text) => numberOf(name, text)),
  };
}
