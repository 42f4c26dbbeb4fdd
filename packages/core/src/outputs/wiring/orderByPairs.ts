import { atOrThrow } from '../../collections/orThrow';
/** Up to so many items the order is exact. */
const EXACT = 13;

/** An order of items in which the costs of all pairs are least: exactly up to 13 items, beyond by moving single items while that helps.
 *  @param cost of having the first anywhere before the second
 *  @returns the items in order, ties by number */
export function orderByPairs(count: number, cost: (first: number, second: number) => number): readonly number[] {
  const costs = Array.from({ length: count }, (_, i) => Float64Array.from({ length: count }, (__, j) => (i === j ? 0 : cost(i, j))));
  return count <= EXACT ? exactOrder(costs) : improvedOrder(costs);
}

/** By dynamic programming over the sets of items that come first. */
function exactOrder(costs: readonly Float64Array[]): readonly number[] {
  const count = costs.length;
  const best = new Float64Array(1 << count).fill(Infinity);
  const last = new Int8Array(1 << count);
  best[0] = 0;
  for (let set = 1; set < 1 << count; set += 1)
    for (let item = count - 1; item >= 0; item -= 1) {
      if (!(set & (1 << item))) continue;
      let sum = atOrThrow(best, set ^ (1 << item));
      for (let before = 0; before < count; before += 1)
        if (before !== item && set & (1 << before)) sum += atOrThrow(atOrThrow(costs, before), item);
      if (sum < atOrThrow(best, set)) {
        best[set] = sum;
        last[set] = item;
      }
    }
  const order: number[] = [];
  for (let set = (1 << count) - 1; set > 0; set ^= 1 << atOrThrow(last, set)) order.unshift(atOrThrow(last, set));
  return order;
}

/** The best move of one item to another place, until none lowers the cost. */
function improvedOrder(costs: readonly Float64Array[]): readonly number[] {
  const lead = (item: number) =>
    costs.reduce((sum, row, other) => sum + atOrThrow(atOrThrow(costs, item), other) - atOrThrow(row, item), 0);
  const order = costs.map((_, item) => item).sort((a, b) => lead(a) - lead(b) || a - b);
  for (let isBetter = true; isBetter;) {
    isBetter = false;
    for (let from = 0; from < order.length; from += 1) {
      const item = atOrThrow(order, from);
      let [gain, best, to] = [0, 0, from];
      for (let step = from - 1; step >= 0; step -= 1) {
        gain += atOrThrow(atOrThrow(costs, item), atOrThrow(order, step)) - atOrThrow(atOrThrow(costs, atOrThrow(order, step)), item);
        if (gain < best) [best, to] = [gain, step];
      }
      gain = 0;
      for (let step = from + 1; step < order.length; step += 1) {
        gain += atOrThrow(atOrThrow(costs, atOrThrow(order, step)), item) - atOrThrow(atOrThrow(costs, item), atOrThrow(order, step));
        if (gain < best) [best, to] = [gain, step];
      }
      if (to === from) continue;
      order.splice(from, 1);
      order.splice(to, 0, item);
      isBetter = true;
    }
  }
  return order;
}
