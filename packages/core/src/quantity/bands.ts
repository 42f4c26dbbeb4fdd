import { atOrThrow } from '../collections/orThrow';
/** Resistor marking by IEC 60062: colour bands and letter code. */

export const COLOURS = [
  'black',
  'brown',
  'red',
  'orange',
  'yellow',
  'green',
  'blue',
  'violet',
  'grey',
  'white',
  'gold',
  'silver',
  'pink',
] as const;
export type Colour = (typeof COLOURS)[number];

const DIGITS: readonly Colour[] = COLOURS.slice(0, 10);
/** Powers of ten of the multiplier band. */
const POWERS = new Map<Colour, number>([...DIGITS.map((colour, at) => [colour, at] as const), ['gold', -1], ['silver', -2], ['pink', -3]]);
/** Tolerances as shares; a resistor without the band has 20 %. */
const TOLERANCES = new Map<Colour, number>([
  ['silver', 0.1],
  ['gold', 0.05],
  ['red', 0.02],
  ['brown', 0.01],
  ['green', 0.005],
  ['blue', 0.0025],
  ['violet', 0.001],
  ['orange', 0.0005],
  ['yellow', 0.0002],
  ['grey', 0.0001],
]);
const NO_BAND = 0.2;
/** Temperature coefficients of the sixth band, in millionths a kelvin. */
const COEFFICIENTS = new Map<Colour, number>([
  ['black', 250],
  ['brown', 100],
  ['red', 50],
  ['yellow', 25],
  ['green', 20],
  ['orange', 15],
  ['blue', 10],
  ['violet', 5],
  ['grey', 1],
]);
const LETTERS = new Map<number, string>([
  [0.2, 'M'],
  [0.1, 'K'],
  [0.05, 'J'],
  [0.02, 'G'],
  [0.01, 'F'],
  [0.005, 'D'],
  [0.0025, 'C'],
  [0.001, 'B'],
  [0.0005, 'W'],
  [0.0002, 'P'],
  [0.0001, 'L'],
]);

const keyOf = (from: ReadonlyMap<Colour, number>, value: number): Colour | undefined =>
  [...from].find(([, known]) => Math.abs(known - value) < 1e-12)?.[0];

/** The value in so many digits and a power of ten; undefined where it has more digits. */
function inDigits(ohms: number, digits: number): { readonly digits: number; readonly power: number } | undefined {
  const power = Math.floor(Math.log10(ohms) + 1e-12) - digits + 1;
  const scaled = ohms / 10 ** power;
  const whole = Math.round(scaled);
  // 9.996 in three digits is 10.0, which begins anew.
  if (Math.abs(scaled - whole) > 1e-6 * scaled) return undefined;
  return whole >= 10 ** digits ? { digits: whole / 10, power: power + 1 } : { digits: whole, power };
}

/** The colour bands of a resistor from the end where they begin: two digits where they are enough and the tolerance is one of such
 *  resistors (2 % and more), else three.
 *  @param coefficient temperature coefficient in millionths a kelvin, for a sixth band
 *  @throws RangeError where the value or the tolerance cannot be marked
 *  @example bandsOf(4700, 0.05) // ['yellow', 'violet', 'red', 'gold'] */
export function bandsOf(ohms: number, tolerance = 0.05, coefficient?: number): readonly Colour[] {
  if (!(ohms > 0) || !Number.isFinite(ohms)) throw new RangeError(`Invalid resistance ${ohms}: expected ohms above zero`);
  const tolerated = tolerance === NO_BAND ? undefined : keyOf(TOLERANCES, tolerance);
  if (!tolerated && tolerance !== NO_BAND)
    throw new RangeError(`Invalid tolerance ${tolerance}: expected one of ${[NO_BAND, ...TOLERANCES.values()].join(', ')}`);
  const last = coefficient === undefined ? undefined : keyOf(COEFFICIENTS, coefficient);
  if (coefficient !== undefined && !last)
    throw new RangeError(`Invalid coefficient ${coefficient}: expected one of ${[...COEFFICIENTS.values()].join(', ')}`);
  const two = tolerance >= 0.02 && !last ? inDigits(ohms, 2) : undefined;
  const found = two ?? inDigits(ohms, 3);
  const multiplier = found && keyOf(POWERS, found.power);
  if (!found || !multiplier) throw new RangeError(`Invalid resistance ${ohms}: too many digits for colour bands`);
  const digits = [...String(found.digits)].map((digit) => atOrThrow(DIGITS, Number(digit)));
  return [...digits, multiplier, ...(tolerated ? [tolerated] : []), ...(last ? [last] : [])];
}

/** The value of 3 to 6 colour bands.
 *  @throws RangeError naming the invalid band
 *  @example readBands(['yellow', 'violet', 'red', 'gold']) // { ohms: 4700, tolerance: 0.05 } */
export function readBands(bands: readonly Colour[]): { readonly ohms: number; readonly tolerance: number; readonly coefficient?: number } {
  if (bands.length < 3 || bands.length > 6) throw new RangeError(`Invalid bands: ${bands.length} of them, expected 3 to 6`);
  const count = bands.length > 4 ? 3 : 2;
  const at = <T>(place: number, from: (colour: Colour) => T | undefined, what: string): T => {
    const value = from(atOrThrow(bands, place));
    if (value === undefined) throw new RangeError(`Invalid band ${place + 1}, ${bands[place]}: no ${what}`);
    return value;
  };
  const digit = (colour: Colour) => (DIGITS.includes(colour) ? DIGITS.indexOf(colour) : undefined);
  let digits = 0;
  for (let place = 0; place < count; place += 1) digits = digits * 10 + at(place, digit, 'digit');
  const power = at(count, (colour) => POWERS.get(colour), 'multiplier');
  const tolerance = bands.length > 3 ? at(count + 1, (colour) => TOLERANCES.get(colour), 'tolerance') : NO_BAND;
  // One rounding: a power below one would leave crumbs.
  const ohms = Number(`${digits}e${power}`);
  return bands.length < 6
    ? { ohms, tolerance }
    : { ohms, tolerance, coefficient: at(5, (colour) => COEFFICIENTS.get(colour), 'coefficient') };
}

/** The letter code of a resistor: the multiplier letter marks the decimal point; the tolerance letter follows.
 *  @throws RangeError where the value is not above zero
 *  @example letterCode(4700, 0.01) // '4K7F'
 *  @example letterCode(0.47) // 'R47'
 *  @example letterCode(0.1) // 'R10': IEC 60062 writes two digits at least */
export function letterCode(ohms: number, tolerance?: number): string {
  if (!(ohms > 0) || !Number.isFinite(ohms)) throw new RangeError(`Invalid resistance ${ohms}: expected ohms above zero`);
  const rounded = Number(ohms.toPrecision(4));
  const [letter, factor] = rounded >= 1e9 ? ['G', 1e9] : rounded >= 1e6 ? ['M', 1e6] : rounded >= 1e3 ? ['K', 1e3] : ['R', 1];
  const [whole = '', part = ''] = String(Number((rounded / factor).toPrecision(4))).split('.');
  const mark = tolerance === undefined ? '' : ([...LETTERS].find(([known]) => Math.abs(known - tolerance) < 1e-12)?.[1] ?? '');
  if (whole === '0') return `${letter}${part.padEnd(2, '0')}${mark}`;
  return `${whole}${letter}${part || (whole.length < 2 ? '0' : '')}${mark}`;
}
