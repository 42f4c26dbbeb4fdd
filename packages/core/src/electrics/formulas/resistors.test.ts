import fc from 'fast-check';
import { shippedSheets } from '../../../tests/catalogue';
import { point } from '../../quantity/range';
import { valuesOf } from '../../quantity/series';
import { CALCULATIONS } from '../calculations/calculations';
import { readValues } from '../calculations/calculation';
import { divide, dividerOutput, sensorDivider } from './dividers';
import { ledResistor, multiplexed, ratingFor } from './led';

const E12 = valuesOf('E12', 1, 10e6);
const run = (id: string, given: Record<string, string>) => {
  const calculation = CALCULATIONS.find((c) => c.id === id)!;
  return calculation.run(readValues(calculation, given), { sheets: shippedSheets }).outputs;
};

describe('LED', () => {
  const led = (change: Partial<Parameters<typeof ledResistor>[0]> = {}) =>
    ledResistor({
      supply: { min: 4.75, typ: 5, max: 5.25 },
      forwardVolts: { min: 1.8, typ: 2, max: 2.2 },
      amps: 10e-3,
      driveOhms: 0,
      tolerance: 0.05,
      values: E12,
      ...change,
    });

  test('5 V, 2 V, 10 mA by hand: 300 Ω, 330 Ω of E12; corners with every value at its worst', () => {
    const result = led();
    expect([result.exactOhms, result.ohms, result.verdict]).toEqual([expect.closeTo(300, 9), 330, 'good']);
    expect(result.amps!.typ! * 1e3).toBeCloseTo(3000 / 330, 9);
    expect(result.amps!.max * 1e3).toBeCloseTo(((5.25 - 1.8) / (330 * 0.95)) * 1e3, 9);
    expect(result.amps!.min * 1e3).toBeCloseTo(((4.75 - 2.2) / (330 * 1.05)) * 1e3, 9);
    expect(result.ratingWatts).toBe(0.1);
  });

  test('the pin’s own resistance and a transistor’s drop take their part', () => {
    expect(led({ driveOhms: 40 }).exactOhms).toBeCloseTo(260, 9);
    expect(led({ dropVolts: 0.5 }).exactOhms).toBeCloseTo(250, 9);
    expect(led({ driveOhms: 400 })).toMatchObject({ verdict: 'none-needed', ohms: 0 });
  });

  test('a supply below the forward voltage, no current, no value: said, with what would be possible', () => {
    expect(led({ supply: point(1.8) })).toMatchObject({ verdict: 'too-low', leastVolts: 2, ohms: undefined });
    expect(led({ values: [47] })).toMatchObject({ verdict: 'no-value', exactOhms: expect.closeTo(300, 9) as number });
    expect(() => led({ amps: 0 })).toThrow('current 0: expected amperes above zero');
    expect(() => led({ tolerance: -0.1 })).toThrow('tolerance -0.1');
  });

  test('the chosen value is one of those there are, never below the exact one; the corners enclose the nominal', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1.5, max: 24, noNaN: true }),
        fc.double({ min: 1.2, max: 4, noNaN: true }),
        fc.integer({ min: 1, max: 40 }),
        fc.uniqueArray(fc.constantFrom(...E12), { minLength: 1, maxLength: 20 }),
        (supply, vf, milliamps, onHand) => {
          const values = onHand.toSorted((a, b) => a - b);
          const result = led({
            supply: { min: supply * 0.95, typ: supply, max: supply * 1.05 },
            forwardVolts: { min: vf * 0.9, typ: vf, max: vf * 1.1 },
            amps: milliamps / 1000,
            values,
          });
          if (result.verdict !== 'good') return;
          expect(values).toContain(result.ohms);
          expect(result.ohms!).toBeGreaterThanOrEqual(result.exactOhms! * (1 - 1e-6));
          expect(result.amps!.min).toBeLessThanOrEqual(result.amps!.typ!);
          expect(result.amps!.max).toBeGreaterThanOrEqual(result.amps!.typ!);
          expect(result.ratingWatts === undefined || result.ratingWatts >= 2 * result.watts!).toBe(true);
        },
      ),
    );
  });

  test('the rating has twice the room; beyond ten watts there is none', () => {
    expect([ratingFor(0.05), ratingFor(0.06), ratingFor(0.13), ratingFor(6)]).toEqual([0.1, 0.125, 0.5, undefined]);
  });
});

describe('digits', () => {
  test('3 ms and 4 digits are 83 rounds a second; 4 ms and 4 flicker', () => {
    const four = multiplexed({ digits: 4, dwell: 3e-3, averageAmps: 2e-3, segments: 8 });
    expect([four.refreshHz, four.peakAmps, four.digitAmps, four.flickers]).toEqual([
      expect.closeTo(83.33, 2),
      expect.closeTo(8e-3, 12),
      expect.closeTo(64e-3, 12),
      false,
    ]);
    expect(multiplexed({ digits: 4, dwell: 4e-3, averageAmps: 2e-3, segments: 8 }).flickers).toBe(true);
    expect(() => multiplexed({ digits: 0, dwell: 1, averageAmps: 1, segments: 1 })).toThrow('digits 0');
  });
});

describe('dividers', () => {
  const given = {
    input: { min: 4.5, max: 5.25 },
    output: { min: 2, max: 3.6 },
    farads: 20e-12,
    tolerance: 0.05,
    values: valuesOf('E24', 100, 1e6),
    total: { min: 1000, max: 100_000 },
  };

  test('the best pair holds at every corner, and no other pair has more room', () => {
    const { best } = divide(given);
    const room = (top: number, bottom: number) => {
      const out = dividerOutput(top, bottom, given.input, given.tolerance);
      return Math.min(out.min - given.output.min, given.output.max - out.max);
    };
    const mine = room(best!.top, best!.bottom);
    expect(mine).toBeGreaterThan(0);
    for (const top of given.values)
      for (const bottom of given.values)
        if (top + bottom >= 1000 && top + bottom <= 100_000) expect(room(top, bottom)).toBeLessThanOrEqual(mine + 1e-9);
    expect(best!.output.max).toBeLessThanOrEqual(3.6);
  });

  test('10 kΩ over 20 kΩ with 50 pF by hand: 6.67 kΩ, 1/(4.39 · R · C) = 683 kbit/s', () => {
    const { best } = divide({ ...given, values: [10_000, 20_000], farads: 50e-12, tolerance: 0.01, total: { min: 29e3, max: 31e3 } });
    expect([best!.top, best!.bottom, best!.theveninOhms]).toEqual([10_000, 20_000, expect.closeTo(6666.67, 1)]);
    expect(best!.mostBitsPerSecond / 1e3).toBeCloseTo(682.7, 0);
  });

  test('a window that no pair hits is said to have none; what cannot be is refused', () => {
    expect(divide({ ...given, output: { min: 3.0, max: 3.01 }, tolerance: 0.1 })).toMatchObject({ best: undefined, pairs: 0 });
    expect(() => divide({ ...given, farads: -1 })).toThrow('capacitance -1');
    expect(() => divide({ ...given, output: { min: 3, max: 2 } })).toThrow('output 3 to 2');
  });

  test('beside a sensor from 1 kΩ to 100 kΩ the geometric mean gives the widest span', () => {
    const best = sensorDivider(1000, 100_000);
    expect([best.ohms, best.span]).toEqual([expect.closeTo(10_000, 6), expect.closeTo(10 / 11 - 1 / 11, 9)]);
    const span = (r: number) => r / (r + 1000) - r / (r + 100_000);
    for (const r of E12) expect(span(r)).toBeLessThanOrEqual(best.span + 1e-12);
    expect(() => sensorDivider(0, 1)).toThrow(RangeError);
  });
});

describe('by name', () => {
  test('every calculation runs with its defaults where it has them all, and gives what it lists', () => {
    for (const calculation of CALCULATIONS) {
      const given = Object.fromEntries(
        calculation.inputs
          .filter((i) => i.default === undefined)
          .map((i) => [i.name, i.name === 'keys' ? '4' : i.name === 'sheet' ? 'driver-max7219-dip24' : '100']),
      );
      const { outputs, working } = calculation.run(readValues(calculation, given), { sheets: shippedSheets });
      expect(Object.keys(outputs).sort()).toEqual(calculation.outputs.map((o) => o.name).sort());
      expect(JSON.stringify([outputs, working])).not.toMatch(/NaN|Infinity|undefined/);
    }
  });

  test('the base of a transistor for 200 mA at gain 10: 130 Ω, and the pin is too weak for it', () => {
    expect(run('transistor-base', { load: '200m' })).toMatchObject({
      exactOhms: expect.closeTo(130, 9) as number,
      ohms: 120,
      verdict: 'pin-too-weak',
    });
    expect(run('transistor-base', { load: '50m' })).toMatchObject({ ohms: 470, verdict: 'good' });
    expect(run('transistor-base', { load: '50m', high: '0.5' })).toMatchObject({ verdict: 'level-too-low' });
  });

  test('four keys on ten bits: the ladder in values and counts, in rising order', () => {
    const { row, thresholds, verdict, proved, gapCounts } = run('ladder', { keys: '4' });
    expect([verdict, proved, (row as string).split(', ').length]).toEqual(['good', 'yes', 3]);
    const counts = (thresholds as string).split(', ').map(Number);
    expect(counts).toEqual(counts.toSorted((a, b) => a - b));
    expect(gapCounts).toBeGreaterThan(100);
    expect(run('ladder', { keys: '16', tolerance: '0.2' }).verdict).toBe('overlap');
    expect(() => run('ladder', { keys: '40' })).toThrow('keys 40');
  });

  test('bands and power', () => {
    expect(run('bands', { ohms: '4k7' })).toEqual({ bands: 'yellow, violet, red, gold', code: '4K7J' });
    expect(run('power', { ohms: '330', current: '10m' })).toEqual({ watts: expect.closeTo(0.033, 9) as number, ratingWatts: 0.1 });
  });
});
