import { has } from '../../collections/has';
import { firstOrThrow, getOrThrow } from '../../collections/orThrow';
import { memoizeByObject } from '../../memo/memoizeByObject';
import type { IndexedBoard } from '../../sheets/sheetIndex';
import type { Candidate, Choice, Instance, Item } from '../model/instance';
import { combined } from '../model/weights';

/** Positions that lie this far apart count no more than this, and so do positions on two headers: beyond it a ribbon ends anyway. */
const FAR = 20;
const PASSES = 3;

interface Spot {
  readonly header: string;
  readonly position: number;
}

/** Items that may change their pin without checking a rule: no shared resource, no condition. */
function loose(instance: Instance): readonly Item[] {
  const plain = (c: Candidate) => !c.uses?.length && c.unless === undefined;
  return instance.items.filter((item) => item.terminals.length === 1 && item.candidates.every(plain));
}

/** The group of each item that is wished to lie together with others: such items only change places among themselves. */
function groupsOf(instance: Instance): ReadonlyMap<string, string> {
  const groups = instance.groups ?? [];
  return new Map(groups.flatMap((g) => g.alternatives.flatMap((a) => Object.keys(a).map((item) => [item, g.id] as const))));
}

/** Whether two items of a group may change places: where each of its alternatives gives both the same pins. */
function alikeIn(instance: Instance, a: string, b: string): boolean {
  return (instance.groups ?? []).every((g) => g.alternatives.every((one) => one[a]?.join() === one[b]?.join()));
}

const placementOf = (item: Item): string => firstOrThrow(item.terminals).slice(0, firstOrThrow(item.terminals).indexOf(':'));

/** How untidily the signals of one part lie: the steps from each to the next in printed order. */
function untidy(items: readonly Item[], pins: ReadonlyMap<string, string>, spots: ReadonlyMap<string, Spot>): number {
  let sum = 0;
  let before: Spot | undefined;
  for (const item of items) {
    const spot = spots.get(pins.get(item.id) ?? '');
    if (spot && before) sum += spot.header === before.header ? Math.min(FAR, Math.abs(spot.position - before.position)) : FAR;
    if (spot) before = spot;
  }
  return sum;
}

/** Where the pins of a board lie. */
const spotsOf = memoizeByObject(
  (board: IndexedBoard): ReadonlyMap<string, Spot> =>
    new Map(
      board.sheet.pins.list
        .filter(has('position'))
        .flatMap((pin): [string, Spot][] => (pin.header && !pin.sameAs ? [[pin.id, { header: pin.header, position: pin.position }]] : [])),
    ),
);

/** A choice of the same cost in which the signals of each part lie closer to one another, in printed order: tier 5, as far
 *  as exchanging two pins, or taking a free one, leads. Nothing is proved of it. */
export function compactly(instance: Instance, choice: Choice, board: IndexedBoard): Choice {
  const spots = spotsOf(board);
  const parts = new Map<string, Item[]>();
  for (const item of instance.items)
    if (item.terminals.length === 1) parts.set(placementOf(item), [...(parts.get(placementOf(item)) ?? []), item]);
  const pins = new Map(Object.entries(choice.items));
  const lines = new Set(Object.values(choice.lines).flatMap((own) => Object.values(own)));
  const movable = loose(instance).filter((item) => pins.has(item.id));
  const costs = new Map(movable.map((item) => [item.id, new Map(item.candidates.map((c) => [c.pin, combined(c)]))]));
  const at = new Map([...pins].map(([item, pin]) => [pin, item]));
  const byId = new Map(movable.map((item) => [item.id, item]));
  const groups = groupsOf(instance);
  const measure = (placements: ReadonlySet<string>) =>
    [...placements].reduce((sum, id) => sum + untidy(getOrThrow(parts, id), pins, spots), 0);
  const put = (item: string, pin: string) => {
    pins.set(item, pin);
    at.set(pin, item);
  };

  /** Tries one item at one pin, swapping with its present item; keeps the swap if it is more compact. */
  const tryAt = (item: Item, pin: string): boolean => {
    const here = getOrThrow(pins, item.id);
    const other = byId.get(at.get(pin) ?? '');
    if (pin === here || lines.has(pin) || (at.has(pin) && !other)) return false;
    const [mine, their] = [groups.get(item.id), other && groups.get(other.id)];
    if (mine !== their || (other && mine !== undefined && !alikeIn(instance, item.id, other.id))) return false;
    const own = getOrThrow(costs, item.id);
    const theirs = other && getOrThrow(costs, other.id);
    if (theirs && !theirs.has(here)) return false;
    const now = getOrThrow(own, here) + (theirs?.get(pin) ?? 0);
    if (getOrThrow(own, pin) + (theirs?.get(here) ?? 0) !== now) return false;
    const concerned = new Set([placementOf(item), ...(other ? [placementOf(other)] : [])]);
    const before = measure(concerned);
    at.delete(here);
    put(item.id, pin);
    if (other) put(other.id, here);
    if (measure(concerned) < before) return true;
    at.delete(pin);
    put(item.id, here);
    if (other) put(other.id, pin);
    return false;
  };

  for (let pass = 0; pass < PASSES; pass += 1) {
    let better = false;
    for (const item of movable) {
      if ((parts.get(placementOf(item))?.length ?? 0) < 2) continue;
      for (const { pin } of item.candidates) if (tryAt(item, pin)) better = true;
    }
    if (!better) break;
  }
  return { ...choice, items: Object.fromEntries(pins) };
}
