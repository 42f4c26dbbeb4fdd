import fc from 'fast-check';
import { scrolledTo } from './viewport';

test('a place in sight moves nothing', () => {
  expect(scrolledTo({ from: 40, size: 200, covered: 50 }, { at: 100, clear: 20 })).toBe(40);
});

test('a place beyond either end is brought in with room beside it', () => {
  expect(scrolledTo({ from: 40, size: 200, covered: 50 }, { at: 30, clear: 20 })).toBe(10);
  expect(scrolledTo({ from: 40, size: 200, covered: 50 }, { at: 300, clear: 20 })).toBe(170);
});

test('once brought in sight, a place stays where it is', () => {
  fc.assert(
    fc.property(fc.nat(2000), fc.nat(2000), (from, at) => {
      const window = { from, size: 300, covered: 40 };
      const there = scrolledTo(window, { at, clear: 20 });
      expect(there).toBeGreaterThanOrEqual(0);
      expect(scrolledTo({ ...window, from: there }, { at, clear: 20 })).toBe(there);
      expect(at).toBeLessThanOrEqual(there + 260);
    }),
  );
});
