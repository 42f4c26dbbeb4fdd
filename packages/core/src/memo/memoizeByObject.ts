/** Remembers what follows from an object for as long as the object is there. */
export function memoizeByObject<K extends object, T>(make: (key: K) => T): (key: K) => T {
  const known = new WeakMap<K, { readonly value: T }>();
  return (key) => {
    let found = known.get(key);
    if (!found) known.set(key, (found = { value: make(key) }));
    return found.value;
  };
}
