import { atOrThrow } from '../collections/orThrow';
const PREFIXES: readonly { readonly symbol: string; readonly factor: number }[] = [
  { symbol: 'G', factor: 1e9 },
  { symbol: 'M', factor: 1e6 },
  { symbol: 'k', factor: 1e3 },
  { symbol: '', factor: 1 },
  { symbol: 'm', factor: 1e-3 },
  { symbol: 'µ', factor: 1e-6 },
  { symbol: 'n', factor: 1e-9 },
  { symbol: 'p', factor: 1e-12 },
];

/** A number with three significant digits, without trailing zeros after the point.
 *  @example significant(2.6000001) // '2.6' */
export function significant(value: number): string {
  return String(Number(value.toPrecision(3)));
}

/** A number without a unit: a whole one exactly, others with four significant digits.
 *  @example plain(153_616) // '153616'
 *  @example plain(0.12345) // '0.1235' */
export const plain = (value: number): string => String(Number.isInteger(value) ? value : Number(value.toPrecision(4)));

/** A value in a base unit as text with an SI prefix and three significant digits.
 *  Volts, ohms, amperes, seconds, hertz, farads: give the base unit.
 *  @throws RangeError when the value is not finite
 *  @example formatSi(0.0053, 'A') // '5.3 mA'
 *  @example formatSi(3.3, 'V') // '3.3 V' */
export function formatSi(value: number, unit: string): string {
  if (!Number.isFinite(value)) throw new RangeError(`Invalid quantity ${value}: expected a finite number`);
  if (value === 0) return `0 ${unit}`;
  // Rounding first keeps 999.9 from printing as "1000" of the smaller prefix.
  const rounded = Number(Math.abs(value).toPrecision(3));
  const prefix = PREFIXES.find((p) => rounded >= p.factor * (1 - 1e-12)) ?? atOrThrow(PREFIXES, PREFIXES.length - 1);
  return `${significant(value / prefix.factor)} ${prefix.symbol}${unit}`;
}

/** A 7-bit I2C address in the trade's form.
 *  @throws RangeError outside 0..127
 *  @example formatAddress(0x68) // '0x68' */
export function formatAddress(address: number): string {
  if (!Number.isInteger(address) || address < 0 || address > 127) {
    throw new RangeError(`Invalid address ${address}: expected a whole number 0..127`);
  }
  return `0x${address.toString(16).toUpperCase().padStart(2, '0')}`;
}

/** Bytes, from 1024 on in powers of 1024.
 *  @example formatBytes(115_200) // '112.5 KiB' */
export function formatBytes(bytes: number): string {
  if (bytes < 1024) return `${bytes} B`;
  const in1024 = (power: number): number => Number((bytes / 1024 ** power).toFixed(1));
  // What rounds to 1024 of a unit is one of the next.
  const power = [1, 2].find((one) => in1024(one) < 1024) ?? 3;
  return `${in1024(power)} ${['KiB', 'MiB', 'GiB'][power - 1]}`;
}

/** A number with what it counts.
 *  @example counted(2, 'address', 'addresses') // '2 addresses' */
export function counted(n: number, one: string, many = `${one}s`): string {
  return `${n} ${n === 1 ? one : many}`;
}

/** A text that begins like a sentence.
 *  @example capitalised('move it') // 'Move it' */
export const capitalised = (text: string): string => text.slice(0, 1).toUpperCase() + text.slice(1);
