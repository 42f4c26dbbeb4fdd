import { dequal } from 'dequal';
import { atOrThrow } from '../../collections/orThrow';
import type { Partners } from './exclusions';
import type { Instance } from './instance';

/** Which items of an instance are interchangeable, memoised per pair. */
export class Symmetry {
  readonly #known = new Map<number, boolean>();

  constructor(
    private readonly instance: Instance,
    private readonly excluded: Partners,
  ) {}

  /** Whether two items, by their places, may go to the same pins at the same price, and exclude the same others. */
  same(a: number, b: number): boolean {
    const key = a * this.instance.items.length + b;
    let same = this.#known.get(key);
    if (same === undefined) this.#known.set(key, (same = this.#compare(a, b)));
    return same;
  }

  #compare(a: number, b: number): boolean {
    const [first, second] = [atOrThrow(this.instance.items, a), atOrThrow(this.instance.items, b)];
    if (!dequal([first.candidates, first.leave], [second.candidates, second.leave])) return false;
    return [...this.excluded.values()].every((partners) => {
      const others = (own: string, other: string) => [...(partners.get(own) ?? [])].filter((p) => p !== other).sort();
      return others(first.id, second.id).join('\n') === others(second.id, first.id).join('\n');
    });
  }
}
