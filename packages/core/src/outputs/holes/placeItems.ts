import { atOrThrow } from '../../collections/orThrow';
import { NetStates, RoomBound, spanOf } from './netSpans';
import {
  BODY_GAP,
  GAP,
  type PlacedVariant,
  type Placement,
  type PlaceProblem,
  ready,
  type Ready,
  shifted,
  type Taken,
} from './placeProblem';

/** Placements that are looked at, of ten parts; of more parts fewer, because each has more to compare. */
const NODES = 30_000;
/** Changes of the best order that are tried. */
const TRIES = 3000;

/** What is on the breadboard so far. */
class Packing {
  readonly #taken: readonly Taken[][];

  constructor(private readonly problem: PlaceProblem) {
    this.#taken = problem.lanes.map(() => []);
  }

  /** The first row from which on there is room, if the item starts in a row or after it. */
  rowFor({ start, end, spans }: Ready, from: number): number | undefined {
    const { rows, rowsPerBoard } = this.problem;
    let row = Math.max(1, from) - start;
    for (let isMoved = true; isMoved;) {
      isMoved = false;
      const [first, last] = [row + start, row + end];
      if (last > rows) return undefined;
      const board = Math.floor((first - 1) / rowsPerBoard);
      if (Math.floor((last - 1) / rowsPerBoard) !== board) {
        row = (board + 1) * rowsPerBoard + 1 - start;
        isMoved = true;
        continue;
      }
      for (const { lane, strips, all } of spans)
        for (const other of atOrThrow(this.#taken, lane)) {
          if (row + strips[0] <= other.strips[1] + GAP && row + strips[1] + GAP >= other.strips[0]) {
            row = other.strips[1] + GAP + 1 - strips[0];
            isMoved = true;
          }
          if (row + all[0] <= other.all[1] + BODY_GAP && row + all[1] + BODY_GAP >= other.all[0]) {
            row = other.all[1] + BODY_GAP + 1 - all[0];
            isMoved = true;
          }
        }
    }
    return row;
  }

  push({ spans }: Ready, row: number): void {
    for (const { lane, strips, all } of spans) atOrThrow(this.#taken, lane).push({ strips: shifted(strips, row), all: shifted(all, row) });
  }

  pop({ spans }: Ready): void {
    for (const { lane } of spans) atOrThrow(this.#taken, lane).pop();
  }

  /** The first row in which something may still begin that does not begin before a row. What begins after that row, as locked parts do,
   *  leaves a gap before it. */
  earliest(start: number): number {
    const last = (list: readonly Taken[]) =>
      list.reduce((most, { strips }) => (strips[0] <= start ? Math.max(most, strips[1]) : most), -GAP);
    return Math.max(start, Math.min(...this.#taken.map(last)) + GAP + 1);
  }

  /** What is in the way of something that does not begin before a row, with a body that reaches so many rows ahead of it. */
  inTheWay(start: number, ahead: number): string {
    const words = (list: readonly Taken[]) =>
      list
        .flatMap(({ strips, all }) =>
          Math.max(strips[1] + GAP, all[1] + BODY_GAP) >= start - ahead ? [`${strips.join(' ')} ${all.join(' ')}`] : [],
        )
        .toSorted()
        .join(',');
    return this.#taken.map(words).join('/');
  }
}

/** Packs items in an order, each in the first row where there is room. */
function packed(
  problem: PlaceProblem,
  all: readonly (readonly Ready[])[],
  given: readonly PlacedVariant[],
  order: readonly Omit<PlacedVariant, 'row'>[],
): readonly PlacedVariant[] | undefined {
  const packing = new Packing(problem);
  const placed = [...given];
  for (const { item, variant, row } of given) packing.push(atOrThrow(atOrThrow(all, item), variant), row);
  for (const { item, variant } of order) {
    const row = packing.rowFor(atOrThrow(atOrThrow(all, item), variant), 1);
    if (row === undefined) return undefined;
    packing.push(atOrThrow(atOrThrow(all, item), variant), row);
    placed.push({ item, variant, row });
  }
  return placed;
}

type Order = readonly Omit<PlacedVariant, 'row'>[];

/** An order with one item turned, exchanged with another, or moved. */
function* changesOf(order: Order, { items }: PlaceProblem): Generator<Order> {
  for (let at = 0; at < order.length; at += 1) {
    const one = atOrThrow(order, at);
    for (let variant = 0; variant < atOrThrow(items, one.item).variants.length; variant += 1)
      if (variant !== one.variant) yield order.with(at, { ...one, variant });
    for (let to = 0; to < order.length; to += 1) {
      if (to > at) yield order.with(at, atOrThrow(order, to)).with(to, one);
      if (to !== at) yield order.toSpliced(at, 1).toSpliced(to, 0, one);
    }
  }
}

/** Improves an order by changes of it, as long as one helps. */
function improved(problem: PlaceProblem, all: readonly (readonly Ready[])[], given: readonly PlacedVariant[], start: Order) {
  let best = packed(problem, all, given, start);
  if (!best) return undefined;
  let [order, span] = [start, spanOf(problem, best)];
  let tries = 0;
  for (let isBetter = true; isBetter && tries < TRIES;) {
    isBetter = false;
    for (const next of changesOf(order, problem)) {
      tries += 1;
      if (tries >= TRIES) break;
      const placed = packed(problem, all, given, next);
      const found = placed ? spanOf(problem, placed) : Infinity;
      if (!placed || found >= span) continue;
      [best, span, order, isBetter] = [placed, found, next, true];
      break;
    }
  }
  return { placed: best, span };
}

const nodesFor = ({ items }: PlaceProblem): number => Math.round(NODES / Math.max(1, items.length / 10));

/** An item that can be put next, with the least that the whole can then come to. */
interface Choice {
  readonly item: number;
  readonly at: number;
  readonly one: Ready;
  readonly row: number;
  readonly bound: number;
  readonly others: readonly number[];
}

/** A search of all packed placements, in the order of their first rows. Of placements that hold the same and end alike only the best is
 *  followed. */
class Search {
  readonly #packing: Packing;
  readonly #states: NetStates;
  readonly #room: RoomBound;
  readonly #leastFixed: readonly number[];
  /** Rows that a body reaches ahead of the first strip of its item, at most. */
  readonly #ahead: number;
  readonly #reached = new Map<string, number>();
  readonly #way: PlacedVariant[] = [];
  #fixed: number;
  #seen = 0;
  /** The least of what is not looked at. */
  unseen = Infinity;

  /** @param best a placement to improve on, if any, and how far its nets reach */
  constructor(
    private readonly problem: PlaceProblem,
    private readonly all: readonly (readonly Ready[])[],
    private readonly given: readonly PlacedVariant[],
    private readonly nodes: number,
    public best: readonly PlacedVariant[] | undefined,
    public span: number,
  ) {
    const { items, nets, lanes } = problem;
    this.#packing = new Packing(problem);
    this.#states = new NetStates(nets, items, lanes);
    this.#room = new RoomBound(all, lanes.length);
    this.#leastFixed = items.map(({ variants }) => Math.min(...variants.map(({ fixedLength }) => fixedLength)));
    this.#fixed = this.#leastFixed.reduce((sum, one) => sum + one, 0);
    this.#ahead = Math.max(0, ...all.flat().flatMap(({ start, spans }) => spans.map((span) => start - span.all[0])));
    for (const { item, variant, row } of given) this.#put(item, atOrThrow(atOrThrow(all, item), variant), row);
  }

  #put(item: number, one: Ready, row: number): Int32Array {
    const states = this.#states;
    this.#packing.push(one, row);
    this.#fixed += one.variant.fixedLength - atOrThrow(this.#leastFixed, item);
    const before = new Int32Array(one.points.length * 3);
    one.points.forEach(({ net, row: own, lane }, at) => {
      before.set([atOrThrow(states.low, net), atOrThrow(states.high, net), atOrThrow(states.lanes, net)], 3 * at);
      states.add(net, own + row, lane);
    });
    return before;
  }

  /** The reverse of `#put`, which gave what was before. */
  #take(item: number, one: Ready, before: Int32Array): void {
    const states = this.#states;
    this.#packing.pop(one);
    this.#fixed -= one.variant.fixedLength - atOrThrow(this.#leastFixed, item);
    for (let at = one.points.length - 1; at >= 0; at -= 1) {
      const { net } = atOrThrow(one.points, at);
      [states.low[net], states.high[net], states.lanes[net]] = [
        atOrThrow(before, 3 * at),
        atOrThrow(before, 3 * at + 1),
        atOrThrow(before, 3 * at + 2),
      ];
      states.open[net] = atOrThrow(states.open, net) + 1;
    }
  }

  /** What the rest depends on: what is placed, what is in the way, and how far open nets reach beyond the row that is next. */
  #keyOf(rest: readonly number[], start: number, earliest: number): string {
    const { open, lanes, high } = this.#states;
    let nets = '';
    for (let net = 0; net < this.problem.nets; net += 1)
      if (atOrThrow(open, net) > 0 && atOrThrow(lanes, net) > 0)
        nets += `${net}:${lanes[net]}:${Math.max(0, atOrThrow(high, net) - earliest)} `;
    return `${rest.join(' ')}|${start}|${this.#packing.inTheWay(start, this.#ahead)}|${nets}`;
  }

  #choiceOf(rest: readonly number[], start: number, item: number, at: number): readonly Choice[] {
    const one = atOrThrow(atOrThrow(this.all, item), at);
    const row = this.#packing.rowFor(one, start);
    if (row === undefined) return [];
    const before = this.#put(item, one, row);
    const earliest = this.#packing.earliest(row + one.start);
    const others = rest.filter((other) => other !== item);
    const bound = this.#fixed + this.#states.least(earliest) + this.#room.of(others, this.#states, earliest);
    this.#take(item, one, before);
    return bound >= this.span ? [] : [{ item, at, one, row, bound, others }];
  }

  /** Places the rest, of which nothing begins before a row. */
  run(rest: readonly number[], start: number): void {
    if (rest.length === 0) {
      const found = this.#fixed + this.#states.least(-Infinity);
      if (found < this.span) [this.best, this.span] = [[...this.given, ...this.#way], found];
      return;
    }
    const next = rest
      .flatMap((item) => atOrThrow(this.all, item).flatMap((_, at) => this.#choiceOf(rest, start, item, at)))
      .toSorted((a, b) => a.bound - b.bound || a.row + a.one.start - b.row - b.one.start);
    for (const choice of next) {
      if (choice.bound >= this.span) break;
      if (this.#seen >= this.nodes) {
        this.unseen = Math.min(this.unseen, choice.bound);
        break;
      }
      this.#seen += 1;
      this.#follow(choice);
    }
  }

  #follow({ item, at, one, row, others }: Choice): void {
    const before = this.#put(item, one, row);
    const earliest = this.#packing.earliest(row + one.start);
    const cost = this.#fixed + this.#states.least(earliest);
    const key = this.#keyOf(others, row + one.start, earliest);
    if (cost < (this.#reached.get(key) ?? Infinity)) {
      this.#reached.set(key, cost);
      this.#way.push({ item, variant: at, row });
      this.run(others, row + one.start);
      this.#way.pop();
    }
    this.#take(item, one, before);
  }
}

/** Places what has no place so that the nets reach as little far as possible. When the search is finished the result is proved; else the bound
 *  says how much smaller another could be.
 *  @param nodes placements that are looked at, at most
 *  @returns undefined if nothing fits */
export function placeItems(problem: PlaceProblem, nodes = nodesFor(problem)): Placement | undefined {
  const { items } = problem;
  const all = items.map(({ variants }) => variants.map(ready));
  const given = items.flatMap(({ at }, item): PlacedVariant[] => (at ? [{ item, ...at }] : []));
  const free = items.flatMap(({ at }, item) => (at ? [] : [item]));
  // A first good placement makes the search short.
  const plain = free.map((item) => ({ item, variant: 0 }));
  const first = improved(problem, all, given, plain);
  const search = new Search(problem, all, given, nodes, first?.placed, first?.span ?? Infinity);
  search.run(free, 1);
  const { best, span, unseen } = search;
  if (!best) return undefined;
  const bound = Math.min(span, unseen);
  return { placed: best, span, bound, proved: bound >= span };
}
