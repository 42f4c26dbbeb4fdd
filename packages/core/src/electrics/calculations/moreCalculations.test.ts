import fc from 'fast-check';
import { shippedSheets } from '../../../tests/catalogue';
import { runs } from '../../../tests/runs';
import { valuesOf } from '../../quantity/series';
import { CALCULATIONS } from './calculations';
import { readValues } from './calculation';
import { debounce, type DebounceInput } from '../formulas/debounce';
import { linePull } from '../formulas/linePull';

const run = (id: string, given: Record<string, string>) => {
  const calculation = CALCULATIONS.find((c) => c.id === id)!;
  return calculation.run(readValues(calculation, given), { sheets: shippedSheets });
};
const near = (value: number, digits = 6) => expect.closeTo(value, digits) as number;

describe('a key that bounces', () => {
  const key: DebounceInput = {
    volts: 3.3,
    pullOhms: 10_000,
    seriesOhms: 1000,
    bounceSeconds: 5e-3,
    lowVolts: 0.99,
    highVolts: 2.31,
    tolerance: 0.05,
    faradTolerance: 0.2,
    values: valuesOf('E6', 10e-12, 1e-3),
  };

  /** The pin's voltage after the contact was open for a while, in ten thousand small steps. */
  function openFor(input: DebounceInput, seconds: number, pull: number, farads: number, from: number): number {
    const steps = 10_000;
    let volts = from;
    for (let n = 0; n < steps; n += 1) volts += ((input.volts - volts) / (pull * farads)) * (seconds / steps);
    return volts;
  }

  test('the capacitor keeps the pin low through the bounce at the worst corner, and the next smaller one would not', () => {
    fc.assert(
      fc.property(fc.integer({ min: 2000, max: 100_000 }), fc.integer({ min: 1, max: 20 }), (pullOhms, ms) => {
        const input = { ...key, pullOhms, seriesOhms: pullOhms / 20, bounceSeconds: ms / 1000 };
        const { farads, exactFarads } = debounce(input);
        const pressed = (3.3 * input.seriesOhms * 1.05) / (input.seriesOhms * 1.05 + pullOhms * 0.95);
        const after = (f: number) => openFor(input, input.bounceSeconds, pullOhms * 0.95, f, pressed);
        expect(after(farads! * 0.8)).toBeLessThanOrEqual(0.99 + 1e-3);
        expect(after(exactFarads! * 0.99)).toBeGreaterThan(0.99);
        expect(input.values.filter((f) => f < farads!).every((f) => f * 0.8 < exactFarads!)).toBe(true);
      }),
      { numRuns: runs(60) },
    );
  });

  test('a pull-up too strong for the resistor at the key never reads low; thresholds upside down are refused', () => {
    expect(debounce({ ...key, seriesOhms: 5000 }).verdict).toBe('never-low');
    expect(debounce({ ...key, values: [1e-9] })).toMatchObject({ verdict: 'no-value', farads: undefined });
    expect(debounce({ ...key, bounceSeconds: 20e-3 }).verdict).toBe('slow');
    expect(() => debounce({ ...key, lowVolts: 2.5 })).toThrow('thresholds 2.5 and 2.31');
    expect(() => debounce({ ...key, bounceSeconds: 0 })).toThrow('bounce 0');
  });
});

describe('a pulled-up line', () => {
  test('by hand at 3.3 V: 725 Ω to 99 kΩ by leakage; a pull-down of 45 kΩ and a slow rise each set another end', () => {
    const { outputs } = run('line-pull-up', { capacitance: '1p' });
    expect(outputs).toMatchObject({ leastOhms: near(2.9 / 4e-3), mostOhms: near(0.99 / 10e-6, 3), limit: 'leakage', ohms: 8200 });
    expect(run('line-pull-up', { down: '45k', capacitance: '1p' }).outputs).toMatchObject({
      limit: 'pull-down',
      // By hand, with a pull-down of 42.75 kΩ: 3.3 V / R − 10 µA = 2.31 V · (1 / R + 1 / 42.75 kΩ).
      mostOhms: near(0.99 / (10e-6 + 2.31 / 42.75e3), 2),
    });
    const slow = run('line-pull-up', { rise: '1u' }).outputs;
    expect(slow).toMatchObject({ limit: 'rise' });
    // The leakage takes a little of the level that the rise goes to: below what the rise alone would allow.
    expect(slow['mostOhms']).toBeLessThan(1e-6 / (50e-12 * Math.log(1 / 0.3)));
  });

  test('all limits together: at every corner the line is high in time, as a stepped circuit says', () => {
    const values = valuesOf('E24', 100, 1e6);
    fc.assert(
      fc.property(
        fc.record({
          leakAmps: fc.double({ min: 1e-6, max: 2e-4, noNaN: true }),
          farads: fc.double({ min: 1e-11, max: 1e-9, noNaN: true }),
          riseSeconds: fc.double({ min: 2e-7, max: 2e-5, noNaN: true }),
          downOhms: fc.option(fc.double({ min: 1e4, max: 2e5, noNaN: true }), { nil: undefined }),
        }),
        ({ downOhms, ...given }) => {
          const levels = { volts: 3.3, highVolts: 2.31, lowVolts: 0.4, lowAmps: 4e-3, tolerance: 0.05, values };
          const found = linePull({ ...levels, ...given, ...(downOhms ? { downOhms } : {}) });
          if (found.ohms === undefined) return;
          // Euler steps of a node: the pull-up at its most, the pull-down at its least, all the leakage.
          const [up, down] = [found.ohms * 1.05, downOhms ? downOhms * 0.95 : Infinity];
          const steps = 4000;
          let volts = 0;
          for (let n = 0; n < steps; n += 1)
            volts += (((3.3 - volts) / up - volts / down - given.leakAmps) / given.farads) * (given.riseSeconds / steps);
          expect(volts).toBeGreaterThanOrEqual(2.31 * 0.998);
          expect(found.restVolts!).toBeGreaterThan(2.31);
        },
      ),
    );
  });

  test('what is chosen keeps the window at both ends of its tolerance', () => {
    const values = valuesOf('E12', 100, 1e6);
    fc.assert(
      fc.property(
        fc.double({ min: 1e-6, max: 1e-4, noNaN: true }),
        fc.double({ min: 1e-11, max: 1e-9, noNaN: true }),
        (leakAmps, farads) => {
          const found = linePull({
            volts: 5,
            highVolts: 3.5,
            leakAmps,
            lowVolts: 0.4,
            lowAmps: 4e-3,
            farads,
            riseSeconds: 2e-6,
            tolerance: 0.05,
            values,
          });
          if (found.ohms === undefined) expect(values.some((v) => v * 0.95 >= found.leastOhms && v * 1.05 <= found.mostOhms)).toBe(false);
          else {
            expect(values).toContain(found.ohms);
            expect(found.ohms * 0.95).toBeGreaterThanOrEqual(found.leastOhms);
            expect(found.riseSeconds!).toBeLessThanOrEqual(2e-6 * (1 + 1e-9));
            expect(leakAmps * found.ohms * 1.05).toBeLessThanOrEqual(1.5 + 1e-9);
          }
        },
      ),
    );
  });

  test('1-Wire: three metres take the usual 4.7 kΩ or less, thirty metres much less', () => {
    const ohms = (metres: string) => run('one-wire-pull-up', { metres, vdd: '5' }).outputs['ohms'] as number;
    expect(ohms('3')).toBeLessThanOrEqual(6800);
    expect(ohms('30')).toBeLessThan(ohms('3'));
  });

  test('in series with I2C: behind the resistor a low level is still a tenth of the supply below the threshold', () => {
    const { outputs } = run('i2c-series', { vdd: '5', 'pull-up': '10k', vol: '0.4', tolerance: '0' });
    // 0.6 V of 4.6 V: Rs / (Rs + 10 kΩ) = 0.1304
    expect(outputs).toMatchObject({ mostOhms: near(1500, 3), ohms: 1500, lowVolts: near(1) });
    expect(() => run('i2c-series', { vdd: '3.3', vol: '0.7' })).toThrow('low level 0.7: expected below');
  });

  test('damping: what the wire has less what the output has; slow where the receiver is heavy', () => {
    expect(run('damping', {}).outputs).toMatchObject({ exactOhms: 70, ohms: 68, verdict: 'good' });
    expect(run('damping', { capacitance: '2n' }).outputs).toMatchObject({ verdict: 'slow' });
    expect(run('damping', { drive: '150' }).outputs).toMatchObject({ exactOhms: 0, ohms: 0 });
  });
});

describe('drivers', () => {
  test('the current setting by the table of the MAX7219: 20 mA at 2.0 V is 28 kΩ, and the next value up gives less', () => {
    const { outputs } = run('current-set', { sheet: 'driver-max7219-dip24' });
    expect(outputs).toMatchObject({ exactOhms: near(28_000, 3), ohms: 33_000 });
    expect(outputs['ampsMax']).toBeLessThan(20e-3);
    expect(outputs['totalAmps']).toBeCloseTo(8e-3 + (outputs['ampsMax'] as number) * 8, 9);
    expect(() => run('current-set', { sheet: 'nothing' })).toThrow(
      /sheet nothing: expected a part with a table of segment currents: .*max7219/,
    );
  });

  test('a gate: opened by 3.3 V where its sheet says so at 2.5 V, weak at 4.5 V, not at all above the level', () => {
    expect(run('transistor-gate', { load: '2' }).outputs).toMatchObject({
      ohms: 470,
      downOhms: 47_000,
      dropVolts: near(0.1),
      watts: near(0.2),
      verdict: 'good',
    });
    expect(run('transistor-gate', { load: '2', rated: '4.5' }).outputs).toMatchObject({ verdict: 'weak' });
    expect(run('transistor-gate', { load: '2', threshold: '4' }).outputs).toMatchObject({ verdict: 'off' });
    // 28.3 A through 50 mΩ are 40 W.
    expect(run('transistor-gate', { load: '28.3' }).outputs).toMatchObject({ verdict: 'hot', watts: near(40.0, 0) });
    expect(run('transistor-gate', { load: '4', 'most-watts': '1' }).outputs).toMatchObject({ verdict: 'good' });
  });

  test('digits: four at 3 ms are 83 Hz; resistor for the peak through transistor and output; who is over is said', () => {
    const { outputs, spans } = run('multiplex', { 'package-most': '0.5', drive: '20' });
    expect(outputs).toMatchObject({
      refreshHz: near(1 / 12e-3),
      peakAmps: near(8e-3),
      exactOhms: near((5 - 2 - 0.2) / 8e-3 - 20, 3),
      ohms: 330,
      verdict: 'steady',
    });
    expect(spans!.rows.map((row) => row.range.max)).toEqual([near(3e-3), near(6e-3), near(9e-3), near(12e-3)]);
    expect(run('multiplex', { average: '4m', 'package-most': '0.1' }).outputs).toMatchObject({ verdict: 'package-over' });
    expect(run('multiplex', { average: '20m' }).outputs).toMatchObject({ verdict: 'pulse-over' });
    // Flicker is seen; it does not excuse what destroys, nor a supply with which nothing lights.
    expect(run('multiplex', { average: '20m', dwell: '10m' }).outputs).toMatchObject({ verdict: 'pulse-over' });
    expect(run('multiplex', { supply: '1.8', dwell: '10m' }).outputs).toMatchObject({ verdict: 'too-low' });
    expect(run('multiplex', { dwell: '10m', 'package-most': '0.1' }).outputs).toMatchObject({ verdict: 'flickers' });
    // 3 · 0.7 mA · 8 is 16.8 mA, whatever floating point makes of it.
    expect(run('multiplex', { digits: '3', average: '0.7m', 'package-most': '16.8m' }).outputs).toMatchObject({ verdict: 'steady' });
    expect(run('led', { supply: '3.3', vf: '3.1', 'vf-max': '3.4', current: '5m' }).outputs).toMatchObject({
      verdict: 'dark-at-worst',
      ampsMin: 0,
    });
    expect(run('pull-up', { vdd: '1.8', 'pull-ups': '1k' }).outputs).toMatchObject({
      // 0.2 VDD at 2 mA up to 2 V: (1.8 − 0.36) / 2 mA.
      leastOhms: near(720),
      verdict: 'good',
    });
    expect(run('pull-up', { capacitance: '420p', hz: '100k', 'pull-ups': '1.5k' }).outputs).toMatchObject({ verdict: 'over-capacitance' });
    expect(() => run('pull-up', { hz: '3.4M' })).toThrow('expected up to 1 MHz');
    expect(run('sensor-divider', { from: '1k', to: '100k', series: '4.7k' }).outputs).toMatchObject({
      ohms: 4700,
      span: near(4.7 / 5.7 - 4.7 / 104.7, 6),
    });
    expect(run('multiplex', { supply: '2' }).outputs).toMatchObject({ verdict: 'too-low', ohms: null });
    expect(run('multiplex', { common: 'anode' }).outputs['transistor']).toMatch(/PNP/);
    expect(() => run('multiplex', { common: 'both' })).toThrow('common both: expected cathode or anode');
  });
});

describe('dividers', () => {
  test('contrast: 4.4 V of glass at 5 V is 0.6 V; at 4.4 V it is ground; at 3.3 V it lies below ground', () => {
    const { outputs } = run('contrast', {});
    expect(outputs).toMatchObject({ volts: near(0.6), turn: near(0.12), verdict: 'good' });
    const [top, bottom] = [outputs['top'] as number, outputs['bottom'] as number];
    expect((5 * bottom) / (top + bottom)).toBeCloseTo(outputs['given'] as number, 9);
    // No pair of the series about the trimmer comes nearer.
    const values = valuesOf('E12', 10, 1e6);
    const off = (a: number, b: number) => (a + b < 5000 || a + b > 20_000 ? Infinity : Math.abs((5 * b) / (a + b) - 0.6));
    const best = Math.min(...values.flatMap((a) => values.map((b) => off(a, b))));
    expect(off(top, bottom)).toBeCloseTo(best, 9);
    expect(run('contrast', { supply: '4.4' }).outputs).toMatchObject({ verdict: 'at-ground', turn: 0 });
    expect(run('contrast', { supply: '3.3' }).outputs).toMatchObject({ verdict: 'needs-negative', top: null });
  });

  test('beside a thermistor: counts for a degree, and what the analog input sees', () => {
    const { outputs } = run('sensor-divider', { from: '32k', to: '4k', units: '50' });
    const share = (sensor: number) => 12_000 / (12_000 + sensor);
    expect(outputs).toMatchObject({ ohms: 12_000, sourceOhms: near((32 * 12e3) / 44, 3), verdict: 'good' });
    expect(outputs['countsPerUnit']).toBeCloseTo(((share(4000) - share(32_000)) * 1023) / 50, 6);
    expect(run('sensor-divider', { from: '1M', to: '10k' }).outputs).toMatchObject({ verdict: 'source-over' });
    expect(run('sensor-divider', { from: '10k', to: '10.1k', units: '100' }).outputs).toMatchObject({ verdict: 'coarse' });
  });
});

test('one’s own values stand for a series; no values on hand and values that are none are told', () => {
  expect(run('led', { series: '100, 470, 1k' }).outputs).toMatchObject({ ohms: 470 });
  expect(() => run('led', { series: '' })).toThrow('series (empty): expected one of E3');
  expect(() => run('led', { series: '0, 5' })).toThrow('values above zero');
  expect(() => run('led', { series: '5x' })).toThrow('series 5x');
});

test('a long search tells how far it is, rising to the end', () => {
  const heard: number[] = [];
  const calculation = CALCULATIONS.find((c) => c.id === 'ladder')!;
  const result = calculation.run(readValues(calculation, { keys: '8' }), {
    sheets: shippedSheets,
    onProgress: (share) => heard.push(share),
  });
  expect(heard).toEqual(heard.toSorted((a, b) => a - b));
  expect([heard[0], heard.at(-1)]).toEqual([0, 1]);
  expect(heard.length).toBeGreaterThan(10);
  // The picture and the plan get what the outputs say.
  expect(result.spans!.rows).toHaveLength(8);
  expect(result.values).toHaveLength(8);
});

describe('corners on an axis', () => {
  test('an LED has its currents there, a pull-up its window with what is there and what it becomes', () => {
    const led = run('led', { supply: '3.3', vf: '2', current: '5m' });
    expect(led.spans!.rows).toEqual([
      { label: 'LED current', range: expect.objectContaining({ min: led.outputs['ampsMin'], max: led.outputs['ampsMax'] }) as object },
    ]);
    expect(led.spans!.to).toBeGreaterThan(led.outputs['ampsMax'] as number);

    const weak = run('pull-up', { 'pull-ups': '10k', hz: '400k', capacitance: '200p' });
    expect(weak.outputs['verdict']).toBe('too-weak');
    const { leastOhms, mostOhms } = weak.outputs as { leastOhms: number; mostOhms: number };
    expect(weak.spans!.windows).toEqual([{ from: leastOhms, to: mostOhms, good: true }]);
    const [there, becomes] = weak.spans!.rows;
    expect(there!.range.max).toBeGreaterThan(mostOhms);
    expect(becomes!.range.min).toBeGreaterThanOrEqual(leastOhms);
    expect(becomes!.range.max).toBeLessThanOrEqual(mostOhms);
  });

  test('a window that is empty, and a line without a preferred value, are not drawn', () => {
    // More capacitance than any pull-up that the outputs can sink could charge in time.
    const none = run('pull-up', { 'pull-ups': '2k', hz: '400k', capacitance: '600p' });
    expect(none.outputs['leastOhms']).toBeGreaterThan(none.outputs['mostOhms'] as number);
    expect(none.spans!.windows).toEqual([]);
    const line = run('line-pull-up', { leak: '10m' });
    expect([line.outputs['ohms'], line.spans]).toEqual([null, undefined]);
  });
});
