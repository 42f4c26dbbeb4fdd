import { atOrThrow, firstOrThrow, getOrThrow } from '../../collections/orThrow';
import type { Instance, Member } from './instance';
import { combined } from './weights';

/** Members of which only a limited number fits on one bus, by their addresses or pairwise conflicts. */
export interface ConflictGroup {
  readonly kind: string;
  readonly members: readonly number[];
  readonly room: number;
  readonly lines: readonly string[];
  /** Buses that could take any of them. */
  readonly buses: number;
}

function group(instance: Instance, kind: string, members: readonly number[], room: number): readonly ConflictGroup[] {
  const common = instance.members[members[0] ?? -1]?.lines.filter((line) =>
    members.every((at) => atOrThrow(instance.members, at).lines.includes(line)),
  );
  if (members.length <= room || !common || common.length === 0) return [];
  const buses = new Set(members.flatMap((at) => atOrThrow(instance.members, at).controllers)).size;
  return [{ kind, members, room, lines: common, buses }];
}

/** Groups by address (members with few possible addresses, or one fixed address in common) and by conflict (members that all conflict
 *  with each other). */
export function conflictGroupsOf(instance: Instance, clash: readonly ReadonlySet<number>[]): readonly ConflictGroup[] {
  const { members } = instance;
  const able = [...members.keys()].filter((at) => atOrThrow(members, at).controllers.length > 0);
  const addressesOf = (at: number) => new Set(atOrThrow(members, at).addresses.flatMap((option) => option.addresses));
  const ranges = new Map(
    able
      .filter((at) => atOrThrow(members, at).addresses.length > 0)
      .map((at) => [[...addressesOf(at)].sort((a, b) => a - b).join(), addressesOf(at)]),
  );
  const byAddress = [...ranges.values()].flatMap((range) => {
    const inside = able.filter(
      (at) => atOrThrow(members, at).addresses.length > 0 && [...addressesOf(at)].every((address) => range.has(address)),
    );
    return group(instance, atOrThrow(members, firstOrThrow(inside)).kind, inside, range.size);
  });
  const always = (at: number) => {
    const [first, ...more] = atOrThrow(members, at).addresses;
    return (first?.addresses ?? []).filter((address) => more.every((option) => option.addresses.includes(address)));
  };
  const byFixed = [...new Set(able.flatMap(always))].flatMap((address) => {
    const own = able.filter((at) => always(at).includes(address));
    return group(instance, atOrThrow(members, firstOrThrow(own)).kind, own, 1);
  });
  const byClash = able.flatMap((start) => {
    const clique = [start];
    for (const at of able)
      if (
        at !== start &&
        clique.every((other) => atOrThrow(clash, other).has(at) && atOrThrow(members, other).kind === atOrThrow(members, at).kind)
      )
        clique.push(at);
    return group(instance, atOrThrow(members, start).kind, clique, 1);
  });
  return [...byAddress, ...byFixed, ...byClash];
}

/** The order in which members are placed: first one of each kind, since a controller once chosen says what its lines cost; then those of
 *  groups that need further buses; then the rest, fewest controllers first. */
export function orderOf(members: readonly Member[], groups: readonly ConflictGroup[]): readonly number[] {
  const grouped = new Set(groups.flatMap((group) => group.members));
  const wired = (m: Member) => Object.values(m.here).reduce((n, pins) => n + Object.values(pins).reduce((a, b) => a + b, 0), 0);
  const rest = members
    .map((m, at) => ({ at, few: m.controllers.length, wired: wired(m), grouped: grouped.has(at) ? 0 : 1 }))
    .sort((a, b) => a.grouped - b.grouped || a.few - b.few || b.wired - a.wired || a.at - b.at)
    .map(({ at }) => at);
  const kinds = [...new Set(members.map((m) => m.kind))];
  const first = kinds.flatMap((kind) => {
    const own = rest.filter((at) => atOrThrow(members, at).kind === kind && atOrThrow(members, at).controllers.length > 0);
    return own.length > 0 ? [own.reduce((a, b) => (atOrThrow(members, b).lines.length > atOrThrow(members, a).lines.length ? b : a))] : [];
  });
  return [...first, ...rest.filter((at) => !first.includes(at))];
}

/** For each member, the indices of those it conflicts with. */
export function conflictsByMember({ members, clashes }: Instance): readonly ReadonlySet<number>[] {
  const places = new Map(members.map((m, at) => [m.id, at]));
  const found = members.map(() => new Set<number>());
  for (const [a, b] of clashes) {
    atOrThrow(found, getOrThrow(places, a)).add(getOrThrow(places, b));
    atOrThrow(found, getOrThrow(places, b)).add(getOrThrow(places, a));
  }
  return found;
}

/** The demand of the largest group of a kind at some point of the search. */
export interface GroupDemand {
  readonly group: ConflictGroup;
  /** Buses that must come besides those in use. */
  readonly missing: number;
  /** What its members cost that stay open whatever is chosen, because there are not so many buses. */
  readonly excess: number;
}

/** For each kind, the group with the highest demand.
 *  @param at controller of each member by place, -1 for none, undefined for not yet
 *  @param joined members of each controller */
export function largestDemands(
  { members, controllers }: Instance,
  groups: readonly ConflictGroup[],
  at: readonly (number | undefined)[],
  joined: readonly (readonly Member[])[],
): ReadonlyMap<string, GroupDemand> {
  const most = new Map<string, GroupDemand>();
  for (const group of groups) {
    const there = group.members.filter((member) => at[member] !== -1);
    const undecided = there.filter((member) => at[member] === undefined);
    const open = controllers.filter((c, n) => c.kind === group.kind && atOrThrow(joined, n).length > 0).length;
    // One more than those in use is counted by the lines still to come, where none is in use.
    const missing = Math.min(Math.ceil(there.length / group.room), group.buses) - Math.max(1, open);
    const leaves = undecided.map((member) => combined(atOrThrow(members, member).leave)).sort((a, b) => a - b);
    const excess = leaves.slice(0, Math.max(0, there.length - group.buses * group.room)).reduce((sum, leave) => sum + leave, 0);
    const before = most.get(group.kind) ?? { missing: 0, excess: 0 };
    if (excess > before.excess || (excess === before.excess && missing > before.missing)) most.set(group.kind, { missing, excess, group });
  }
  return most;
}
