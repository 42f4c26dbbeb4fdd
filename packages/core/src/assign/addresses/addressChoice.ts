import { atOrThrow, getOrThrow } from '../../collections/orThrow';
import { assign } from '../solve/assignment';
import type { AddressOption, Member } from '../model/instance';

/** All that a choice of addresses looks at. */
type Addressed = Pick<Member, 'addresses' | 'beyond'>;

export interface AddressChoice {
  /** One for each member, in their order; undefined for members without addresses. */
  readonly options: readonly (AddressOption | undefined)[];
  readonly moved: number;
}

/** Address options under which no two of these members answer on one address, and none on one that is beyond any of them, with
 *  the fewest straps changed; null where there are none.
 *  @example cheapestAddresses([clock, motion])!.options.map((o) => o?.addresses) // [[0x68], [0x69]] */
export function cheapestAddresses(members: readonly Addressed[]): AddressChoice | null {
  const places = [...members.keys()].filter((at) => atOrThrow(members, at).addresses.length > 0);
  if (places.length === 0) return { options: members.map(() => undefined), moved: 0 };
  const own = clearOfBeyond(members, places);
  if (own.some((m) => m.addresses.length === 0)) return null;
  const relaxed = asAssignment(own);
  if (!relaxed) return null;
  const single = own.every((m) => m.addresses.every((option) => option.addresses.length === 1));
  const chosen = single ? relaxed : bySearch(own);
  if (!chosen) return null;
  const options = members.map((): AddressOption | undefined => undefined);
  for (const [n, at] of places.entries()) options[at] = atOrThrow(chosen, n);
  return { options, moved: chosen.reduce((sum, option) => sum + option.moved, 0) };
}

/** Of the members at these places the options that meet nothing beyond any of the members. */
function clearOfBeyond(members: readonly Addressed[], places: readonly number[]): readonly Addressed[] {
  const beyond = new Set(members.flatMap((m) => m.beyond ?? []));
  return places.map((at) => {
    const member = atOrThrow(members, at);
    if (beyond.size === 0) return member;
    return { addresses: member.addresses.filter((option) => !option.addresses.some((address) => beyond.has(address))) };
  });
}

/** Each member one address of its own: exact where every option is a single address, else only a first sieve, since a
 *  part of several addresses needs all of them. */
function asAssignment(members: readonly Addressed[]): readonly AddressOption[] | null {
  const addresses = [...new Set(members.flatMap((m) => m.addresses.flatMap((o) => o.addresses)))];
  const column = new Map(addresses.map((address, at) => [address, at]));
  const costs = new Float64Array(members.length * addresses.length).fill(Infinity);
  const option = new Map<number, AddressOption>();
  for (const [at, member] of members.entries())
    for (const [rank, one] of member.addresses.entries())
      for (const address of one.addresses) {
        const place = at * addresses.length + getOrThrow(column, address);
        // Among equal changes the option that is listed first: the sheet's default.
        const cost = one.moved * 1000 + rank;
        if (cost >= atOrThrow(costs, place)) continue;
        costs[place] = cost;
        option.set(place, one);
      }
  const { columns } = assign(members.length, addresses.length, costs, new Float64Array(members.length).fill(1e9));
  if (columns.some((at) => at < 0)) return null;
  return members.map((_, at) => getOrThrow(option, at * addresses.length + atOrThrow(columns, at)));
}

/** Depth first over members, those with the fewest options first. Equivalent members take their options in ascending order, because
 *  swapping two of them gives the same choice. */
function bySearch(members: readonly Addressed[]): readonly AddressOption[] | null {
  const kind = members.map((m) => JSON.stringify(m.addresses));
  const order = members
    .map((m, at) => ({ m, at, kind: atOrThrow(kind, at) }))
    .sort((a, b) => a.m.addresses.length - b.m.addresses.length || (a.kind < b.kind ? -1 : a.kind > b.kind ? 1 : a.at - b.at));
  const cheapestFrom = order.map(() => 0);
  for (let at = order.length - 1; at >= 0; at -= 1)
    cheapestFrom[at] = Math.min(...atOrThrow(order, at).m.addresses.map((o) => o.moved)) + (cheapestFrom[at + 1] ?? 0);
  let best: { readonly options: readonly AddressOption[]; readonly moved: number } | null = null;
  const chosen: AddressOption[] = [];
  const taken = new Set<number>();
  const descend = (depth: number, moved: number, from: number): void => {
    if (best && moved + (cheapestFrom[depth] ?? 0) >= best.moved) return;
    const here = order[depth];
    if (!here) {
      best = {
        options: members.map((_, at) =>
          atOrThrow(
            chosen,
            order.findIndex((o) => o.at === at),
          ),
        ),
        moved,
      };
      return;
    }
    for (let at = from; at < here.m.addresses.length; at += 1) {
      const option = atOrThrow(here.m.addresses, at);
      if (option.addresses.some((address) => taken.has(address))) continue;
      for (const address of option.addresses) taken.add(address);
      chosen[depth] = option;
      descend(depth + 1, moved + option.moved, order[depth + 1]?.kind === here.kind ? at + 1 : 0);
      for (const address of option.addresses) taken.delete(address);
    }
  };
  descend(0, 0, 0);
  return best === null ? null : (best as { readonly options: readonly AddressOption[] }).options;
}
