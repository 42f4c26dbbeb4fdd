import { atOrThrow, firstOrThrow, lastOrThrow } from '../../collections/orThrow';
import { planComponents } from '../../electrics/reports/components';
import { memoizeByPair } from '../../memo/memoizeByPair';
import { boardOf, partOf } from '../../plan/edit';
import type { Plan } from '../../plan/plan';
import type { Sheets } from '../../sheets/sheetIndex';
import { itemText } from '../../text/views/holeText';
import { valueText } from '../../text/views/wiringText';
import { shortened } from '../svgText';
import { legLabel } from '../wiring/conductors';
import { COLUMNS, type Half, HALVES, type Hole, holeText, isSideBySide } from './breadboard';
import { frame, railNames } from './holeFrame';
import { ABOVE, BELOW, FIRST, Grid, HOLE, LETTER } from './holeGrid';
import { Lanes, type Path, pathOf } from './holePaths';
import { holePlan, type HolePlan, type Jumper, type PlacedItem } from './holePlan';
import type { HoleShape, Tagged } from './holeShapes';

export interface HolePicture {
  readonly width: number;
  readonly height: number;
  readonly shapes: readonly HoleShape[];
  /** The strip of each row that something is in, for a frame around it. */
  readonly strips: ReadonlyMap<string, { readonly x: number; readonly y: number; readonly w: number; readonly h: number }>;
  /** The room that each item takes, for the pointer and the keyboard. */
  readonly items: readonly { readonly id: string; readonly x: number; readonly y: number; readonly w: number; readonly h: number }[];
}

const stripKey = (half: Half, row: number): string => `${half} ${row}`;
const keyOf = (hole: Hole): string => (hole.at === 'strip' ? stripKey(hole.half, hole.row) : `${hole.half} ${hole.sign} ${hole.row}`);
/** Labels lean: away from the board above it, towards it below. */
const LEAN = -60;

type StripHole = Extract<Hole, { readonly at: 'strip' }>;

interface Naming {
  readonly title: (item: string) => string;
  readonly leg: (item: string, leg: string) => string;
}

function namingOf(plan: Plan, sheets: Sheets): Naming {
  const components = new Map(planComponents(plan, sheets).map((one) => [one.id, one]));
  return {
    title: (item) => {
      const component = components.get(item);
      return component ? `${component.name} ${valueText(component)}` : itemText(plan, sheets, item);
    },
    leg: (item, leg) => {
      if (item === 'board') return boardOf(plan, sheets)?.pins.get(leg)?.label ?? leg;
      const component = components.get(item);
      if (!component) return partOf(plan, item, sheets)?.terminals.get(leg)?.label ?? '';
      return component.ends[Number(leg)] ? legLabel(component, Number(leg)) : '';
    },
  };
}

/** The bracket over or under the legs of an item in one half, with their labels. */
function bracketOf(grid: Grid, naming: Naming, item: PlacedItem, half: Half, room: number): readonly HoleShape[] {
  const legs = item.legs.filter(({ hole }) => hole.half === half).toSorted((a, b) => a.hole.row - b.hole.row);
  const [first, last] = [legs[0], legs.at(-1)];
  if (!first || !last) return [];
  const [x1, x2] = [grid.x(first.hole.row) - 7, grid.x(last.hole.row) + 7];
  const isAbove = half === 'ae';
  const base = isAbove ? grid.top(first.hole.row) : grid.below(first.hole.row);
  const [y, tip, text, label] = isAbove
    ? [base + ABOVE.bracket, base + ABOVE.bracket + 7, base + ABOVE.title, base + ABOVE.plus - 10]
    : [base + BELOW.bracket, base + BELOW.bracket - 7, base + BELOW.title, base + BELOW.label];
  const id = item.id;
  const isTitled = !isAbove || item.side === 'ae';
  return [
    {
      is: 'line',
      role: 'bracket',
      item: id,
      points: [
        [x1, tip],
        [x1, y],
        [x2, y],
        [x2, tip],
      ],
    },
    ...(isTitled
      ? [
          {
            is: 'text' as const,
            role: 'title' as const,
            item: id,
            x: (x1 + x2) / 2,
            y: text,
            text: shortened(naming.title(id), room),
            anchor: 'middle' as const,
            turn: 0,
          },
        ]
      : []),
    ...legs.map(({ id: leg, hole }): HoleShape => ({
      is: 'text',
      role: 'label',
      item: id,
      strip: keyOf(hole),
      x: grid.x(hole.row) + 3,
      y: label,
      text: shortened(naming.leg(id, leg), 8),
      anchor: isAbove ? 'start' : 'end',
      turn: LEAN,
    })),
  ];
}

/** The first and the last row with a leg of an item; a junction has none, only its row. */
function rowSpan({ legs, row }: PlacedItem): readonly [number, number] {
  const rows = legs.length > 0 ? legs.map(({ hole }) => hole.row) : [row];
  return [Math.min(...rows), Math.max(...rows)];
}

/** How many letters a title may have: as far as the neighbours of its half leave room. */
function roomFor(grid: Grid, items: readonly PlacedItem[], item: PlacedItem): number {
  const middle = (one: PlacedItem) => {
    const [first, last] = rowSpan(one);
    return (first + last) / 2;
  };
  const half = (one: PlacedItem): Half => (one.side === 'ae' ? 'ae' : 'fj');
  const others = items.filter((other) => other !== item && half(other) === half(item)).map(middle);
  const near = Math.min(24, ...others.map((other) => Math.abs(other - middle(item))));
  return Math.floor((near * grid.pitch) / LETTER);
}

/** Letters of a value are so wide. */
const VALUE_LETTER = 5;

/** Pixels that the words of a short piece are above its hole. */
const LIFT = 9;

/** Whether the other rail of a pair is drawn above the one that a hole is on. */
const isUnderRail = (grid: Grid, hole: Hole): boolean =>
  hole.at === 'rail' && grid.rail(hole.half, hole.sign === '+' ? '−' : '+', hole.row) < grid.rail(hole.half, hole.sign, hole.row);

/** A short piece from a hole with where it leads; near the right edge it leans to the left. */
function stub(grid: Grid, hole: Hole, tags: Pick<Tagged, 'colour' | 'net'>, text: string): readonly HoleShape[] {
  const [x, y] = grid.at(hole);
  const way = x + 8 + text.length * VALUE_LETTER > grid.width ? -1 : 1;
  const strip = keyOf(hole);
  // Words of the lower rail stay clear of the rail above it.
  const top = y - (isUnderRail(grid, hole) ? 2 * LIFT : LIFT);
  return [
    {
      is: 'line',
      role: 'lead',
      ...tags,
      strip,
      points: [
        [x, y],
        [x + 7 * way, top],
      ],
    },
    {
      is: 'text',
      role: 'value',
      ...tags,
      strip,
      x: x + 8 * way,
      y: top,
      text,
      anchor: way > 0 ? 'start' : 'end',
      turn: (way * LEAN) / 2,
    },
  ];
}

/** Both ends of a wire to another board. */
function stubs(grid: Grid, breadboard: HolePlan['breadboard'], { from, to, colour, net }: Jumper): readonly HoleShape[] {
  const tags = { colour, net };
  return [...stub(grid, from, tags, holeText(breadboard, to)), ...stub(grid, to, tags, holeText(breadboard, from))];
}

/** The sign at the end of a strip that a wire leads from to a rail, with an arrow to one that is not the nearest in the picture. */
function signs(grid: Grid, { from, to, colour, net }: Jumper): readonly HoleShape[] {
  if (to.at !== 'rail' || from.at !== 'strip') return [];
  const isBeside = to.half === from.half && grid.top(from.row) === grid.top(to.row);
  const y = from.half === 'ae' ? grid.roof('ae', from.row) + FIRST + 4 * HOLE + 20 : grid.roof('fj', from.row) + 15;
  return [
    {
      is: 'text',
      role: 'sign',
      colour,
      net,
      strip: keyOf(from),
      x: grid.x(from.row),
      y,
      text: `${to.sign}${isBeside ? '' : grid.at(to)[1] < y ? '↑' : '↓'}`,
      anchor: 'middle',
      turn: 0,
    },
  ];
}

/** What the picture is made from. */
interface Drawing {
  readonly plan: Plan;
  readonly sheets: Sheets;
  readonly holes: HolePlan;
  readonly grid: Grid;
  readonly naming: Naming;
}

/** The holes with something in them, by their place. */
function filledHoles({ holes, grid }: Drawing): ReadonlyMap<string, HoleShape> {
  const filled = new Map<string, HoleShape>();
  const fill = (hole: Hole, tags: Tagged) => {
    const [x, y] = grid.at(hole);
    filled.set(`${x} ${y}`, { is: 'circle', x, y, r: hole.at === 'rail' ? 3.2 : 4.6, strip: keyOf(hole), ...tags });
  };
  for (const { id, legs } of holes.items) for (const { hole } of legs) fill(hole, { role: 'leg', item: id });
  for (const { id, holes: ends } of holes.bridges) for (const hole of ends) fill(hole, { role: 'bridge', item: id });
  for (const { from, to, colour, net } of holes.jumpers) for (const hole of [from, to]) fill(hole, { role: 'wire', colour, net });
  for (const { to, colour, net } of holes.leads) if (to.at === 'hole') fill(to.hole, { role: 'lead', colour, net });
  return filled;
}

/** The ends of leads to what is not on the breadboard, with its name. */
function leadTails({ plan, sheets, holes, grid, naming }: Drawing): readonly HoleShape[] {
  return holes.leads.flatMap(({ to, colour, net, end }): readonly HoleShape[] => {
    if (to.at !== 'hole') return [];
    const words = shortened(naming.leg(end.module, end.terminal) || itemText(plan, sheets, end.module), 10);
    return stub(grid, to.hole, { colour, net }, words);
  });
}

/** The strips that anything is plugged into. */
function usedStrips({ holes }: Drawing): ReadonlyMap<string, StripHole> {
  const all = [
    ...holes.items.flatMap(({ legs }) => legs.map(({ hole }) => hole)),
    ...holes.bridges.flatMap((one) => one.holes),
    ...holes.jumpers.flatMap(({ from, to }) => [from, to]),
    ...holes.leads.flatMap(({ to }) => (to.at === 'hole' ? [to.hole] : [])),
  ];
  return new Map(all.flatMap((hole) => (hole.at === 'strip' ? [[keyOf(hole), hole] as const] : [])));
}

/** Under each row that is used, its five holes on a line; rings where nothing is plugged in and nothing lies over it. */
function strings(
  { holes, grid }: Drawing,
  used: ReadonlyMap<string, StripHole>,
  filled: ReadonlyMap<string, HoleShape>,
): readonly HoleShape[] {
  const covered = coveredHoles(holes);
  return [...used.values()].flatMap(({ half, row }): HoleShape[] => {
    const [x, y] = [grid.x(row), grid.roof(half, row)];
    const strip = stripKey(half, row);
    const free = COLUMNS[half].flatMap((_, column): HoleShape[] => {
      const [, at] = grid.at({ at: 'strip', half, row, column });
      const isFree = !filled.has(`${x} ${at}`) && !covered.has(`${strip} ${column}`);
      return isFree ? [{ is: 'circle', role: 'free', strip, x, y: at, r: 2.6 }] : [];
    });
    const points: Path = [
      [x, y],
      [x, y + FIRST + 4 * HOLE],
    ];
    return [{ is: 'line', role: 'string', strip, points }, ...free];
  });
}

/** Jumpers in lanes of their own; those to another board as a short piece that says where they lead. */
function jumperShapes({ holes, grid }: Drawing, lanes: Lanes): readonly HoleShape[] {
  return holes.jumpers.flatMap((jumper): readonly HoleShape[] => {
    const { from, to, colour, net } = jumper;
    const isSupply = from.at === 'strip' && to.at === 'rail';
    const isAlone = grid.top(from.row) === grid.top(to.row);
    if (!isAlone && !(isSupply && isSideBySide(holes.breadboard))) return stubs(grid, holes.breadboard, jumper);
    const strip = isSupply ? { strip: keyOf(from) } : {};
    return [
      { is: 'line', role: isSupply ? 'rail-wire' : 'wire', colour, net, ...strip, points: pathOf(grid, lanes, from, to) },
      ...signs(grid, jumper),
    ];
  });
}

/** What marks the first leg of a component whose legs must not be exchanged. */
function markOf({ plan, sheets }: Drawing, id: string): Pick<BridgeLabels, 'mark'> {
  const component = planComponents(plan, sheets).find((one) => one.id === id);
  return component && (component.polar || component.ends[0]?.leg) ? { mark: legLabel(component, 0) } : {};
}

/** Everything of a hole plan as lines, circles and texts: row numbers are the roof, under each row that is used hang its five holes. Undefined if the
 *  plan has no breadboard. */
export const holePicture = memoizeByPair((plan: Plan, sheets: Sheets): HolePicture | undefined => {
  const holes = holePlan(plan, sheets);
  if (!holes) return undefined;
  const grid = new Grid(holes);
  const naming = namingOf(plan, sheets);
  const drawing: Drawing = { plan, sheets, holes, grid, naming };
  const [filled, used, lanes] = [filledHoles(drawing), usedStrips(drawing), new Lanes()];
  // Components have their lanes before jumpers: they are shorter.
  const bridges = holes.bridges.flatMap(({ id, name, holes: [from, to] }) =>
    bridgeShapes(pathOf(grid, lanes, from, to), { id, name, ...markOf(drawing, id) }),
  );
  const wires = jumperShapes(drawing, lanes);
  const own = holes.items.filter(({ id, legs }) => id.includes(':') && legs.length === 2);
  return {
    width: grid.width,
    height: grid.height,
    shapes: [
      ...frame(grid, holes),
      ...railNames(plan, sheets, grid, holes),
      ...strings(drawing, used, filled),
      ...holes.items.flatMap((item) => HALVES.flatMap((half) => bracketOf(grid, naming, item, half, roomFor(grid, holes.items, item)))),
      ...wires,
      ...bridges,
      ...own.flatMap(({ id, legs }) =>
        bridgeShapes(pathOf(grid, lanes, firstOrThrow(legs).hole, lastOrThrow(legs).hole), { id, ...markOf(drawing, id) }),
      ),
      ...filled.values(),
      ...leadTails(drawing),
    ],
    strips: new Map(
      [...used].map(
        ([key, { half, row }]) => [key, { x: grid.x(row) - 8, y: grid.roof(half, row) + 5, w: 16, h: FIRST + 4 * HOLE + 5 }] as const,
      ),
    ),
    items: holes.items.map((item) => roomOf(grid, item)),
  };
});

/** The holes under a body that lies over the gap, or over two boards, which nothing can be plugged into. */
function coveredHoles({ items }: HolePlan): ReadonlySet<string> {
  return new Set(
    items.flatMap(({ side, legs, overTwo = false }) =>
      side !== 'across' && side !== 'turned'
        ? []
        : legs.flatMap(({ hole }) =>
            hole.at === 'strip'
              ? [0, 1, 2, 3, 4]
                  .filter((column) => ((hole.half === 'ae') === overTwo ? column < hole.column : column > hole.column))
                  .map((column) => `${keyOf(hole)} ${column}`)
              : [],
          ),
    ),
  );
}

interface BridgeLabels {
  readonly id: string;
  /** Absent for an item of its own, which has its name at its bracket. */
  readonly name?: string;
  /** At its first leg, where it matters which is which. */
  readonly mark?: string;
}

/** A component from hole to hole, with a box in the middle of its longest piece. */
function bridgeShapes(points: Path, { id, name, mark }: BridgeLabels): readonly HoleShape[] {
  const pieces = points.slice(1).map(([x, y], at) => ({ a: atOrThrow(points, at), b: [x, y] as const }));
  const lengthOf = ({ a, b }: (typeof pieces)[number]) => Math.hypot(b[0] - a[0], b[1] - a[1]);
  const { a, b } = firstOrThrow(pieces.toSorted((p, q) => lengthOf(q) - lengthOf(p)));
  const [x, y] = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
  const isUpright = a[0] === b[0];
  const [w, h] = isUpright ? [7, 16] : [16, 7];
  const text = (at: readonly [number, number], words: string, anchor: 'start' | 'middle'): HoleShape => ({
    is: 'text',
    role: 'value',
    item: id,
    x: at[0],
    y: at[1],
    text: words,
    anchor,
    turn: 0,
  });
  return [
    { is: 'line', role: 'bridge', item: id, points },
    { is: 'rect', role: 'symbol', item: id, x: x - w / 2, y: y - h / 2, w, h },
    ...(name === undefined ? [] : [isUpright ? text([x + 6, y + 3], name, 'start') : text([x, y - 5], name, 'middle')]),
    ...(mark === undefined ? [] : [text([firstOrThrow(points)[0] + 5, firstOrThrow(points)[1] - 5], mark, 'start')]),
  ];
}

/** From the label of the first leg to that of the last, with the holes. */
function roomOf(grid: Grid, item: PlacedItem): HolePicture['items'][number] {
  const { id, side, overTwo } = item;
  const [first, last] = overTwo ? rowSpan({ ...item, legs: item.legs.filter(({ hole }) => hole.half === 'fj') }) : rowSpan(item);
  if (overTwo) {
    const [top, bottom] = [grid.roof('fj', first) + 4, grid.roof('ae', first + grid.rows) + FIRST + 4 * HOLE + 8];
    return { id, x: grid.x(first) - 9, y: top, w: grid.x(last) - grid.x(first) + 18, h: bottom - top };
  }
  const isAbove = side !== 'fj';
  const isBelow = side !== 'ae';
  const top = isAbove ? grid.top(first) + ABOVE.title - 12 : grid.roof('fj', first) + 4;
  const bottom = isBelow ? grid.below(first) + BELOW.title + 6 : grid.roof('ae', first) + FIRST + 4 * HOLE + 8;
  return { id, x: grid.x(first) - 9, y: top, w: grid.x(last) - grid.x(first) + 18, h: bottom - top };
}
