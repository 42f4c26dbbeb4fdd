import { atOrThrow } from '../../collections/orThrow';
import type { Instance } from '../model/instance';
import { Search } from './search';
import type { Solved, SolveOptions } from './solved';
import { combined, INSTANCE_LIMITS, NO_COSTS, split } from '../model/weights';

/** The instance with one alternative of a group taken: its items have only the pins that this lists. */
function taking(instance: Instance, group: number, alternative: number): Instance {
  const { items, groups = [] } = instance;
  const only = atOrThrow(atOrThrow(groups, group).alternatives, alternative);
  return {
    ...instance,
    items: items.map((item) => {
      const pins = only[item.id];
      return pins ? { ...item, candidates: item.candidates.filter((c) => pins.includes(c.pin)) } : item;
    }),
  };
}

/** The choice among the alternatives of every group, around the search: what is found without a group is a bound for
 *  every alternative of it. */
class Groups {
  #best: Solved | undefined;
  #nodes = 0;
  #unseen = Infinity;

  constructor(
    private readonly instance: Instance,
    private readonly options: SolveOptions,
  ) {}

  run(): Solved {
    const free = this.#solve(this.instance);
    this.#descend(this.instance, free, 0);
    // Stopped before any alternative was whole: what is left over is the search without groups, which claims nothing.
    const best = this.#best ?? this.#stoppedAt(free);
    const total = combined(best.costs);
    const bound = Math.min(total, this.#unseen);
    return { ...best, bound: split(bound), proved: bound === total, nodes: this.#nodes };
  }

  /** With no time for alternatives the first of each group is taken, whatever it costs. */
  #stoppedAt(free: Solved): Solved {
    const first = (this.instance.groups ?? []).reduce((now, _, group) => taking(now, group, 0), this.instance);
    this.#unseen = Math.min(this.#unseen, combined(free.bound));
    return new Search(first, { ...this.options, nodes: 0 }).run();
  }

  #solve(instance: Instance): Solved {
    const { nodes, stop } = this.options;
    const left = nodes === undefined ? {} : { nodes: Math.max(0, nodes - this.#nodes) };
    const solved = new Search(instance, { ...(stop ? { stop } : {}), ...left }).run();
    this.#nodes += solved.nodes + 1;
    return solved;
  }

  #over(): boolean {
    return this.#nodes >= (this.options.nodes ?? Infinity) || this.options.stop?.() === true;
  }

  #descend(instance: Instance, solved: Solved, group: number): void {
    const bound = combined(solved.bound);
    if (this.#best && bound >= combined(this.#best.costs)) return;
    const { groups = [] } = this.instance;
    if (group === groups.length) {
      if (!solved.proved) this.#unseen = Math.min(this.#unseen, bound);
      if (this.#best && combined(solved.costs) >= combined(this.#best.costs)) return;
      this.#best = solved;
      this.options.onBetter?.(solved.costs);
      return;
    }
    // One assignment per branch gives the search order and prunes most branches.
    const children = atOrThrow(groups, group)
      .alternatives.map((_, alternative) => {
        const child = taking(instance, group, alternative);
        return { child, least: Math.max(bound, new Search(child, {}).rootBound()) };
      })
      .sort((a, b) => a.least - b.least);
    for (const { child, least } of children) {
      if (this.#best && least >= combined(this.#best.costs)) return;
      if (this.#over()) {
        this.#unseen = Math.min(this.#unseen, least);
        return;
      }
      this.#descend(child, this.#solve(child), group + 1);
    }
  }
}

/** How many terminals an instance serves. */
const demandsOf = (list: readonly { readonly leave: { readonly unwired: number } }[]): number =>
  list.reduce((sum, { leave }) => sum + Math.max(1, leave.unwired), 0);

/** As much of an instance as whole numbers can tell apart: its first members and items. */
function withinLimits(instance: Instance): Instance {
  let left: number = INSTANCE_LIMITS.demands;
  const taken = <T extends { readonly leave: { readonly unwired: number } }>(list: readonly T[]): readonly T[] =>
    list.filter((one) => {
      left -= Math.max(1, one.leave.unwired);
      return left >= 0;
    });
  const members = taken(instance.members);
  const items = taken(instance.items);
  const has = new Set([...members, ...items].map((one) => one.id));
  const both = ([a, b]: readonly [string, string]) => has.has(a) && has.has(b);
  return {
    ...instance,
    members,
    items,
    clashes: instance.clashes.filter(both),
    resources: instance.resources.map((r) => ({ ...r, pairs: r.pairs.filter(both) })),
    groups: [],
  };
}

/** The best choice for an instance: lexicographically least costs, proved unless stopped. Deterministic. Of an instance larger than any
 *  board, only the first part is solved and nothing is claimed. */
export function solve(instance: Instance, options: SolveOptions = {}): Solved {
  const all = [...instance.members, ...instance.items];
  if (demandsOf(all) <= INSTANCE_LIMITS.demands)
    return instance.groups?.length ? new Groups(instance, options).run() : new Search(instance, options).run();
  const part = withinLimits(instance);
  const solved = new Search(part, options).run();
  const kept = new Set([...part.members, ...part.items].map((one) => one.id));
  const open = all.filter((one) => !kept.has(one.id));
  const more = (tier: 'unwired' | 'moved') => open.reduce((sum, { leave }) => sum + leave[tier], 0);
  const { costs } = solved;
  return {
    ...solved,
    costs: { ...costs, unwired: costs.unwired + more('unwired'), moved: costs.moved + more('moved') },
    bound: NO_COSTS,
    proved: false,
  };
}
