import { partnersOf } from './exclusions';
import type { Instance, Item } from './instance';
import { Symmetry } from './symmetry';

const item = (id: string, pins: readonly string[], unwired = 1): Item => ({
  id,
  terminals: [`${id}:A`],
  candidates: pins.map((pin) => ({ pin, moved: 0, caution: 0, unusual: 0, waste: 0 })),
  leave: { unwired, moved: 0 },
});
const instance = (items: readonly Item[], pairs: readonly (readonly [string, string])[]): Instance => ({
  format: 'roof-chart-instance',
  version: 2,
  items,
  members: [],
  controllers: [],
  clashes: [],
  resources: [{ id: 'timer 1', pairs }],
});

test('of items with the same pins at the same price those are alike that exclude the same others, in whatever order they are asked for', () => {
  const items = [
    item('a', ['1', '2']),
    item('b', ['1', '2']),
    item('c', ['1', '2']),
    item('d', ['1', '2']),
    item('other-pins', ['2', '3']),
    item('optional', ['1', '2'], 0),
  ];
  // a and b exclude each other and c; c excludes d, too.
  const one = instance(items, [
    ['a', 'b'],
    ['a', 'c'],
    ['b', 'c'],
    ['c', 'd'],
  ]);
  const alike: string[] = [];
  const symmetry = new Symmetry(one, partnersOf(one));
  const each = items.map((_, at) => at);
  for (const round of [each, each.toReversed()])
    for (const a of round) for (const b of round) if (a !== b && symmetry.same(a, b)) alike.push(`${items[a]!.id} ${items[b]!.id}`);
  expect(alike).toEqual(['a b', 'b a', 'b a', 'a b']);
});
