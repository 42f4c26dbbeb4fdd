import { entryOrThrow, firstOrThrow } from '../collections/orThrow';
import type { Sheets } from '../sheets/sheetIndex';
import { PIN_ROLES } from '../sheets/roles';
import { boardOf, partOf } from '../plan/edit';
import { type Plan, splitKey, type TerminalKey } from '../plan/plan';
import { buildInstance } from './model/buildInstance';
import { type Choice, type Costs, type Instance, type Item, lessCosts, type Member } from './model/instance';
import { solve } from './solve/solve';
import type { SolveOptions } from './solve/solved';
import { combined } from './model/weights';

/** Signals and parts that cannot all be served: with any one of them less, the others can. */
export interface Conflict {
  readonly terminals: readonly TerminalKey[];
  /** Pins that at least one of them could go to. */
  readonly pins: readonly string[];
  /** Bus parts among them, by placement, with the controllers that they could join and the addresses they could have. */
  readonly members: readonly {
    readonly placement: string;
    readonly kind: string;
    readonly controllers: readonly string[];
    readonly addresses: readonly number[];
  }[];
  /** Whether it was shown that nothing can be left out; false where the search was stopped. */
  readonly minimal: boolean;
}

type Demand = { readonly item: Item } | { readonly member: Member };

const needs = (leave: { readonly unwired: number }): boolean => leave.unwired > 0;

/** The instance of some of the demands alone, with nothing to pay but open terminals. */
function restricted(instance: Instance, demands: ReadonlySet<Demand>): Instance {
  const own = [...demands];
  const free = { moved: 0, caution: 0, unusual: 0, waste: 0 };
  const leave = { unwired: 1, moved: 0 };
  return {
    ...instance,
    items: own.flatMap((d) => ('item' in d ? [{ ...d.item, leave, candidates: d.item.candidates.map((c) => ({ ...c, ...free })) }] : [])),
    members: own.flatMap((d) =>
      'member' in d ? [{ ...d.member, leave, here: {}, addresses: d.member.addresses.map((a) => ({ ...a, moved: 0 })) }] : [],
    ),
    controllers: instance.controllers.map((c) => ({
      ...c,
      lines: Object.fromEntries(
        Object.entries(c.lines).map(([line, pins]) => [line, pins.map(({ pin }) => ({ pin, caution: 0, unusual: 0, waste: 0 }))]),
      ),
    })),
    clashes: instance.clashes.filter(([a, b]) => [a, b].every((id) => own.some((d) => 'member' in d && d.member.id === id))),
    resources: instance.resources.map((r) => ({
      ...r,
      pairs: r.pairs.filter(([a, b]) => [a, b].every((id) => own.some((d) => 'item' in d && d.item.id === id))),
    })),
  };
}

/** A minimal conflicting set of an instance without a complete solution: demands are left out one by one while the rest still conflicts.
 *  Undefined if everything can be connected, or if the search was stopped before proving otherwise.
 *  @param options limits of each single search */
export function conflictOf(instance: Instance, options: SolveOptions = {}): Conflict | undefined {
  let minimal = true;
  // Only what is proved is called a conflict: a search that was stopped has found nothing impossible.
  const fits = (demands: ReadonlySet<Demand>): boolean => {
    const solved = solve(restricted(instance, demands), options);
    if (solved.bound.unwired === 0 && solved.costs.unwired > 0) minimal = false;
    return solved.bound.unwired === 0;
  };
  const all: readonly Demand[] = [
    ...instance.items.filter((item) => needs(item.leave)).map((item) => ({ item })),
    ...instance.members.filter((member) => needs(member.leave)).map((member) => ({ member })),
  ];
  const kept = new Set<Demand>(all);
  if (fits(kept)) return undefined;
  // Those with the most ways first: they are the likeliest not to matter, and searches get smaller.
  const ways = (d: Demand) => ('item' in d ? d.item.candidates.length : d.member.controllers.length);
  const order = all.toSorted((a, b) => ways(b) - ways(a));
  // By halves first: of hundreds of signals most have nothing to do with it.
  for (let size = Math.ceil(order.length / 2); size >= 1; size = size === 1 ? 0 : Math.ceil(size / 2)) {
    for (let from = 0; from < order.length; from += size) {
      const chunk = order.slice(from, from + size).filter((demand) => kept.has(demand));
      if (chunk.length === 0) continue;
      if (options.stop?.()) {
        minimal = false;
        break;
      }
      for (const demand of chunk) kept.delete(demand);
      if (fits(kept)) for (const demand of chunk) kept.add(demand);
    }
  }
  const list = [...kept];
  const pins = list.flatMap((d) =>
    'item' in d
      ? d.item.candidates.map((c) => c.pin)
      : instance.controllers
          .filter((c) => d.member.controllers.includes(c.id))
          .flatMap((c) => d.member.lines.flatMap((line) => entryOrThrow(c.lines, line).map((p) => p.pin))),
  );
  return {
    terminals: list.flatMap((d) => ('item' in d ? d.item.terminals : [])),
    pins: [...new Set(pins)],
    members: list.flatMap((d) =>
      'member' in d
        ? [
            {
              placement: firstOrThrow(d.member.placements),
              kind: d.member.kind,
              controllers: d.member.controllers,
              addresses: [...new Set(d.member.addresses.flatMap((a) => a.addresses))],
            },
          ]
        : [],
    ),
    minimal,
  };
}

/** The cost of a terminal at another pin, with everything else reassigned around it. */
export interface Alternative {
  readonly pin: string;
  /** Costs relative to the free assignment; null if impossible with the other wires. */
  readonly more: Costs | null;
  /** Whether that is shown; else it is what was found until the search was stopped. */
  readonly proved: boolean;
}

/** Each way in which an instance can have a signal at a certain pin: with one candidate of an item, or with a member on a controller and its
 *  line fixed. Undefined for terminals that need no pin. */
function forcedAt(instance: Instance, terminal: TerminalKey, line: string | undefined): readonly Forced[] | undefined {
  const item = instance.items.find((i) => i.terminals.includes(terminal));
  if (item)
    return item.candidates.map((candidate): Forced => ({
      pin: candidate.pin,
      instance: { ...instance, items: instance.items.map((i) => (i === item ? { ...item, candidates: [candidate] } : i)) },
      holds: (choice) => choice.items[item.id] === candidate.pin,
    }));
  const { placement } = splitKey(terminal);
  const member = line === undefined ? undefined : instance.members.find((m) => m.placements.includes(placement) && m.lines.includes(line));
  if (!member || line === undefined) return undefined;
  return instance.controllers
    .filter(({ id }) => member.controllers.includes(id))
    .flatMap((controller) =>
      (controller.lines[line] ?? [])
        .filter(({ pin }) => member.fixed[line] === undefined || member.fixed[line] === pin)
        .map(({ pin }): Forced => {
          const only: Member = { ...member, controllers: [controller.id], fixed: { ...member.fixed, [line]: pin } };
          return {
            pin,
            instance: { ...instance, members: instance.members.map((m) => (m === member ? only : m)) },
            holds: (choice) => choice.members[member.id] !== undefined && choice.lines[controller.id]?.[line] === pin,
          };
        }),
    );
}

interface Forced {
  readonly pin: string;
  readonly instance: Instance;
  /** Whether a choice has the signal there. */
  readonly holds: (choice: Choice) => boolean;
}

/** Why a signal is where it is: each pin it could have, and what that would cost the whole plan; of a bus line with the controller that
 *  costs least there. Undefined for terminals that need no pin. The free choice comes first, then the cheapest. */
export function alternativesOf(
  plan: Plan,
  sheets: Sheets,
  terminal: TerminalKey,
  options: SolveOptions = {},
): readonly Alternative[] | undefined {
  const board = boardOf(plan, sheets);
  // What it was wished for is one of the answers, not a reason to leave out the others.
  const { [terminal]: _wish, ...wishes } = plan.wishes;
  const instance = board && buildInstance({ ...plan, wishes }, sheets, board);
  const { placement, terminal: own } = splitKey(terminal);
  const role = partOf(plan, placement, sheets)?.terminals.get(own)?.role;
  const ways = instance && forcedAt(instance, terminal, role && PIN_ROLES[role]?.line?.line);
  if (!instance || !ways) return undefined;
  const free = solve(instance, options);
  const rank = ({ more }: Alternative) => (more ? combined(more) : Infinity);
  const byPin = new Map<string, Alternative>();
  for (const way of ways) {
    const { costs, choice, proved } = solve(way.instance, options);
    const found: Alternative = {
      pin: way.pin,
      more: way.holds(choice) ? lessCosts(costs, free.costs) : null,
      proved: proved && free.proved,
    };
    const known = byPin.get(way.pin);
    if (!known || rank(found) < rank(known)) byPin.set(way.pin, found);
  }
  return [...byPin.values()].toSorted((a, b) => rank(a) - rank(b));
}
