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

/** The member of a list at a place that it is known to have.
 *  @throws RangeError where it has none there */
export function atOrThrow<T>(list: ArrayLike<T>, at: number): Exclude<T, undefined> {
  const member = list[at];
  if (member === undefined) throw new RangeError(`No member ${at} in a list of ${list.length}`);
  return member as Exclude<T, undefined>;
}

/** The value of a key that an object is known to have.
 *  @throws RangeError where it does not */
export function entryOrThrow<V>(record: { readonly [key: string]: V }, key: string | number): Exclude<V, undefined> {
  const value = record[key];
  if (value === undefined) throw new RangeError(`No entry for ${key}`);
  return value as Exclude<V, undefined>;
}

/** The first member of a list that is known to have one.
 *  @throws RangeError of an empty list */
export function firstOrThrow<T>(list: ArrayLike<T>): Exclude<T, undefined> {
  return atOrThrow(list, 0);
}

/** The part of a text before the first mark; the whole text where the mark is missing. */
export function beforeFirst(text: string, mark: string): string {
  const at = text.indexOf(mark);
  return at < 0 ? text : text.slice(0, at);
}

/** A value that is known to be there.
 *  @param what names it in the error
 *  @throws RangeError where it is not */
export function orThrow<T>(value: T, what: string): NonNullable<T> {
  if (value === undefined || value === null) throw new RangeError(`No ${what}`);
  return value;
}
