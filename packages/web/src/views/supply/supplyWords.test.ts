import type { RailSheet } from '@roof-chart/core/electrics/supplySheet';
import { besidesWords, heatWords, railWords, scaleOf } from './supplyWords';

const sheet = (over: Partial<RailSheet> = {}): RailSheet => ({
  rail: { id: '3v3', label: '3V3', volts: { min: 3.2, typ: 3.3, max: 3.4 }, budgetMilliamps: 300, feed: '', direction: 'out' },
  lines: [],
  typicalMilliamps: 57,
  peakMilliamps: 120,
  besides: undefined,
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
  const regulator = { from: 'vbus', kind: 'linear', dropVolts: 1.95, milliamps: 200, watts: 0.39, kelvin: 78 } as const;
  expect(heatWords(sheet({ regulator }))).toMatch(/linear regulator takes 1\.95 V away at 200 mA: 390 mW of heat, 78 K above the air/);
  expect(heatWords(sheet({ regulator: { ...regulator, kelvin: undefined } }))).toMatch(/390 mW of heat\.$/);
  const converter = { ...regulator, kind: 'converter', dropVolts: 0, watts: 0.12, kelvin: undefined } as const;
  expect(heatWords(sheet({ regulator: converter }))).toBe('Its converter turns 120 mW into heat at 200 mA.');
  expect(heatWords(sheet())).toBeUndefined();
});

test('what the board takes besides is said, since no bar shows it', () => {
  expect(besidesWords(sheet())).toBeUndefined();
  expect(besidesWords(sheet({ besides: { typicalMilliamps: 100, peakMilliamps: 240, heldMilliamps: 100 } }))).toBe(
    'The board itself draws another 100 mA, up to 240 mA; the limit already allows for that.',
  );
});
