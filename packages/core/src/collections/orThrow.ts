/** The value of a key that a map is known to have.
 *  @throws RangeError where it does not */
export function getOrThrow<K, V>(map: { get(key: K): V | undefined }, key: K): V {
  const value = map.get(key);
  if (value === undefined) throw new RangeError(`No entry for ${typeof key === 'object' ? 'this object' : String(key)}`);
  return value;
}

/** The first member of a list that passes a test, where one is known to.
 *  @throws RangeError where none does */
export function findOrThrow<T, S extends T = T>(
  list: readonly T[],
  test: ((member: T, at: number) => member is S) | ((member: T, at: number) => unknown),
): S {
  const at = list.findIndex(test);
  if (at < 0) throw new RangeError(`None of ${list.length} members passes the test`);
  return list[at] as S;
}

/** The last member of a list that is known to have one.
 *  @throws RangeError of an empty list */
export function lastOrThrow<T>(list: readonly T[]): T {
  if (list.length === 0) throw new RangeError('An empty list has no last member');
  return list[list.length - 1] as T;
}
