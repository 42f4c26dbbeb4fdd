import { findOrThrow, getOrThrow, lastOrThrow } from './orThrow';

test('what is there is given', () => {
  expect(getOrThrow(new Map([['a', 0]]), 'a')).toBe(0);
  expect(findOrThrow([3, 5, 8], (n, at) => n > 4 && at > 0)).toBe(5);
  expect(findOrThrow([undefined], () => true)).toBeUndefined();
  expect(lastOrThrow([1, 2])).toBe(2);
});

test('what is missing is said', () => {
  expect(() => getOrThrow(new Map([['a', 1]]), 'b')).toThrow(new RangeError('No entry for b'));
  expect(() => getOrThrow(new Map<object, number>(), {})).toThrow('No entry for this object');
  expect(() => findOrThrow([1, 2], (n) => n > 2)).toThrow('None of 2 members');
  expect(() => lastOrThrow([])).toThrow('empty list');
});
