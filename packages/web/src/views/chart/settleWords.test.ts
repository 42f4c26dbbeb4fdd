import { newPlan, type Plan } from '@roof-chart/core/plan/plan';
import { countWords, proofWords, wireCounts } from './settleWords';

const plan = (ends: Record<string, string>): Plan => ({
  ...newPlan('p', 'P', { id: 'b', version: 1 }),
  wires: Object.fromEntries(Object.entries(ends).map(([key, pin]) => [key, { end: { to: 'pin', pin }, colour: 'red', locked: false }])),
});

test('wires are counted as added, moved and removed', () => {
  const counts = wireCounts(plan({ 'a:X': 'P1', 'a:Y': 'P2', 'a:Z': 'P3' }), plan({ 'a:X': 'P1', 'a:Y': 'P4', 'a:W': 'P5' }));
  expect(counts).toEqual({ added: 1, moved: 1, removed: 1 });
  expect([countWords(counts), countWords({ added: 0, moved: 0, removed: 0 })]).toEqual([
    'Wires: 1 added, 1 moved, 1 removed',
    'No wire changes',
  ]);
});

test('what is not proved does not say so', () => {
  const costs = { unwired: 0, moved: 2, caution: 0, waste: 9 };
  expect(proofWords({ proved: true, costs, bound: costs })).toMatch(/^Proved: no plan moves fewer wires \(2\)/);
  expect(proofWords({ proved: true, costs: { ...costs, unwired: 3 }, bound: costs })).toMatch(/fewer terminals open than 3/);
  expect(proofWords({ proved: false, costs, bound: { ...costs, moved: 0 } })).toMatch(/^Best found/);
});
