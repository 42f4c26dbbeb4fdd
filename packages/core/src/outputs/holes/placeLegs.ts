import { atOrThrow, firstOrThrow } from '../../collections/orThrow';
import type { Component, ComponentEnd } from '../../electrics/reports/components';
import { ACROSS, type Half } from './breadboard';
import { REACH } from './footprint';
import type { Bridge, HoleItem, HoleNet, LegPlace, Strip } from './holeItems';

/** From leg to leg of a resistor that lies: 7.62 mm. */
const LYING = 3;
/** Holes of a strip beside a module, of which the outermost lies under its body. */
const BESIDE = 4;

interface Task {
  readonly id: string;
  readonly name: string;
  /** What each of its two ends is soldered to, and the net of that. */
  readonly ends: readonly [TaskEnd, TaskEnd];
}

interface TaskEnd {
  readonly net: HoleNet;
  /** The strip of the terminal or leg that it is meant for, if that is on the breadboard. */
  readonly own: Strip | undefined;
}

interface Given {
  readonly components: readonly Component[];
  readonly chip: readonly { readonly id: string; readonly name: string; readonly pins: readonly string[] }[];
  readonly items: readonly HoleItem[];
  readonly nets: readonly HoleNet[];
  /** Makes an item of two strips for a component that lies on its own. */
  ownItem(id: string): HoleItem;
}

const isEverywhere = ({ rail }: HoleNet): boolean => rail !== undefined && rail.halves.length > 1;
/** A strip that keeps a hole for its wire when a leg has taken one. */
const hasRoom = ({ free }: Strip): boolean => free > 1;

function tasksOf({ components, chip, items, nets }: Given): readonly Task[] {
  const stripAt = (item: string, leg: string | undefined) => items.find(({ id }) => id === item)?.strips.find((strip) => strip.leg === leg);
  const netAt = (component: string, end: number) =>
    nets.find(({ conductor }) => conductor.ends.some(({ module, terminal }) => module === component && terminal === String(end)));
  const ownStrip = ({ at }: ComponentEnd, { strips }: HoleNet): Strip | undefined =>
    at.to === 'terminal'
      ? strips.find(({ item, leg }) => item === at.placement && leg === at.terminal)
      : strips.find(({ item }) => at.to === 'component' && item === at.id);
  return [
    ...components.flatMap((component): Task[] => {
      const { id, name } = component;
      const ends = component.ends.flatMap((end, at): TaskEnd[] => {
        const net = netAt(id, at);
        return net ? [{ net, own: ownStrip(end, net) }] : [];
      });
      return ends.length === 2 ? [{ id, name, ends: [firstOrThrow(ends), atOrThrow(ends, 1)] }] : [];
    }),
    ...chip.flatMap(({ id, name, pins }): Task[] => {
      const ends = pins.flatMap((pin): TaskEnd[] => {
        const strip = stripAt('board', pin);
        const net = nets.find(({ strips }) => strip !== undefined && strips.includes(strip));
        return net ? [{ net, own: strip }] : [];
      });
      return ends.length === 2 ? [{ id, name, ends: [firstOrThrow(ends), atOrThrow(ends, 1)] }] : [];
    }),
  ];
}

/** The strips that an end may go into, the one it is meant for before all others. */
function choices({ net, own }: TaskEnd): readonly Strip[] {
  const room = net.strips.filter(hasRoom);
  return own && hasRoom(own) ? [own, ...room.filter((strip) => strip !== own)] : room;
}

/** How far two strips of one item are apart, in pitches; over two boards side by side no leg goes from one to the other. */
const apart = ({ footprint }: HoleItem, a: Strip, b: Strip): number =>
  Math.abs(a.row - b.row) + (a.half === b.half ? 0 : footprint.overTwo ? Infinity : ACROSS);

/** The nearest two strips of one item that a component can go between. */
function betweenStrips([first, second]: Task['ends'], items: readonly HoleItem[]): readonly [Strip, Strip] | undefined {
  const seconds = choices(second);
  const away = ({ own }: TaskEnd, strip: Strip) => (own !== undefined && strip !== own ? 100 : 0);
  const pairs = choices(first).flatMap((a) =>
    seconds.flatMap((b) => {
      const item = a.item === b.item ? items.find(({ id }) => id === a.item) : undefined;
      const pitches = item ? apart(item, a, b) : Infinity;
      return pitches <= REACH ? [{ a, b, cost: away(first, a) + away(second, b) + pitches }] : [];
    }),
  );
  const best = pairs.toSorted((one, other) => one.cost - other.cost)[0];
  return best && [best.a, best.b];
}

const inStrip = (strip: Strip): LegPlace => {
  strip.free -= 1;
  return { to: 'strip', strip };
};

/** What lies beside an item: the end of a component that is in one of its strips. */
interface Beside {
  readonly task: Task;
  readonly host: Strip;
  /** Which of its ends is in that strip. */
  readonly at: 0 | 1;
}

/** Which end of a component goes into a strip of an item, so that the other one comes to lie beside that. The board is no host: what lies
 *  beside it would take the place of what is placed next. */
function besideOf(task: Task): Beside | undefined {
  for (const at of [0, 1] as const) {
    const { own } = task.ends[at];
    if (own && own.item !== 'board' && hasRoom(own)) return { task, host: own, at };
  }
  for (const at of [0, 1] as const) {
    const host = choices(task.ends[at]).find(({ item }) => item !== 'board');
    if (host) return { task, host, at };
  }
  return undefined;
}

/** Places the far ends beside an item, those of one end of it parallel to each other.
 *  @returns what is too far from either end */
function placeBeside(item: HoleItem, half: Half, list: readonly Beside[], done: Map<string, Bridge>): readonly Beside[] {
  const rows = () => item.strips.filter((strip) => strip.half === half).map(({ row }) => row);
  const cover = item.footprint.across ? item.footprint.body : [0, item.length - 1];
  const [low, high] = [Math.min(...rows(), firstOrThrow(cover)), Math.max(...rows(), atOrThrow(cover, 1))];
  const isLeft = ({ host }: Beside) => host.row - low < high - host.row;
  const left = list.filter(isLeft).toSorted((a, b) => b.host.row - a.host.row);
  const right = list.filter((one) => !isLeft(one)).toSorted((a, b) => a.host.row - b.host.row);
  const tooFar: Beside[] = [];
  for (const [side, sign] of [
    [left, -1],
    [right, 1],
  ] as const) {
    let next = sign < 0 ? low - 1 : high + 1;
    for (const one of side) {
      const { task, host, at } = one;
      const row = sign < 0 ? Math.min(next, host.row - LYING) : Math.max(next, host.row + LYING);
      if (Math.abs(row - host.row) > REACH || !hasRoom(host)) {
        tooFar.push(one);
        continue;
      }
      next = row + sign;
      const strip: Strip = { item: item.id, row, half, free: BESIDE };
      item.strips.push(strip);
      atOrThrow(task.ends, 1 - at).net.strips.push(strip);
      const [near, far] = [inStrip(host), inStrip(strip)];
      done.set(task.id, { ...task, legs: at === 0 ? [near, far] : [far, near] });
    }
  }
  return tooFar;
}

/** Finds where the ends of components with two legs go: between two strips of one item, from a strip to a rail, from a strip of an item to a
 *  new one beside it, or between two strips of their own. Takes holes of the strips, and adds strips to items and nets. */
export function placeLegs(given: Given): readonly Bridge[] {
  const tasks = tasksOf(given);
  const done = new Map<string, Bridge>();
  const beside: Beside[] = [];
  const alone: Task[] = [];
  for (const task of tasks) {
    const pair = betweenStrips(task.ends, given.items);
    if (pair) {
      done.set(task.id, { ...task, legs: [inStrip(pair[0]), inStrip(pair[1])] });
      continue;
    }
    const [first, second] = task.ends;
    const railOf = ({ net }: TaskEnd): LegPlace => ({ to: 'rail', net: net.id });
    const [a] = choices(first);
    const [b] = choices(second);
    if (isEverywhere(second.net) && a && !first.net.rail) done.set(task.id, { ...task, legs: [inStrip(a), railOf(second)] });
    else if (isEverywhere(first.net) && b && !second.net.rail) done.set(task.id, { ...task, legs: [railOf(first), inStrip(b)] });
    else if (isEverywhere(first.net) && isEverywhere(second.net)) done.set(task.id, { ...task, legs: [railOf(first), railOf(second)] });
    else {
      const place = besideOf(task);
      if (place) beside.push(place);
      else alone.push(task);
    }
  }
  for (const item of given.items)
    for (const half of ['ae', 'fj'] as const) {
      const own = beside.filter(({ host }) => host.item === item.id && host.half === half);
      if (own.length > 0) alone.push(...placeBeside(item, half, own, done).map(({ task }) => task));
    }
  for (const task of alone) {
    const item = given.ownItem(task.id);
    task.ends.forEach(({ net }, at) => net.strips.push(atOrThrow(item.strips, at)));
    done.set(task.id, {
      ...task,
      legs: [
        { to: 'strip', strip: firstOrThrow(item.strips) },
        { to: 'strip', strip: atOrThrow(item.strips, 1) },
      ],
    });
  }
  return tasks.flatMap(({ id }) => done.get(id) ?? []);
}
