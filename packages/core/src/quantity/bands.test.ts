import fc from 'fast-check';
import { bandsOf, type Colour, COLOURS, letterCode, readBands } from './bands';
import { valuesOf } from './series';

describe('colour bands', () => {
  test.each([
    [4700, 0.05, 'yellow violet red gold'],
    [10_000, 0.01, 'brown black black red brown'],
    [0.47, 0.05, 'yellow violet silver gold'],
    [220, 0.2, 'red red brown'],
    [1e6, 0.1, 'brown black green silver'],
    [249_000, 0.01, 'red yellow white orange brown'],
  ] as const)('%d Ω at %d', (ohms, tolerance, words) => {
    expect(bandsOf(ohms, tolerance).join(' ')).toBe(words);
  });

  test('a sixth band is the temperature coefficient', () => {
    const bands = bandsOf(4990, 0.001, 25);
    expect(bands.join(' ')).toBe('yellow white white brown violet yellow');
    expect(readBands(bands)).toEqual({ ohms: 4990, tolerance: 0.001, coefficient: 25 });
  });

  test('every value of E24 in 5 % and of E192 in 1 % is read back from its bands', () => {
    fc.assert(
      fc.property(fc.constantFrom(...valuesOf('E24', 0.1, 22e6)), fc.constantFrom(0.2, 0.1, 0.05, 0.02), (ohms, tolerance) => {
        expect(readBands(bandsOf(ohms, tolerance))).toEqual({ ohms, tolerance });
      }),
    );
    fc.assert(
      fc.property(fc.constantFrom(...valuesOf('E192', 1, 10e6)), fc.constantFrom(0.01, 0.005, 0.0025, 0.001), (ohms, tolerance) => {
        const read = readBands(bandsOf(ohms, tolerance));
        expect([read.ohms / ohms, read.tolerance]).toEqual([expect.closeTo(1, 9), tolerance]);
      }),
    );
  });

  test('what cannot be marked, and bands that cannot stand there, are refused with their place', () => {
    expect(() => bandsOf(-1)).toThrow('Invalid resistance -1');
    expect(() => bandsOf(4700, 0.03)).toThrow('Invalid tolerance 0.03');
    expect(() => bandsOf(12_345, 0.01)).toThrow('too many digits for colour bands');
    expect(() => readBands(['gold', 'red', 'red'])).toThrow('Invalid band 1, gold: no digit');
    expect(() => readBands(['red', 'red', 'red', 'white'])).toThrow('Invalid band 4, white: no tolerance');
    expect(() => readBands(['red', 'red'])).toThrow('2 of them');
    fc.assert(
      fc.property(fc.array(fc.constantFrom<Colour>(...COLOURS), { maxLength: 8 }), (bands) => {
        try {
          expect(readBands(bands).ohms).toBeGreaterThanOrEqual(0);
        } catch (error) {
          expect(error).toBeInstanceOf(RangeError);
        }
      }),
    );
  });
});

test.each([
  [4700, undefined, '4K7'],
  [0.47, undefined, 'R47'],
  [0.1, undefined, 'R10'],
  [0.022, undefined, 'R022'],
  [0.1, 0.01, 'R10F'],
  [100, 0.05, '100RJ'],
  [4.7, undefined, '4R7'],
  [1e6, 0.01, '1M0F'],
  [10_000, 0.2, '10KM'],
  [33, undefined, '33R'],
])('letter code of %d Ω', (ohms, tolerance, code) => {
  expect(letterCode(ohms, tolerance)).toBe(code);
});

test.each([
  [0.0001, 'L'],
  [0.0002, 'P'],
  [0.0005, 'W'],
  [0.001, 'B'],
  [0.0025, 'C'],
  [0.005, 'D'],
  [0.01, 'F'],
  [0.02, 'G'],
  [0.05, 'J'],
  [0.1, 'K'],
  [0.2, 'M'],
])('a tolerance of %d has the letter of IEC 60062, table 3: %s', (tolerance, letter) => {
  expect(letterCode(4700, tolerance)).toBe(`4K7${letter}`);
});

test('a tolerance without a letter leaves it out', () => {
  expect(letterCode(4700, 0.03)).toBe('4K7');
});
