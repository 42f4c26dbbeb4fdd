import { atOrThrow, getOrThrow, orThrow } from '../../collections/orThrow';
import { Symmetry } from '../model/symmetry';
import { assign } from './assignment';
import type { Evaluated, Row, State } from './searchState';
import type { Solved, SolveOptions } from './solved';
import { movedWires } from '../model/movedWires';
import type { AddressOption, BusController, Choice, Instance, Member } from '../model/instance';
import { cheapestAddresses } from '../addresses/addressChoice';
import {
  conflictsByMember,
  type ConflictGroup,
  type GroupDemand,
  largestDemands,
  conflictGroupsOf,
  orderOf,
} from '../model/conflictGroups';
import { type Partners, partnersOf, singles } from '../model/exclusions';
import { combined, pinCosts, split, TIER } from '../model/weights';

/** Branch and bound over the few structural choices: the controller of each member, the set of a controller that lists
 *  sets, and shared resources that an assignment has used twice. What is left is a cheapest assignment of pins, which is
 *  also the bound: deciding more can only add rows and costs. */
export class Search {
  readonly #pins: readonly string[];
  readonly #column: ReadonlyMap<string, number>;
  readonly #controllers: ReadonlyMap<string, number>;
  readonly #order: readonly number[];
  readonly #clash: readonly ReadonlySet<number>[];
  /** Costs of each item at each pin, before any decision. */
  readonly #itemRows: readonly Float64Array[];
  /** Items that no decision can take a candidate from. */
  readonly #plain: readonly boolean[];
  /** What an item uses at a column. */
  readonly #usesAt: readonly ReadonlyMap<number, readonly string[]>[];
  /** Of resources that only one item at all may use, by id: their columns in the second bound. */
  readonly #single: ReadonlyMap<string, number>;
  readonly #conflictGroups: readonly ConflictGroup[];
  readonly #excluded: Partners;
  readonly #symmetry: Symmetry;
  #best: { readonly total: number; readonly state: State; readonly evaluated: Evaluated } | undefined;
  #nodes = 0;
  #stopped = false;
  /** Least bound among the parts of the tree that were not looked into. */
  #unseen = Infinity;

  constructor(
    private readonly instance: Instance,
    private readonly options: SolveOptions,
  ) {
    const { items, controllers, members } = instance;
    const pins = new Set([
      ...items.flatMap((item) => item.candidates.map((c) => c.pin)),
      ...controllers.flatMap((c) => Object.values(c.lines).flatMap((list) => list.map((p) => p.pin))),
    ]);
    this.#pins = [...pins];
    this.#column = new Map(this.#pins.map((pin, at) => [pin, at]));
    this.#controllers = new Map(controllers.map((c, at) => [c.id, at]));
    this.#itemRows = items.map((item) => {
      const row = new Float64Array(this.#pins.length).fill(Infinity);
      for (const candidate of item.candidates) row[getOrThrow(this.#column, candidate.pin)] = combined(pinCosts(candidate));
      return row;
    });
    this.#usesAt = items.map(
      (item) => new Map(item.candidates.flatMap((c) => (c.uses ? [[getOrThrow(this.#column, c.pin), c.uses] as const] : []))),
    );
    this.#excluded = partnersOf(instance);
    this.#symmetry = new Symmetry(instance, this.#excluded);
    this.#single = new Map(singles(instance, this.#excluded).map((id, at) => [id, this.#pins.length + at]));
    this.#plain = items.map((item) => item.candidates.every((c) => c.unless === undefined && !c.uses?.length));
    this.#clash = conflictsByMember(instance);
    this.#conflictGroups = conflictGroupsOf(instance, this.#clash);
    this.#order = orderOf(members, this.#conflictGroups);
  }

  /** What no choice can cost less, from a single assignment: much cheaper than the search. Infinite where none is legal. */
  readonly rootBound = (): number => this.#evaluate(this.#start())?.bound ?? Infinity;

  /** Nothing decided. */
  #start(): State {
    return { at: this.instance.members.map(() => undefined), sets: this.instance.controllers.map(() => undefined), banned: new Set() };
  }

  run(): Solved {
    const root = this.#start();
    const evaluated = this.#evaluate(root);
    this.#descend(root, evaluated, 0);
    // With no time at all there is still an answer: every member left open, pins by the cheapest assignment.
    if (!this.#best) {
      const left: State = { ...root, at: root.at.map(() => -1) };
      this.#leaf(left, this.#evaluate(left), true);
    }
    const best = orThrow(this.#best, 'solution');
    const bound = Math.min(best.total, this.#unseen);
    return {
      choice: this.#choiceOf(best.state, best.evaluated),
      costs: split(best.total),
      bound: split(bound),
      proved: bound === best.total,
      nodes: this.#nodes,
    };
  }

  #over(): boolean {
    if (!this.#stopped && (this.#nodes >= (this.options.nodes ?? Infinity) || this.options.stop?.())) this.#stopped = true;
    return this.#stopped;
  }

  #hopeless(bound: number): boolean {
    return this.#best !== undefined && bound >= this.#best.total;
  }

  #descend(state: State, evaluated: Evaluated | null, depth: number): void {
    if (!evaluated || this.#hopeless(evaluated.bound)) return;
    if (this.#over()) {
      this.#unseen = Math.min(this.#unseen, evaluated.bound);
      return;
    }
    const next = this.#order[depth];
    if (next === undefined) return this.#leaf(state, evaluated, false);
    const later: { readonly child: State; readonly inner: Evaluated }[] = [];
    for (const child of this.#placesFor(state, next)) {
      this.#nodes += 1;
      const inner = this.#evaluate(child);
      if (!inner) continue;
      // As good as it can get: no need to look at the others first, and most often none to look at them at all.
      if (inner.bound === evaluated.bound) this.#descend(child, inner, depth + 1);
      else later.push({ child, inner });
      if (this.#hopeless(evaluated.bound)) return;
    }
    // Cheapest first; the sort is stable, so controllers keep the board's order among equals.
    for (const { child, inner } of later.sort((one, other) => one.inner.bound - other.inner.bound)) this.#descend(child, inner, depth + 1);
  }

  /** Every way to place a member: a controller (with each of its sets, where it is new), or none. */
  #placesFor(state: State, member: number): readonly State[] {
    const { members, controllers } = this.instance;
    const with_ = (controller: number, sets = state.sets): State => ({ ...state, at: state.at.with(member, controller), sets });
    const ways = atOrThrow(members, member).controllers.flatMap((id) => {
      const at = getOrThrow(this.#controllers, id);
      if ([...atOrThrow(this.#clash, member)].some((other) => state.at[other] === at)) return [];
      const { sets } = atOrThrow(controllers, at);
      if (!sets || state.sets[at] !== undefined) return [with_(at)];
      return sets.map((_, set) => with_(at, state.sets.with(at, set)));
    });
    return [...ways, with_(-1)];
  }

  #take(state: State, evaluated: Evaluated, cost: number, columns: Int32Array): void {
    if (this.#hopeless(cost)) return;
    this.#best = { total: cost, state, evaluated: { ...evaluated, columns } };
    this.options.onBetter?.(split(cost));
  }

  /** A state in which every member has its place: what remains are resources that exclude each other. */
  #leaf(state: State, evaluated: Evaluated | null, last: boolean): void {
    if (!evaluated || this.#hopeless(evaluated.bound)) return;
    if (evaluated.legal) this.#take(state, evaluated, evaluated.legal.cost, evaluated.legal.columns);
    const met = this.#conflict(evaluated.columns);
    if (!met) return this.#take(state, evaluated, evaluated.cost, evaluated.columns);
    if (this.#hopeless(evaluated.bound)) return;
    if (!last && this.#over()) {
      this.#unseen = Math.min(this.#unseen, evaluated.bound);
      return;
    }
    // Either this item has the resource, then all that it excludes keep off; or it has not, then neither has any item
    // that could be exchanged with it.
    const [item] = met.items;
    const partners = getOrThrow(getOrThrow(this.#excluded, met.resource), atOrThrow(this.instance.items, item).id);
    const alike = this.instance.items.flatMap((_, other) => (other === item || this.#alike(state, item, other) ? [other] : []));
    const without = this.instance.items.flatMap((other, at) => (partners.has(other.id) ? [at] : []));
    for (const banned of last ? [without] : [without, alike]) {
      this.#nodes += 1;
      const child: State = { ...state, banned: new Set([...state.banned, ...banned.map((other) => `${other}:${met.resource}`)]) };
      this.#leaf(child, this.#evaluate(child), last);
    }
  }

  /** The first resource that two items use which exclude each other. */
  #conflict(columns: Int32Array): { readonly resource: string; readonly items: readonly [number, number] } | undefined {
    const { items, resources } = this.instance;
    const users = new Map<string, Map<string, number>>();
    for (const [at, item] of items.entries()) {
      if (atOrThrow(columns, at) < 0 || this.#plain[at]) continue;
      for (const resource of atOrThrow(this.#usesAt, at).get(atOrThrow(columns, at)) ?? []) {
        const known = users.get(resource) ?? new Map<string, number>();
        users.set(resource, known.set(item.id, at));
      }
    }
    for (const { id, pairs } of resources) {
      const known = users.get(id);
      if (!known || known.size < 2) continue;
      for (const [a, b] of pairs) {
        const [first, second] = [known.get(a), known.get(b)];
        if (first !== undefined && second !== undefined) return { resource: id, items: [first, second] };
      }
    }
    return undefined;
  }

  /** The cheapest assignment under what is decided; null where a decision cannot be kept at all. */
  #evaluate(state: State): Evaluated | null {
    const { items, members, controllers } = this.instance;
    const joined = controllers.map((_, c) => members.filter((_m, at) => state.at[at] === c));
    let fixed = 0;
    for (const [at, where] of state.at.entries()) if (where === -1) fixed += combined(atOrThrow(members, at).leave);
    const addresses: (readonly (AddressOption | undefined)[])[] = [];
    for (const own of joined) {
      const chosen = cheapestAddresses(own);
      if (!chosen) return null;
      addresses.push(chosen.options);
      fixed += chosen.moved * TIER.moved;
    }
    const rows: Row[] = items.map((_, item) => ({ for: 'item', item }));
    for (const [controller, own] of joined.entries())
      for (const line of new Set(own.flatMap((m) => m.lines))) rows.push({ for: 'controller', controller, line });
    for (const [kind, lines] of this.#stillToCome(state, joined)) for (const line of lines) rows.push({ for: 'kind', kind, line });
    const demands = largestDemands(this.instance, this.#conflictGroups, state.at, joined);
    for (const { excess } of demands.values()) fixed += excess;
    rows.push(...this.#furtherBuses(demands));
    const width = this.#pins.length;
    const costs = new Float64Array(rows.length * width).fill(Infinity);
    const leave = new Float64Array(rows.length);
    for (const [at, row] of rows.entries()) {
      const base = at * width;
      if (row.for === 'item') {
        leave[at] = combined(atOrThrow(items, row.item).leave);
        this.#itemCosts(state, row.item, joined, costs, base);
      } else if (row.for === 'kind') {
        this.#anyController(row.kind, row.line, costs, base);
        leave[at] = row.leave ?? Math.max(0, this.#allOpen(state, row.kind, row.line) - (demands.get(row.kind)?.excess ?? 0));
      } else {
        // A line without a pin is no plan: dearer than leaving every member of it open.
        leave[at] = FORBIDDEN;
        if (!this.#lineCosts(state, row.controller, row.line, atOrThrow(joined, row.controller), costs, base)) return null;
      }
    }
    const { total, columns } = assign(rows.length, width, costs, leave);
    if (total >= FORBIDDEN) return null;
    const plain = { rows, pins: this.#pins, addresses };
    if (this.#single.size === 0 || this.#hopeless(total + fixed)) return { ...plain, cost: total + fixed, bound: total + fixed, columns };
    const other = this.#bySingles(rows.length, costs, leave);
    const bound = Math.max(total, other.total) + fixed;
    const legal = other.columns && !this.#conflict(other.columns) ? other.columns : null;
    if (!legal) return { ...plain, cost: total + fixed, bound, columns };
    let cost = fixed;
    for (const [at, column] of legal.entries()) cost += column < 0 ? atOrThrow(leave, at) : atOrThrow(costs, at * width + column);
    return { ...plain, cost: total + fixed, bound, columns, legal: { cost, columns: legal } };
  }

  /** Lines of undecided members that no controller in use brings yet: one will, if any of them joins. */
  #stillToCome(state: State, joined: readonly (readonly Member[])[]): ReadonlyMap<string, ReadonlySet<string>> {
    const { members, controllers } = this.instance;
    const come = new Map<string, Set<string>>();
    for (const [at, member] of members.entries()) {
      if (state.at[at] !== undefined || member.controllers.length === 0) continue;
      for (const line of member.lines) {
        const there = controllers.some((c, n) => c.kind === member.kind && atOrThrow(joined, n).some((m) => m.lines.includes(line)));
        if (!there) come.set(member.kind, (come.get(member.kind) ?? new Set<string>()).add(line));
      }
    }
    return come;
  }

  /** Lines of additional buses that are needed because one bus cannot hold a whole conflict group. */
  #furtherBuses(demands: ReadonlyMap<string, GroupDemand>): readonly Row[] {
    return [...demands.values()].flatMap(({ missing, group: { kind, lines, members: own } }) => {
      // Each missing bus leaves at least one more member unconnected.
      const leave = Math.floor(Math.min(...own.map((at) => combined(atOrThrow(this.instance.members, at).leave))) / lines.length);
      return Array.from({ length: Math.max(0, missing) }, () => lines.map((line): Row => ({ for: 'kind', kind, line, leave }))).flat();
    });
  }

  /** The least that a line costs which some controller of a kind will bring: any pin that it has at any of them. */
  #anyController(kind: string, line: string, costs: Float64Array, base: number): void {
    for (const controller of this.instance.controllers) {
      if (controller.kind !== kind) continue;
      for (const at of controller.lines[line] ?? []) {
        const column = base + getOrThrow(this.#column, at.pin);
        costs[column] = Math.min(atOrThrow(costs, column), combined(pinCosts(at)));
      }
    }
  }

  /** What it costs if no controller brings a line: each undecided member with it left open, its costs shared among its lines. */
  #allOpen(state: State, kind: string, line: string): number {
    const without = this.instance.members.filter(
      (m, at) => state.at[at] === undefined && m.kind === kind && m.lines.includes(line) && m.controllers.length > 0,
    );
    return Math.floor(without.reduce((sum, m) => sum + combined(m.leave) / m.lines.length, 0));
  }

  /** The remaining candidates of an item. */
  #itemCosts(state: State, at: number, joined: readonly (readonly Member[])[], costs: Float64Array, base: number): void {
    costs.set(atOrThrow(this.#itemRows, at), base);
    const item = atOrThrow(this.instance.items, at);
    if (this.#plain[at] || (state.banned.size === 0 && !item.candidates.some((c) => c.unless))) return;
    for (const { pin, unless, uses } of item.candidates) {
      const taken = unless !== undefined && (joined[this.#controllers.get(unless) ?? -1]?.length ?? 0) > 0;
      if (taken || uses?.some((resource) => state.banned.has(`${at}:${resource}`))) costs[base + getOrThrow(this.#column, pin)] = Infinity;
    }
  }

  /** Whether to exchange two items changes nothing: the half in which the second keeps off mirrors the other half. */
  #alike(state: State, a: number, b: number): boolean {
    if (!this.#symmetry.same(a, b)) return false;
    if (state.banned.size === 0) return true;
    for (const id of this.#excluded.keys()) if (state.banned.has(`${a}:${id}`) !== state.banned.has(`${b}:${id}`)) return false;
    return true;
  }

  /** A second bound: a shared channel has one user, however many pins it is available on. Users of such a resource occupy its column
   *  instead of a pin, which only lowers the bound. If every user finds an exclusive pin of its resource, this is also a valid
   *  assignment. */
  #bySingles(count: number, costs: Float64Array, leave: Float64Array): { readonly total: number; readonly columns: Int32Array | null } {
    const [width, wide] = [this.#pins.length, this.#pins.length + this.#single.size];
    const more = new Float64Array(count * wide).fill(Infinity);
    for (let at = 0; at < count; at += 1) {
      more.set(costs.subarray(at * width, (at + 1) * width), at * wide);
      if (at >= this.#plain.length || this.#plain[at]) continue;
      for (const [column, uses] of atOrThrow(this.#usesAt, at)) {
        const resource = uses.find((id) => this.#single.has(id));
        if (resource === undefined) continue;
        const [from, to] = [at * wide + column, at * wide + getOrThrow(this.#single, resource)];
        more[to] = Math.min(atOrThrow(more, to), atOrThrow(more, from));
        more[from] = Infinity;
      }
    }
    const { total, columns } = assign(count, wide, more, leave);
    return { total, columns: this.#toPins(columns, costs) };
  }

  /** Columns of single resources as pins: the cheapest of each that is free; null where one has none. */
  #toPins(columns: Int32Array, costs: Float64Array): Int32Array | null {
    const width = this.#pins.length;
    const pins = Int32Array.from(columns);
    const taken = new Set(columns.filter((column) => column >= 0 && column < width));
    const ids = new Map([...this.#single].map(([id, column]) => [column, id]));
    for (const [at, column] of columns.entries()) {
      if (column < width) continue;
      const own = [...atOrThrow(this.#usesAt, at)].filter(
        ([pin, uses]) => uses.includes(getOrThrow(ids, column)) && !taken.has(pin) && atOrThrow(costs, at * width + pin) < Infinity,
      );
      if (own.length === 0) return null;
      const [pin] = own.reduce((a, b) => (atOrThrow(costs, at * width + b[0]) < atOrThrow(costs, at * width + a[0]) ? b : a));
      pins[at] = pin;
      taken.add(pin);
    }
    return pins;
  }

  /** @returns whether the line has any pin */
  #lineCosts(state: State, at: number, line: string, own: readonly Member[], costs: Float64Array, base: number): boolean {
    const controller: BusController = atOrThrow(this.instance.controllers, at);
    const set = state.sets[at];
    const chosen = set === undefined ? undefined : controller.sets?.[set]?.[line];
    const fixed = new Set(own.flatMap((m) => m.fixed[line] ?? []));
    if (fixed.size > 1 || (controller.sets && chosen === undefined)) return false;
    let any = false;
    for (const at of controller.lines[line] ?? []) {
      const { pin } = at;
      if ((controller.sets && pin !== chosen) || (fixed.size === 1 && !fixed.has(pin)) || own.some((m) => m.avoid?.[line]?.includes(pin)))
        continue;
      any = true;
      costs[base + getOrThrow(this.#column, pin)] = combined({ ...pinCosts(at), moved: movedWires(own, line, pin) });
    }
    return any;
  }

  #choiceOf(state: State, { rows, columns, pins, addresses }: Evaluated): Choice {
    const { items, members, controllers } = this.instance;
    const chosenItems: { [item: string]: string } = {};
    const lines: { [controller: string]: { [line: string]: string } } = {};
    for (const [at, row] of rows.entries()) {
      const pin = atOrThrow(columns, at) < 0 ? undefined : atOrThrow(pins, atOrThrow(columns, at));
      if (pin === undefined) continue;
      if (row.for === 'item') chosenItems[atOrThrow(items, row.item).id] = pin;
      else if (row.for === 'controller') (lines[atOrThrow(controllers, row.controller).id] ??= {})[row.line] = pin;
    }
    const chosenMembers: { [member: string]: Choice['members'][string] } = {};
    for (const [c, controller] of controllers.entries()) {
      const own = members.filter((_, at) => state.at[at] === c);
      for (const [n, member] of own.entries())
        chosenMembers[member.id] = { controller: controller.id, address: atOrThrow(addresses, c)[n] };
    }
    return { items: chosenItems, members: chosenMembers, lines };
  }
}

/** More than leaving everything open. */
const FORBIDDEN = TIER.unwired * 1000;
