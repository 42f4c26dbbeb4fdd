/** A sheet document from before terminals for external circuits were a role: they were a third kind of need. Other documents are
 *  returned as they are.
 *  @param document of any shape; it is not changed */
export function upgradeSheet(document: unknown): unknown {
  const { terminals } = (document ?? {}) as { readonly terminals?: { readonly list?: unknown } | null };
  const list: unknown = terminals?.list;
  if (!Array.isArray(list) || !list.some(isOutside)) return document;
  return {
    ...(document as object),
    terminals: { ...terminals, list: list.map((one: unknown) => (isOutside(one) ? { ...one, role: 'external', need: 'optional' } : one)) },
  };
}

const isOutside = (terminal: unknown): terminal is object => (terminal as { readonly need?: unknown } | null)?.need === 'outside';
