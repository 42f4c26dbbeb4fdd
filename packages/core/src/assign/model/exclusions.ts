import { getOrThrow } from '../../collections/orThrow';
import type { Instance } from './instance';

export type Partners = ReadonlyMap<string, ReadonlyMap<string, ReadonlySet<string>>>;

/** For each resource, which items exclude which others. */
export function partnersOf(instance: Instance): Partners {
  return new Map(
    instance.resources.map(({ id, pairs }) => {
      const partners = new Map<string, Set<string>>();
      const add = (a: string, b: string) => partners.set(a, (partners.get(a) ?? new Set<string>()).add(b));
      for (const [a, b] of pairs) {
        add(a, b);
        add(b, a);
      }
      return [id, partners];
    }),
  );
}

/** Resources of which every user excludes every other. */
export function singles(instance: Instance, excluded: Partners): readonly string[] {
  const users = new Map<string, number>();
  for (const item of instance.items)
    for (const id of new Set(item.candidates.flatMap((c) => c.uses ?? []))) users.set(id, (users.get(id) ?? 0) + 1);
  return instance.resources.flatMap(({ id }) => {
    const partners = getOrThrow(excluded, id);
    const count = users.get(id) ?? 0;
    return count > 1 && partners.size === count && [...partners.values()].every((p) => p.size === count - 1) ? [id] : [];
  });
}
