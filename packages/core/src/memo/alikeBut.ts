/** Gives the value before it in place of one that differs from it only in fields that do not matter: what is kept for that one is kept for
 *  both. Fields are compared by identity, as those of values are.
 *  @param fields what does not matter
 *  @example const untouched = alikeBut<Plan>(['ticks']); // a plan with one more tick gives the plan before */
export function alikeBut<T extends object>(fields: readonly (keyof T)[]): (value: T) => T {
  const ignored = new Set<string>(fields as readonly string[]);
  let latest: T | undefined;
  return (value) => {
    const before = latest;
    const isAlike =
      before !== undefined &&
      Object.keys(value).every((key) => ignored.has(key) || before[key as keyof T] === value[key as keyof T]) &&
      Object.keys(before).length === Object.keys(value).length;
    if (before !== undefined && isAlike) return before;
    latest = value;
    return value;
  };
}
