import { valuesWithin, nearestOf, valuesOf } from './series';

test('E12 and E24 are the preferred values of IEC 60063, in every decade, both bounds included', () => {
  expect(valuesOf('E12', 1, 10)).toEqual([1, 1.2, 1.5, 1.8, 2.2, 2.7, 3.3, 3.9, 4.7, 5.6, 6.8, 8.2, 10]);
  expect(valuesOf('E24', 470, 680)).toEqual([470, 510, 560, 620, 680]);
  expect(valuesOf('E12', 471, 559)).toEqual([]);
});

test('values on hand of one’s own are those within the bounds, both included, ascending', () => {
  const own = { series: 'own', own: [4700, 330, 100, 1e6, 99, 1_000_001] } as const;
  expect(valuesWithin(own, 100, 1e6)).toEqual([100, 330, 4700, 1e6]);
  expect(valuesWithin({ series: 'own' }, 0, 1e9)).toEqual([]);
  expect(valuesWithin({ series: 'E3', own: [5] }, 1, 5)).toEqual([1, 2.2, 4.7]);
});

test('nearest is by ratio: 150 lies nearer to 220 than to 100, 148 does not; of two as near the first', () => {
  expect(nearestOf([100, 220], 150)).toBe(220);
  expect(nearestOf([100, 220], 148)).toBe(100);
  expect(nearestOf([50, 200], 100)).toBe(50);
  expect(nearestOf([], 100)).toBeUndefined();
});
