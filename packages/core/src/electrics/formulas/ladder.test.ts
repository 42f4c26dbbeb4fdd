import fc from 'fast-check';
import { runs } from '../../../tests/runs';
import { valuesOf } from '../../quantity/series';
import { ladder, ladderGap } from './ladder';

/** Every pull and every row that there is. */
function everyLadder(keys: number, values: readonly number[], tolerance: number): number {
  let best = -Infinity;
  const rows = (left: number): readonly (readonly number[])[] =>
    left === 0 ? [[]] : rows(left - 1).flatMap((row) => values.map((value) => [...row, value]));
  for (const row of rows(keys - 1)) for (const pull of values) best = Math.max(best, ladderGap({ tolerance }, pull, row));
  return best;
}

/** A generator of its own, so that the draws are the same everywhere. */
function randomFrom(seed: number): () => number {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}

test('up to five keys: no ladder of the values on hand has a larger gap, by trying them all', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 5 }),
      fc.uniqueArray(fc.constantFrom(...valuesOf('E12', 100, 47_000)), { minLength: 1, maxLength: 5 }),
      fc.constantFrom(0, 0.01, 0.05, 0.1),
      (keys, values, tolerance) => {
        const { best, proved } = ladder({ keys, values, tolerance });
        const all = everyLadder(keys, values, tolerance);
        expect(proved).toBe(true);
        if (all <= 1e-12) expect(best === undefined || best.gap <= 1e-9).toBe(true);
        else expect(best!.gap).toBeCloseTo(all, 12);
      },
    ),
    { numRuns: runs(120) },
  );
});

test('six keys of E12 at 5 % are proved, and better than twenty thousand draws', () => {
  const values = valuesOf('E12', 100, 100_000);
  const { best, proved } = ladder({ keys: 6, values, tolerance: 0.05 });
  expect([proved, best!.row.length]).toEqual([true, 5]);
  const draw = randomFrom(1);
  const pick = () => values[Math.floor(draw() * values.length)]!;
  for (let n = 0; n < runs(20_000); n += 1)
    expect(ladderGap({ tolerance: 0.05 }, pick(), [pick(), pick(), pick(), pick(), pick()])).toBeLessThanOrEqual(best!.gap + 1e-12);
  // By hand: each level lies where its sum says, with the corners about it.
  const sum = best!.row[0]! + best!.row[1]!;
  expect(best!.levels[2]!.typ).toBeCloseTo(sum / (sum + best!.pull), 12);
  expect(best!.levels[2]!.min).toBeCloseTo((sum * 0.95) / (sum * 0.95 + best!.pull * 1.05), 12);
});

test('sixteen keys at 1 %: within its nodes at least as good as a hundred thousand draws', () => {
  const values = valuesOf('E24', 100, 100_000);
  const { best } = ladder({ keys: 16, values, tolerance: 0.01 }, { nodes: 20_000 });
  const draw = randomFrom(7);
  const row = new Array<number>(15);
  let most = -Infinity;
  for (let n = 0; n < runs(100_000); n += 1) {
    const pull = values[Math.floor(draw() * values.length)]!;
    for (let at = 0; at < row.length; at += 1) row[at] = values[Math.floor(draw() * values.length)]!;
    most = Math.max(most, ladderGap({ tolerance: 0.01 }, pull, row));
  }
  expect(best!.gap).toBeGreaterThan(0);
  expect(best!.gap).toBeGreaterThanOrEqual(most);
});

test('thresholds lie between neighbours, in rising order; the last below the supply', () => {
  const { best } = ladder({ keys: 5, values: valuesOf('E12', 100, 100_000), tolerance: 0.05 });
  for (const [at, threshold] of best!.thresholds.entries()) {
    expect(threshold).toBeGreaterThan(best!.levels[at]!.max);
    expect(threshold).toBeLessThan(best!.levels[at + 1]?.min ?? 1);
  }
});

test('too many keys, no values on hand, a tolerance that is none: a sentence; keys that no values tell apart: none', () => {
  expect(() => ladder({ keys: 40, values: [1000], tolerance: 0.05 })).toThrow('keys 40: expected 1 to 16 on one pin');
  expect(() => ladder({ keys: 3, values: [], tolerance: 0.05 })).toThrow('at least one resistor value');
  expect(() => ladder({ keys: 3, values: [1000], tolerance: -0.1 })).toThrow('tolerance -0.1');
  expect(ladder({ keys: 8, values: [1000], tolerance: 0.2 }).best).toBeUndefined();
  const stopped = ladder({ keys: 12, values: valuesOf('E24', 100, 100_000), tolerance: 0.01 }, { stop: () => true });
  expect(stopped.best).toBeDefined();
});
