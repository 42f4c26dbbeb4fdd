import { atOrThrow, firstOrThrow, lastOrThrow } from '../../collections/orThrow';
import { GAP, type Placeable, type PlacedVariant, type PlaceProblem, type Ready } from './placeProblem';

/** The nets while items are placed. */
export class NetStates {
  readonly low: Int32Array;
  readonly high: Int32Array;
  /** The lanes that a net is in, as bits. */
  readonly lanes: Uint8Array;
  /** Points that have no place yet. */
  readonly open: Int32Array;
  /** By lanes, as bits: from the first to the last one, in pitches. */
  readonly #across: readonly number[];

  constructor(
    private readonly count: number,
    items: readonly Placeable[],
    lanes: PlaceProblem['lanes'],
  ) {
    this.#across = Array.from({ length: 2 ** lanes.length }, (_, bits) => {
      const own = lanes.filter((_, lane) => bits & (1 << lane));
      return own.length > 1 ? lastOrThrow(own) - firstOrThrow(own) : 0;
    });
    [this.low, this.high, this.lanes, this.open] = [
      new Int32Array(count),
      new Int32Array(count),
      new Uint8Array(count),
      new Int32Array(count),
    ];
    for (const { variants } of items) for (const { net } of firstOrThrow(variants).points) this.open[net] = atOrThrow(this.open, net) + 1;
  }

  /** @param lane as a bit */
  add(net: number, row: number, lane: number): void {
    const isFirst = this.lanes[net] === 0;
    this.low[net] = isFirst ? row : Math.min(atOrThrow(this.low, net), row);
    this.high[net] = isFirst ? row : Math.max(atOrThrow(this.high, net), row);
    this.lanes[net] = atOrThrow(this.lanes, net) | lane;
    this.open[net] = atOrThrow(this.open, net) - 1;
  }

  /** How far the nets reach at least, if everything without a place comes to lie in a row or after it. */
  least(earliest: number): number {
    let sum = 0;
    for (let net = 0; net < this.count; net += 1) {
      const lanes = atOrThrow(this.lanes, net);
      if (lanes === 0) continue;
      const high = atOrThrow(this.open, net) > 0 ? Math.max(atOrThrow(this.high, net), earliest) : atOrThrow(this.high, net);
      sum += high - atOrThrow(this.low, net) + atOrThrow(this.#across, lanes);
    }
    return sum;
  }
}

/** How far further the nets reach that are open, because their items need room: no packing of the rest in so many lanes is better than one in
 *  which they take turns at that many times the speed (the bound of Eastman, Even and Isaacs for weighted completion times). */
export class RoomBound {
  /** Of each item: rows that it covers, in the lane where it covers most, with the gap after it; of each of its nets the first row, relative to
   *  where it begins there. */
  readonly #rows: readonly number[];
  readonly #nets: readonly (readonly { readonly net: number; readonly after: number }[])[];
  readonly #weights: Float64Array;

  /** @param lanes how many there are */
  constructor(
    all: readonly (readonly Ready[])[],
    private readonly lanes: number,
  ) {
    const lengthOf = ({ strips: [from, to] }: Ready['spans'][number]) => to - from + 1;
    const longest = ({ spans }: Ready) => firstOrThrow(spans.toSorted((a, b) => lengthOf(b) - lengthOf(a)));
    this.#rows = all.map((variants) => Math.min(...variants.map((one) => lengthOf(longest(one)))) + GAP);
    this.#nets = all.map((variants) => {
      const nets = [...new Set(firstOrThrow(variants).points.map(({ net }) => net))];
      const rowsOf = (one: Ready, net: number) =>
        one.points.flatMap((point) => (point.net === net ? [point.row - longest(one).strips[0]] : []));
      return nets.map((net) => ({ net, after: Math.min(...variants.flatMap((one) => rowsOf(one, net))) }));
    });
    this.#weights = new Float64Array(all.length);
  }

  /** In pitches, beyond the row from which on there is room. */
  of(rest: readonly number[], { lanes, open, high }: NetStates, earliest: number): number {
    const done = new Set<number>();
    const weights = this.#weights;
    let offsets = 0;
    for (const item of rest) {
      weights[item] = 0;
      for (const { net, after } of atOrThrow(this.#nets, item)) {
        // A net that reaches beyond the row already does not grow at once.
        if (lanes[net] === 0 || open[net] === 0 || done.has(net) || atOrThrow(high, net) > earliest) continue;
        done.add(net);
        weights[item] = atOrThrow(weights, item) + 1;
        offsets += after;
      }
    }
    const order = rest
      .filter((item) => atOrThrow(weights, item) > 0)
      .toSorted((a, b) => atOrThrow(weights, b) / atOrThrow(this.#rows, b) - atOrThrow(weights, a) / atOrThrow(this.#rows, a));
    let [completion, sum, own] = [0, 0, 0];
    for (const item of order) {
      completion += atOrThrow(this.#rows, item);
      sum += atOrThrow(weights, item) * completion;
      own += atOrThrow(weights, item) * atOrThrow(this.#rows, item);
    }
    const machines = this.lanes;
    return Math.max(0, offsets + Math.max(0, Math.ceil(sum / machines - ((machines + 1) * own) / (2 * machines))));
  }
}

/** How far the nets of a placement reach: of each net from its first row to its last, and from its first lane to its last; and the wires to
 *  the rails. In pitches. Wires that join the strips of a net are at least as long. */
export function spanOf({ items, nets, lanes }: PlaceProblem, placed: readonly PlacedVariant[]): number {
  const states = new NetStates(nets, [], lanes);
  let fixed = 0;
  for (const { item, variant, row } of placed) {
    const chosen = atOrThrow(atOrThrow(items, item).variants, variant);
    fixed += chosen.fixedLength;
    for (const { net, row: own, lane } of chosen.points) states.add(net, own + row, 1 << lane);
  }
  return fixed + states.least(-Infinity);
}
