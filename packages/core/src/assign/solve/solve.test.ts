import type { Instance, Item } from '../model/instance';
import { INSTANCE_LIMITS, NO_COSTS } from '../model/weights';
import { solve } from './solve';

/** Signals with a pin of their own each; the first and the last exclude each other on a timer. */
function many(count: number): Instance {
  const items = Array.from({ length: count }, (_, n): Item => ({
    id: `i${n}`,
    terminals: [`i${n}:A`],
    candidates: [{ pin: `P${n}`, moved: 0, caution: 0, unusual: 0, waste: 0, uses: ['timer 1'] }],
    leave: { unwired: 1, moved: n === count - 1 ? 2 : 0 },
  }));
  const last = `i${count - 1}`;
  return {
    format: 'roof-chart-instance',
    version: 2,
    items,
    members: [],
    controllers: [],
    clashes: [],
    resources: [{ id: 'timer 1', pairs: [['i0', last]] }],
  };
}

test('as many signals as are told apart are solved whole and proved: of two that exclude each other one stays open', () => {
  const { costs, proved, choice } = solve(many(INSTANCE_LIMITS.demands));
  expect([costs, proved, Object.keys(choice.items).length]).toEqual([{ ...NO_COSTS, unwired: 1 }, true, INSTANCE_LIMITS.demands - 1]);
  expect(choice.items).not.toHaveProperty('i0');
});

test('of more, the first are solved, the others stay open and count as such, and nothing is claimed', () => {
  const { costs, bound, proved, choice } = solve(many(INSTANCE_LIMITS.demands + 5));
  expect([costs, bound, proved]).toEqual([{ ...NO_COSTS, unwired: 5, moved: 2 }, NO_COSTS, false]);
  expect([Object.keys(choice.items).length, choice.items.i0, choice.items.i699]).toEqual([INSTANCE_LIMITS.demands, 'P0', 'P699']);
});
