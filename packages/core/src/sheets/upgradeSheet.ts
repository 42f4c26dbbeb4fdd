/** Fields of a part sheet that once had another name. */
const RENAMED = { passage: 'levelShifter' } as const;

/** The path of a fact with today's names.
 *  @example todaysFact('passage/ohms') // 'levelShifter/ohms' */
export function todaysFact(path: string): string {
  const [first = '', ...rest] = path.split('/');
  return [Object.hasOwn(RENAMED, first) ? RENAMED[first as keyof typeof RENAMED] : first, ...rest].join('/');
}

/** A sheet document of an earlier version with today's names, and with terminals for external circuits as a role: they were a third kind of
 *  need. Other documents are returned as they are.
 *  @param document of any shape; it is not changed */
export const upgradeSheet = (document: unknown): unknown => withExternals(withTodaysNames(document));

function withTodaysNames(document: unknown): unknown {
  const { passage, ...rest } = (document ?? {}) as { readonly passage?: unknown; readonly [field: string]: unknown };
  return passage === undefined || rest[RENAMED.passage] !== undefined ? document : { ...rest, [RENAMED.passage]: passage };
}

function withExternals(document: unknown): unknown {
  const { terminals } = (document ?? {}) as { readonly terminals?: { readonly list?: unknown } | null };
  const list: unknown = terminals?.list;
  if (!Array.isArray(list) || !list.some(isOutside)) return document;
  return {
    ...(document as object),
    terminals: { ...terminals, list: list.map((one: unknown) => (isOutside(one) ? { ...one, role: 'external', need: 'optional' } : one)) },
  };
}

const isOutside = (terminal: unknown): terminal is object => (terminal as { readonly need?: unknown } | null)?.need === 'outside';
