import type { RailSheet } from '@roof-chart/core/electrics/supplySheet';
import { heatWords, railWords, scaleOf } from './supplyWords';

const sheet = (over: Partial<RailSheet> = {}): RailSheet => ({
  rail: { id: '3v3', label: '3V3', volts: { min: 3.2, typ: 3.3, max: 3.4 }, budgetMilliamps: 300, feed: '', direction: 'out' },
  lines: [],
  typicalMilliamps: 57,
  peakMilliamps: 120,
  regulator: undefined,
  ...over,
});

test('a rail says what it gives on average, at most, and can', () => {
  expect(railWords(sheet())).toBe('57 mA on average, up to 120 mA of 300 mA');
  const { budgetMilliamps: _none, ...open } = sheet().rail;
  expect(railWords(sheet({ rail: open, peakMilliamps: 1400 }))).toBe('57 mA on average, up to 1.4 A');
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
  const regulator = { from: 'vbus', dropVolts: 1.95, watts: 0.39, kelvin: 78 };
  expect(heatWords(sheet({ regulator }))).toMatch(/1\.95 V away and turns 390 mW into heat: 78 K above the air/);
  expect(heatWords(sheet({ regulator: { ...regulator, kelvin: undefined } }))).toMatch(/into heat\.$/);
  expect(heatWords(sheet())).toBeUndefined();
});
