const DEEPEST = 32;
const BAD_KEYS = new Set(['__proto__', 'constructor', 'prototype']);

/** The first place in a document from outside that no document of ours has: a key that reaches for an
 *  object's prototype, or nesting beyond 32 levels. Undefined where there is none. */
export function unsafePlace(document: unknown, path = '', depth = 0): string | undefined {
  if (document === null || typeof document !== 'object') return undefined;
  if (depth > DEEPEST) return path;
  for (const [key, value] of Object.entries(document)) {
    const place = path ? `${path}.${key}` : key;
    const found = BAD_KEYS.has(key) ? place : unsafePlace(value, place, depth + 1);
    if (found !== undefined) return found;
  }
  return undefined;
}
