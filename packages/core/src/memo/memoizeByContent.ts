/** Maximum number of memoised results; then all are dropped. */
const KEPT = 500;

/** Remembers what a pure function gave for inputs of the same content, however often they are made anew: of a hundred trial plans most
 *  have the same lines. The input must be plain data, without functions. */
export function memoizeByContent<I, T>(make: (input: I) => T): (input: I) => T {
  const known = new Map<string, T>();
  return (input) => {
    const key = JSON.stringify(input);
    const found = known.get(key);
    if (found !== undefined) return found;
    if (known.size >= KEPT) known.clear();
    const value = make(input);
    known.set(key, value);
    return value;
  };
}
