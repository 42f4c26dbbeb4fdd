import { formatSi } from '../quantity/format';
import { parseSi } from '../quantity/parse';
import { SERIES, type Series, valuesOf } from '../quantity/series';
import { busPullUps } from './busPullUps';
import { I2C_STANDARD } from './i2cModes';
import { busTime } from './i2cTime';
import { spiTime } from './spiTime';
import type { Step } from './working';

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

const point = (value: number) => ({ min: value, max: value });
const finite = (value: number | undefined): number | null => (value !== undefined && Number.isFinite(value) ? value : null);

const pullUp: Calculation = {
  id: 'pull-up',
  words: 'Pull-ups of an I2C line: the legal window, what there is, what to add.',
  inputs: [
    { name: 'vdd', words: 'supply of the bus', unit: 'V', default: '3.3' },
    { name: 'hz', words: 'clock', unit: 'Hz', default: '400k' },
    { name: 'capacitance', words: 'capacitance of the line', unit: 'F', default: '100p' },
    { name: 'pull-ups', words: 'resistances that are there, with commas between', unit: 'Ω', list: true, default: '' },
    { name: 'tolerance', words: 'tolerance of the resistances, as a share', unit: '1', default: '0.05' },
    { name: 'vol', words: 'low level of the weakest member', unit: 'V', default: '0.4' },
    { name: 'iol', words: 'current that it sinks then', unit: 'A', default: '3m' },
    { name: 'series', words: `preferred values: ${Object.keys(SERIES).join(', ')}`, unit: 'text', default: 'E12' },
  ],
  outputs: [
    { name: 'leastOhms', unit: 'Ω', words: 'below it the weakest member cannot pull low' },
    { name: 'mostOhms', unit: 'Ω', words: 'above it the line rises too slowly' },
    { name: 'ohmsMin', unit: 'Ω', words: 'what there is, strongest corner' },
    { name: 'ohmsMax', unit: 'Ω', words: 'what there is, weakest corner' },
    { name: 'riseSeconds', unit: 's', words: 'rise at the weakest corner' },
    { name: 'verdict', unit: 'text', words: 'missing, too-strong, too-weak, both or good' },
    { name: 'add', unit: 'Ω', words: 'preferred value to add; none where nothing is needed or nothing helps' },
  ],
  source: I2C_STANDARD,
  run(values) {
    const series = values.text('series');
    if (!Object.hasOwn(SERIES, series)) throw new RangeError(`series ${series}: expected one of ${Object.keys(SERIES).join(', ')}`);
    const tolerance = values.number('tolerance');
    if (!(tolerance >= 0 && tolerance < 1)) throw new RangeError(`tolerance ${tolerance}: expected a share from 0 to below 1`);
    const vdd = values.number('vdd');
    const given = {
      vdd: point(vdd),
      sinks: [{ id: 'weakest', volts: values.number('vol'), amps: values.number('iol') }],
      farads: values.number('capacitance'),
      hz: values.number('hz'),
    };
    const resistor = (ohms: number) => ({
      id: formatSi(ohms, 'Ω'),
      ohms: { min: ohms * (1 - tolerance), typ: ohms, max: ohms * (1 + tolerance) },
      volts: point(vdd),
    });
    const there = values.numbers('pull-ups').map(resistor);
    const result = busPullUps({ ...given, pullUps: there });
    const add = ['missing', 'too-weak'].includes(result.verdict)
      ? bestAdded(valuesOf(series as Series, 330, 100_000), (ohms) => busPullUps({ ...given, pullUps: [...there, resistor(ohms)] }))
      : undefined;
    return {
      outputs: {
        leastOhms: result.leastOhms,
        mostOhms: result.mostOhms,
        ohmsMin: finite(result.ohms?.min),
        ohmsMax: finite(result.ohms?.max),
        riseSeconds: finite(result.riseSeconds?.max),
        verdict: result.verdict,
        add: add ?? null,
      },
      working: result.working,
    };
  },
};

/** The one of some values with which all is well that is nearest to the middle of all those on a scale of ratios. */
export function bestAdded(values: readonly number[], tryWith: (ohms: number) => { readonly verdict: string }): number | undefined {
  const good = values.filter((ohms) => tryWith(ohms).verdict === 'good');
  const middle = good.length > 0 ? Math.sqrt(good[0]! * good.at(-1)!) : 0;
  return good.toSorted((a, b) => Math.abs(Math.log(a / middle)) - Math.abs(Math.log(b / middle)))[0];
}

function whole(values: Values, name: string): number {
  const value = values.number(name);
  if (!Number.isInteger(value) || value < 0) throw new RangeError(`${name} ${value}: expected a whole number, 0 or more`);
  return value;
}

const busTimes: Calculation = {
  id: 'bus-time',
  words: 'How much of a second an access takes on an I2C bus.',
  inputs: [
    { name: 'hz', words: 'clock', unit: 'Hz', default: '400k' },
    { name: 'write', words: 'bytes written a transfer, after the address', unit: '1' },
    { name: 'read', words: 'bytes read a transfer', unit: '1', default: '0' },
    { name: 'transfers', words: 'transfers an access', unit: '1', default: '1' },
    { name: 'rate', words: 'accesses a second', unit: '1', default: '1' },
  ],
  outputs: [
    { name: 'bits', unit: '1', words: 'bits of one access' },
    { name: 'seconds', unit: 's', words: 'time of one access' },
    { name: 'share', unit: '1', words: 'share of a second' },
    { name: 'mostPerSecond', unit: '1', words: 'accesses a second at the very most' },
  ],
  source: 'I2C-bus specification UM10204, 3.1',
  run(values) {
    const transfers = [{ times: Math.max(1, whole(values, 'transfers')), write: whole(values, 'write'), read: whole(values, 'read') }];
    const { users, share, working } = busTime(values.number('hz'), [{ id: 'part', transfers, perSecond: values.number('rate') }]);
    const { bits, seconds, alonePerSecond } = users[0]!;
    return { outputs: { bits, seconds, share, mostPerSecond: alonePerSecond }, working };
  },
};

const spiTimes: Calculation = {
  id: 'spi-time',
  words: 'How much of a second an access takes on an SPI bus, by one part or a chain of equal ones.',
  inputs: [
    { name: 'hz', words: 'clock', unit: 'Hz', default: '10M' },
    { name: 'bytes', words: 'bytes sent and read a transfer', unit: '1', default: '1' },
    { name: 'transfers', words: 'transfers an access', unit: '1', default: '1' },
    { name: 'parts', words: 'parts in the chain, each of which takes the bytes', unit: '1', default: '1' },
    { name: 'rate', words: 'accesses a second', unit: '1', default: '1' },
  ],
  outputs: [
    { name: 'bits', unit: '1', words: 'bits of one access' },
    { name: 'seconds', unit: 's', words: 'time of one access' },
    { name: 'share', unit: '1', words: 'share of a second' },
    { name: 'mostPerSecond', unit: '1', words: 'accesses a second at the very most' },
  ],
  source: 'One bit a clock; pauses between bytes and for the select are not counted',
  run(values) {
    const bits = 8 * whole(values, 'bytes') * Math.max(1, whole(values, 'transfers')) * Math.max(1, whole(values, 'parts'));
    const { working, ...outputs } = spiTime(values.number('hz'), bits, values.number('rate'));
    return { outputs: { ...outputs, mostPerSecond: finite(outputs.mostPerSecond) }, working };
  },
};

/** Every calculation, by id. */
export const CALCULATIONS: readonly Calculation[] = [busTimes, pullUp, spiTimes];

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
