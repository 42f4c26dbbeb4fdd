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
  readonly #taken: readonly [Taken[], Taken[]] = [[], []];

  constructor(private readonly problem: PlaceProblem) {}

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
      for (const { half, strips, all } of spans)
        for (const other of this.#taken[half]) {
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
    for (const { half, strips, all } of spans) this.#taken[half].push({ strips: shifted(strips, row), all: shifted(all, row) });
  }

  pop({ spans }: Ready): void {
    for (const { half } of spans) this.#taken[half].pop();
  }

  /** The first row in which something may still begin that does not begin before a row. What begins after that row, as locked parts do,
   *  leaves a gap before it. */
  earliest(start: number): number {
    const last = (list: readonly Taken[]) =>
      list.reduce((most, { strips }) => (strips[0] <= start ? Math.max(most, strips[1]) : most), -GAP);
    return Math.max(start, Math.min(last(this.#taken[0]), last(this.#taken[1])) + GAP + 1);
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
    return `${words(this.#taken[0])}/${words(this.#taken[1])}`;
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
  for (const { item, variant, row } of given) packing.push(all[item]![variant]!, row);
  for (const { item, variant } of order) {
    const row = packing.rowFor(all[item]![variant]!, 1);
    if (row === undefined) return undefined;
    packing.push(all[item]![variant]!, row);
    placed.push({ item, variant, row });
  }
  return placed;
}

type Order = readonly Omit<PlacedVariant, 'row'>[];

/** An order with one item turned, exchanged with another, or moved. */
function* changesOf(order: Order, { items }: PlaceProblem): Generator<Order> {
  for (let at = 0; at < order.length; at += 1) {
    const one = order[at]!;
    for (let variant = 0; variant < items[one.item]!.variants.length; variant += 1)
      if (variant !== one.variant) yield order.with(at, { ...one, variant });
    for (let to = 0; to < order.length; to += 1) {
      if (to > at) yield order.with(at, order[to]!).with(to, one);
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
      if (found >= span) continue;
      [best, span, order, isBetter] = [placed!, found, next, true];
      break;
    }
  }
  return { placed: best, span };
}

const nodesFor = ({ items }: PlaceProblem): number => Math.round(NODES / Math.max(1, items.length / 10));

/** Places what has no place so that the nets reach as little far as possible: a search of all packed placements, in the order of their first
 *  rows. Of placements that hold the same and end alike only the best is followed. When it is finished the result is proved; else the bound
 *  says how much smaller another could be.
 *  @param nodes placements that are looked at, at most
 *  @returns undefined if nothing fits */
export function placeItems(problem: PlaceProblem, nodes = nodesFor(problem)): Placement | undefined {
  const { items } = problem;
  const all = items.map(({ variants }) => variants.map(ready));
  const given = items.flatMap(({ at }, item): PlacedVariant[] => (at ? [{ item, ...at }] : []));
  const free = items.flatMap(({ at }, item) => (at ? [] : [item]));
  const packing = new Packing(problem);
  const states = new NetStates(problem.nets, items);
  const room = new RoomBound(all);
  const leastFixed = items.map(({ variants }) => Math.min(...variants.map(({ fixedLength }) => fixedLength)));
  let fixed = leastFixed.reduce((sum, one) => sum + one, 0);

  const put = (item: number, one: Ready, row: number): Int32Array => {
    packing.push(one, row);
    fixed += one.variant.fixedLength - leastFixed[item]!;
    const before = new Int32Array(one.points.length * 3);
    one.points.forEach(({ net, row: own, half }, at) => {
      before.set([states.low[net]!, states.high[net]!, states.halves[net]!], 3 * at);
      states.add(net, own + row, half);
    });
    return before;
  };
  const take = (item: number, one: Ready, before: Int32Array) => {
    packing.pop(one);
    fixed -= one.variant.fixedLength - leastFixed[item]!;
    for (let at = one.points.length - 1; at >= 0; at -= 1) {
      const { net } = one.points[at]!;
      [states.low[net], states.high[net], states.halves[net]] = [before[3 * at]!, before[3 * at + 1]!, before[3 * at + 2]!];
      states.open[net]! += 1;
    }
  };
  for (const { item, variant, row } of given) put(item, all[item]![variant]!, row);

  // A first good placement makes the search short.
  const first = improved(
    problem,
    all,
    given,
    free.map((item) => ({ item, variant: 0 })),
  );
  let best = first?.placed;
  let span = first?.span ?? Infinity;
  let seen = 0;
  /** The least of what is not looked at. */
  let unseen = Infinity;
  const reached = new Map<string, number>();
  const way: PlacedVariant[] = [];

  /** Rows that a body reaches ahead of the first strip of its item, at most. */
  const ahead = Math.max(0, ...all.flat().flatMap(({ start, spans }) => spans.map((span) => start - span.all[0])));
  /** What the rest depends on: what is placed, what is in the way, and how far open nets reach beyond the row that is next. */
  const keyOf = (rest: readonly number[], start: number, earliest: number): string => {
    let nets = '';
    for (let net = 0; net < problem.nets; net += 1)
      if (states.open[net]! > 0 && states.halves[net]! > 0)
        nets += `${net}:${states.halves[net]}:${Math.max(0, states.high[net]! - earliest)} `;
    return `${rest.join(' ')}|${start}|${packing.inTheWay(start, ahead)}|${nets}`;
  };

  const search = (rest: readonly number[], start: number): void => {
    if (rest.length === 0) {
      const found = fixed + states.least(-Infinity);
      if (found < span) [best, span] = [[...given, ...way], found];
      return;
    }
    const next = rest
      .flatMap((item) =>
        all[item]!.flatMap((one, at) => {
          const row = packing.rowFor(one, start);
          if (row === undefined) return [];
          const before = put(item, one, row);
          const earliest = packing.earliest(row + one.start);
          const others = rest.filter((other) => other !== item);
          const bound = fixed + states.least(earliest) + room.of(others, states, earliest);
          take(item, one, before);
          return bound >= span ? [] : [{ item, at, one, row, bound, others }];
        }),
      )
      .toSorted((a, b) => a.bound - b.bound || a.row + a.one.start - b.row - b.one.start);
    for (const { item, at, one, row, bound, others } of next) {
      if (bound >= span) break;
      if (seen >= nodes) {
        unseen = Math.min(unseen, bound);
        break;
      }
      seen += 1;
      const before = put(item, one, row);
      const earliest = packing.earliest(row + one.start);
      const cost = fixed + states.least(earliest);
      const key = keyOf(others, row + one.start, earliest);
      if (cost < (reached.get(key) ?? Infinity)) {
        reached.set(key, cost);
        way.push({ item, variant: at, row });
        search(others, row + one.start);
        way.pop();
      }
      take(item, one, before);
    }
  };
  search(free, 1);
  if (!best) return undefined;
  const bound = Math.min(span, unseen);
  return { placed: best, span, bound, proved: bound >= span };
}
