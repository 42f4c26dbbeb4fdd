import fc from 'fast-check';
import { parseSi, splitValues } from './parse';
import { formatBytes, formatAddress, formatSi, significant } from './format';

test.each([
  [3.3, 'V', '3.3 V'],
  [0.0053, 'A', '5.3 mA'],
  [967, 'Ω', '967 Ω'],
  [1533, 'Ω', '1.53 kΩ'],
  [400e3, 'Hz', '400 kHz'],
  [0.999996, 'V', '1 V'],
  [999.6, 'Ω', '1 kΩ'],
  [2e-10, 'F', '200 pF'],
  [0, 'A', '0 A'],
  [-0.2, 'V', '-200 mV'],
])('%p %s reads %p', (value, unit, text) => {
  expect(formatSi(value, unit)).toBe(text);
});

test('a formatted quantity reads back within three digits, at any size', () => {
  const factor: Record<string, number> = { G: 1e9, M: 1e6, k: 1e3, m: 1e-3, µ: 1e-6, n: 1e-9, p: 1e-12 };
  fc.assert(
    fc.property(fc.double({ min: 1e-12, max: 9e11, noNaN: true }), (value) => {
      const [, number, prefix] = /^([-\d.e+]+) ?([GMkmµnp]?)V$/.exec(formatSi(value, 'V'))!;
      expect(Math.abs((Number(number) * (factor[prefix!] ?? 1)) / value - 1)).toBeLessThanOrEqual(0.00501);
      expect(Number(number)).toBeLessThan(1000);
    }),
  );
});

test('what is no quantity is refused with its value', () => {
  expect(() => formatSi(NaN, 'V')).toThrow('NaN');
  expect(() => formatAddress(0x80)).toThrow('128');
  expect(() => formatAddress(1.5)).toThrow('1.5');
});

test('addresses have two digits', () => {
  expect([formatAddress(0x68), formatAddress(0x08), formatAddress(0x3c)]).toEqual(['0x68', '0x08', '0x3C']);
  expect(significant(2.6000001)).toBe('2.6');
});

test.each([
  ['4k7', 'Ω', 4700],
  ['4.7k', 'Ω', 4700],
  ['4,7 kΩ', 'Ω', 4700],
  ['400 kHz', 'Hz', 400_000],
  ['86pF', 'F', 86e-12],
  ['3m', 'A', 3e-3],
  ['1M', 'Ω', 1e6],
  ['0', 'V', 0],
] as const)('%s read as %s', (text, unit, value) => expect(parseSi(text, unit)).toBeCloseTo(value, 15));

test.each(['', 'fast', '4k7k', '1e999', '--3'])('%j is no number', (text) => expect(parseSi(text, 'Ω')).toBeUndefined());

test('what is formatted is read back, to the digits that are shown', () => {
  fc.assert(
    fc.property(fc.double({ min: 1e-12, max: 1e9, noNaN: true }), (value) => {
      expect(parseSi(formatSi(value, 'F'), 'F')! / value).toBeCloseTo(1, 2);
    }),
  );
});

test.each([
  ['R47', 'Ω', 0.47],
  ['R10', 'Ω', 0.1],
  ['R022', 'Ω', 0.022],
  ['M47', 'Ω', 470_000],
  ['K47', 'Ω', 470],
  ['470 ohms', 'Ω', 470],
  ['4.7 kΩ', 'Ω', 4700],
  ['4,7k', 'Ω', 4700],
  ['0,125', 'A', 0.125],
  ['5%', '', 0.05],
  ['12.5 %', '', 0.125],
  ['-3.3', 'V', -3.3],
] as const)('%s is read as %s: %d', (text, unit, value) => expect(parseSi(text, unit)).toBeCloseTo(value, 12));

test.each([
  ['1,000', 'Ω'],
  ['10,000', 'Ω'],
  ['4.7 kA', 'Ω'],
  ['R', 'Ω'],
  ['R47', 'F'],
  ['5%', 'V'],
])('%j in %s is refused rather than guessed', (text, unit) => expect(parseSi(text, unit)).toBeUndefined());

test.each([
  ['4.7 kΩ, 330 470 ohms', ['4.7kΩ', '330', '470ohms']],
  ['10k; 2k2;1M', ['10k', '2k2', '1M']],
  ['330,470,1k', ['330', '470', '1k']],
  ['100, 220, 4k7', ['100', '220', '4k7']],
])('the list %j has its values', (text, pieces) => expect(splitValues(text)).toEqual({ pieces }));

test.each([
  ['4,7k', '4,7k'],
  ['10k 2,2 M 470', '2,2M'],
  ['1,5', '1,5'],
])('in the list %j it is asked what is meant', (text, ambiguous) => expect(splitValues(text)).toEqual({ ambiguous }));

test.each([
  [1023, '1023 B'],
  [1024, '1 KiB'],
  [115_200, '112.5 KiB'],
  [1024 ** 2 - 1, '1 MiB'],
  [1024 ** 3 - 20, '1 GiB'],
  [3.5 * 1024 ** 3, '3.5 GiB'],
])('%i bytes are %s', (bytes, text) => expect(formatBytes(bytes)).toBe(text));
