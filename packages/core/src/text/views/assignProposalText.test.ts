import { newPlan, type Plan } from '../../plan/plan';
import { countText, wireCounts } from './assignProposalText';

const plan = (ends: Record<string, string>): Plan => ({
  ...newPlan('p', 'P', { id: 'b', version: 1 }),
  wires: Object.fromEntries(Object.entries(ends).map(([key, pin]) => [key, { end: { to: 'pin', pin }, colour: 'red', locked: false }])),
});

test('wires are counted as added, moved and removed', () => {
  const counts = wireCounts(plan({ 'a:X': 'P1', 'a:Y': 'P2', 'a:Z': 'P3' }), plan({ 'a:X': 'P1', 'a:Y': 'P4', 'a:W': 'P5' }));
  expect(counts).toEqual({ added: 1, moved: 1, removed: 1 });
  expect([countText(counts), countText({ added: 0, moved: 0, removed: 0 })]).toEqual([
    'Wires: 1 added, 1 moved, 1 removed',
    'No wires change',
  ]);
});
