import { alikeBut } from './alikeBut';

test('a value that differs in what does not matter gives the one before; any other is itself', () => {
  const wires = { a: 1 };
  const same = alikeBut<{ wires: object; ticks: object; more?: number }>(['ticks']);
  const first = { wires, ticks: {} };
  expect(same(first)).toBe(first);
  expect(same({ wires, ticks: { b: 2 } })).toBe(first);
  const other = { wires: { a: 1 }, ticks: {} };
  expect(same(other)).toBe(other);
  const longer = { ...other, more: 1 };
  expect(same(longer)).toBe(longer);
  expect(same(other)).toBe(other);
});
