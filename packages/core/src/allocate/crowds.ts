import type { Instance, Member } from './instance';

/** Members of which one bus takes only so many: their addresses, or what makes them clash, leave no room for more. */
export interface Crowd {
  readonly kind: string;
  readonly members: readonly number[];
  readonly room: number;
  readonly lines: readonly string[];
}

function crowd(instance: Instance, kind: string, members: readonly number[], room: number): readonly Crowd[] {
  const common = instance.members[members[0] ?? -1]?.lines.filter((line) =>
    members.every((at) => instance.members[at]!.lines.includes(line)),
  );
  return members.length > room && common && common.length > 0 ? [{ kind, members, room, lines: common }] : [];
}

/** Crowds by address (members that have addresses only among a few) and by clash (members that all clash with one another). */
export function crowdsOf(instance: Instance, clash: readonly ReadonlySet<number>[]): readonly Crowd[] {
  const { members } = instance;
  const able = [...members.keys()].filter((at) => members[at]!.controllers.length > 0);
  const addressesOf = (at: number) => new Set(members[at]!.addresses.flatMap((option) => option.addresses));
  const ranges = new Map(
    able
      .filter((at) => members[at]!.addresses.length > 0)
      .map((at) => [[...addressesOf(at)].sort((a, b) => a - b).join(), addressesOf(at)]),
  );
  const byAddress = [...ranges.values()].flatMap((range) => {
    const inside = able.filter((at) => members[at]!.addresses.length > 0 && [...addressesOf(at)].every((address) => range.has(address)));
    return crowd(instance, members[inside[0]!]!.kind, inside, range.size);
  });
  const byClash = able.flatMap((start) => {
    const clique = [start];
    for (const at of able)
      if (at !== start && clique.every((other) => clash[other]!.has(at) && members[other]!.kind === members[at]!.kind)) clique.push(at);
    return crowd(instance, members[start]!.kind, clique, 1);
  });
  return [...byAddress, ...byClash];
}

/** The order in which members are placed: first one of each kind, since a controller once chosen says what its lines
 *  cost; then those of crowds, which need further buses; then the rest, those with the fewest controllers first. */
export function orderOf(members: readonly Member[], crowds: readonly Crowd[]): readonly number[] {
  const crowded = new Set(crowds.flatMap((crowd) => crowd.members));
  const wired = (m: Member) => Object.values(m.here).reduce((n, pins) => n + Object.values(pins).reduce((a, b) => a + b, 0), 0);
  const rest = members
    .map((m, at) => ({ at, few: m.controllers.length, wired: wired(m), crowded: crowded.has(at) ? 0 : 1 }))
    .sort((a, b) => a.crowded - b.crowded || a.few - b.few || b.wired - a.wired || a.at - b.at)
    .map(({ at }) => at);
  const kinds = [...new Set(members.map((m) => m.kind))];
  const first = kinds.flatMap((kind) => {
    const own = rest.filter((at) => members[at]!.kind === kind && members[at]!.controllers.length > 0);
    return own.length > 0 ? [own.reduce((a, b) => (members[b]!.lines.length > members[a]!.lines.length ? b : a))] : [];
  });
  return [...first, ...rest.filter((at) => !first.includes(at))];
}

/** For each member, the places of those it clashes with. */
export function clashesAt({ members, clashes }: Instance): readonly ReadonlySet<number>[] {
  const places = new Map(members.map((m, at) => [m.id, at]));
  const found = members.map(() => new Set<number>());
  for (const [a, b] of clashes) {
    found[places.get(a)!]!.add(places.get(b)!);
    found[places.get(b)!]!.add(places.get(a)!);
  }
  return found;
}
