import fc from 'fast-check';
import { placing, type Scale } from './placing';

const scales: readonly Scale[] = [
  { min: 0, max: 127, log: false, ticks: [] },
  { min: 300, max: 100_000, log: true, ticks: [] },
];

test.each(scales)('a value lies on the axis where it is read back from, in order, and never beside it ($log)', (scale) => {
  const { x, value } = placing(scale, 620);
  expect([x(scale.min), x(scale.max)]).toEqual([0, 620]);
  fc.assert(
    fc.property(
      fc.double({ min: scale.min, max: scale.max, noNaN: true }),
      fc.double({ min: -1e9, max: 1e9, noNaN: true }),
      (inside, anywhere) => {
        expect(value(x(inside))).toBeCloseTo(inside, 3);
        expect(x(anywhere)).toBeGreaterThanOrEqual(0);
        expect(x(anywhere)).toBeLessThanOrEqual(620);
        if (inside < scale.max) expect(x(inside)).toBeLessThanOrEqual(x(Math.min(scale.max, inside * 1.01 + 0.001)));
      },
    ),
  );
});
