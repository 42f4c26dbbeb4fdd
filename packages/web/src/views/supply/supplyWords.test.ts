import type { RailReport } from '@roof-chart/core/electrics/reports/railReport';
import { besidesWords, heatWords, railWords, scaleOf } from './supplyWords';

const sheet = (over: Partial<RailReport> = {}): RailReport => ({
  rail: { id: '3v3', label: '3V3', volts: { min: 3.2, typ: 3.3, max: 3.4 }, budgetMilliamps: 300, feed: '', direction: 'out' },
  lines: [],
  typicalMilliamps: 57,
  peakMilliamps: 120,
  besides: undefined,
  regulator: undefined,
  ...over,
});

test('a rail says what it gives on average, at most, and can', () => {
  expect(railWords(sheet())).toBe('57 mA average, 120 mA peak of 300 mA');
  const { budgetMilliamps: _none, ...open } = sheet().rail;
  expect(railWords(sheet({ rail: open, peakMilliamps: 1400 }))).toBe('57 mA average, 1.4 A peak');
});

test.each([
  [120, 300],
  [1400, 500],
  [0.4, undefined],
  [9000, 1000],
])('an axis holds a peak of %p mA and a limit of %p mA with a handful of ticks', (peakMilliamps, budget) => {
  const { budgetMilliamps: _none, ...rail } = sheet().rail;
  const scale = scaleOf(sheet({ peakMilliamps, rail: budget === undefined ? rail : { ...rail, budgetMilliamps: budget } }));
  expect(scale.max).toBeGreaterThanOrEqual(Math.max(peakMilliamps, budget ?? 0));
  expect(scale.ticks.length).toBeGreaterThan(1);
  expect(scale.ticks.length).toBeLessThan(11);
});

test('heat is said with what it means, where the sheet says how the regulator cools', () => {
  const regulator = { from: 'vbus', kind: 'linear', dropVolts: 1.95, milliamps: 200, watts: 0.39, kelvin: 78 } as const;
  expect(heatWords(sheet({ regulator }))).toMatch(/Linear regulator: 1\.95 V drop at 200 mA, 390 mW dissipation, 78 K temperature rise/);
  expect(heatWords(sheet({ regulator: { ...regulator, kelvin: undefined } }))).toMatch(/390 mW dissipation\.$/);
  const converter = { ...regulator, kind: 'converter', dropVolts: 0, watts: 0.12, kelvin: undefined } as const;
  expect(heatWords(sheet({ regulator: converter }))).toBe('Converter: 120 mW dissipation at 200 mA.');
  expect(heatWords(sheet())).toBeUndefined();
});

test('what the board takes besides is said, since no bar shows it', () => {
  expect(besidesWords(sheet())).toBeUndefined();
  expect(besidesWords(sheet({ besides: { typicalMilliamps: 100, peakMilliamps: 240, heldMilliamps: 100 } }))).toBe(
    'The board draws another 100 mA, 240 mA peak; the limit already accounts for it.',
  );
});
