import { useMemo } from 'react';

/** A set that stays the same object while its members do: an edit elsewhere must not draw the whole roof anew. */
export function useStableSet(members: Iterable<string>): ReadonlySet<string> {
  const key = JSON.stringify([...members]);
  return useMemo(() => new Set(JSON.parse(key) as string[]), [key]);
}

/** Plain data that stays the same object while its content does. */
export function useStableReference<T>(value: T): T {
  const key = JSON.stringify(value);
  return useMemo(() => JSON.parse(key) as T, [key]);
}
