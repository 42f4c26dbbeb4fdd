import fc from 'fast-check';
import { runs } from '../../../tests/runs';
import { assign } from './assignment';

/** Every way to give rows columns, each column once at most: the least total, the slow way. */
function leastTotal(costs: readonly (readonly number[])[], leave: readonly number[]): number {
  const from = (row: number, taken: ReadonlySet<number>): number => {
    if (row === costs.length) return 0;
    const without = leave[row]! + from(row + 1, taken);
    return costs[row]!.reduce(
      (best, cost, column) =>
        taken.has(column) || cost === Infinity ? best : Math.min(best, cost + from(row + 1, new Set([...taken, column]))),
      without,
    );
  };
  return from(0, new Set());
}

const cost = fc.oneof({ weight: 3, arbitrary: fc.nat(12) }, fc.constant(Infinity), fc.integer({ min: 1e9, max: 1e9 + 5 }));

test('the total is that of trying every way; each column has one row, and each row a column it may have', () => {
  const table = fc.tuple(fc.integer({ min: 1, max: 5 }), fc.integer({ min: 1, max: 5 })).chain(([rows, columns]) =>
    fc.record({
      costs: fc.array(fc.array(cost, { minLength: columns, maxLength: columns }), { minLength: rows, maxLength: rows }),
      leave: fc.array(fc.oneof(fc.nat(15), fc.constant(1e12)), { minLength: rows, maxLength: rows }),
    }),
  );
  fc.assert(
    fc.property(table, ({ costs, leave }) => {
      const columns = costs[0]!.length;
      const found = assign(costs.length, columns, Float64Array.from(costs.flat()), Float64Array.from(leave));
      expect(found.total).toBe(leastTotal(costs, leave));
      const used = [...found.columns].filter((column) => column >= 0);
      expect(new Set(used).size).toBe(used.length);
      expect([...found.columns].reduce((sum, column, row) => sum + (column < 0 ? leave[row]! : costs[row]![column]!), 0)).toBe(found.total);
    }),
    { numRuns: runs(1500) },
  );
});

test('no columns at all, and no rows', () => {
  expect(assign(2, 0, new Float64Array(0), Float64Array.from([3, 4])).total).toBe(7);
  expect(assign(0, 3, new Float64Array(0), new Float64Array(0))).toMatchObject({ total: 0 });
});
