import { getOrThrow } from '../../collections/orThrow';
import type { Component } from '../../electrics/reports/components';
import { memoizeByPair } from '../../memo/memoizeByPair';
import type { Plan, WireColour } from '../../plan/plan';
import type { Sheets } from '../../sheets/sheetIndex';
import { usualGround } from '../usualGround';
import { type Conductor, type ConductorEnd, wiringOf } from './conductors';
import { type PlacedModule, type PlacedPin, placePins, type Side, SIDES, sidesOf, stackModules, STEP } from './placeModules';
import { lanesOf, tracksOf, type Trunk } from './routeChannel';

export const MODULE_WIDTH = 196;
const MARGIN = 14;
const LANE = 9;
const BAR = 13;
/** Room beside modules: for the resistors in their wires, or none. */
const WITH_RESISTORS = 66;
const WITHOUT = 16;
const BESIDE_BOARD = 18;
const TRACK = 9;
const LETTER = 6;
/** From so many ends on a supply is a bar. */
const BAR_ENDS = 3;

/** A straight piece of a conductor, along the page or down it. */
export interface WiringLine {
  readonly conductor: string;
  readonly colour: WireColour;
  readonly isBar: boolean;
  readonly x1: number;
  readonly y1: number;
  readonly x2: number;
  readonly y2: number;
  /** The module terminal that a branch leads to. */
  readonly end?: ConductorEnd;
}

export interface WiringPicture {
  readonly width: number;
  readonly height: number;
  readonly conductors: readonly Conductor[];
  readonly modules: readonly (PlacedModule & { readonly x: number; readonly edge: number })[];
  readonly board: { readonly x: number; readonly y: number; readonly width: number; readonly height: number };
  readonly pins: readonly (PlacedPin & { readonly x: number; readonly colour: WireColour | undefined; readonly conductor?: string })[];
  readonly lines: readonly WiringLine[];
  /** Where a branch leaves a trunk that goes on. */
  readonly dots: readonly { readonly conductor: string; readonly colour: WireColour; readonly x: number; readonly y: number }[];
  /** Resistors in wires, each at its middle. */
  readonly resistors: readonly { readonly conductor: string; readonly component: Component; readonly x: number; readonly y: number }[];
}

const mean = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / Math.max(1, values.length);
const nearest = <T extends { readonly y: number }>(list: readonly T[], y: number): T | undefined =>
  list.toSorted((a, b) => Math.abs(a.y - y) - Math.abs(b.y - y))[0];

interface Branches {
  readonly ends: { readonly [S in Side]: readonly { readonly end: ConductorEnd; readonly y: number }[] };
  readonly pins: { readonly [S in Side]: readonly PlacedPin[] };
  readonly leaves: Trunk['leaves'];
}

/** Which board positions a conductor is wired to. A rail or ground has one on each side where the board has one there; a pin that lies on
 *  several positions has the nearest. */
function branchesOf(conductor: Conductor, placed: ReadonlyMap<string, PlacedModule>, byId: ReadonlyMap<string, PlacedPin>): Branches {
  const on = (side: Side) =>
    conductor.ends.flatMap((end) => {
      const module = placed.get(end.module);
      return module?.side === side ? [{ end, y: getOrThrow(module.at, end.terminal) }] : [];
    });
  const ends = { left: on('left'), right: on('right') };
  const middle = { left: mean(ends.left.map(({ y }) => y)), right: mean(ends.right.map(({ y }) => y)) };
  const places = conductor.pins.map((positions) => positions.flatMap((id) => byId.get(id) ?? []));
  const main: Side = ends.left.length >= ends.right.length ? 'left' : 'right';
  const pins: { [S in Side]: PlacedPin[] } = { left: [], right: [] };
  for (const all of places) {
    const positions = conductor.kind === 'ground' ? usualGround(all) : all;
    const beside = (side: Side) =>
      nearest(
        positions.filter((pin) => pin.side === side),
        middle[side],
      );
    const sides = conductor.kind === 'signal' ? [main] : SIDES.filter((side) => ends[side].length > 0);
    const found = sides.flatMap((side) => beside(side) ?? []);
    for (const pin of found.length > 0 ? found : positions.slice(0, 1)) pins[pin.side].push(pin);
  }
  const isOnBoth = SIDES.every((side) => ends[side].length + pins[side].length > 0);
  const isServedOnBoth = conductor.kind !== 'signal' && SIDES.every((side) => pins[side].length > 0);
  return { ends, pins, leaves: !isOnBoth || isServedOnBoth ? undefined : conductor.kind === 'signal' ? 'below' : 'above' };
}

interface Routed {
  readonly conductor: Conductor;
  readonly branches: Branches;
  readonly trunks: { readonly [S in Side]?: Trunk };
}

function routed(conductor: Conductor, branches: Branches): Routed {
  const trunk = (side: Side): { [S in Side]?: Trunk } => {
    const [modules, pins] = [branches.ends[side].map(({ y }) => y), branches.pins[side].map(({ y }) => y)];
    if (modules.length + pins.length === 0) return {};
    return { [side]: { conductor: conductor.id, modules, pins, ...(branches.leaves ? { leaves: branches.leaves } : {}) } };
  };
  return { conductor, branches, trunks: { ...trunk('left'), ...trunk('right') } };
}

/** Distances of the trunks of a side from its modules: supplies first, then signals. @returns their distances, and that of the board */
function laneDistances(all: readonly Routed[], side: Side, hasResistors: boolean) {
  const trunks = (isBar: boolean) =>
    all.flatMap(({ conductor, trunks: own }) => ((conductor.kind !== 'signal') === isBar && own[side] ? [own[side]] : []));
  const start = hasResistors ? WITH_RESISTORS : WITHOUT;
  const [bars, signals] = [lanesOf(trunks(true)), lanesOf(trunks(false))];
  const count = (lanes: ReadonlyMap<string, number>) => Math.max(-1, ...lanes.values()) + 1;
  const firstSignal = start + count(bars) * BAR + (bars.size > 0 ? 4 : 0);
  return {
    at: new Map([
      ...[...bars].map(([id, lane]) => [id, start + lane * BAR] as const),
      ...[...signals].map(([id, lane]) => [id, firstSignal + lane * LANE] as const),
    ]),
    toBoard: firstSignal + count(signals) * LANE + BESIDE_BOARD,
  };
}

type Wiring = NonNullable<ReturnType<typeof wiringOf>>;
type BySide<T> = { readonly [S in Side]: T };

/** Where the board, its pins and the modules are, before the lanes between them are known. */
interface Stacked {
  readonly top: number;
  readonly boardTop: number;
  readonly boardHeight: number;
  readonly modules: readonly PlacedModule[];
  readonly pins: readonly PlacedPin[];
  /** Where the lowest of them ends. */
  readonly lowest: number;
}

/** Stacks the modules of both sides and the board beside each other, each in the middle of the tallest. */
function stackAll({ board, modules, conductors }: Wiring, layout: Plan['layout']): Stacked {
  const free = placePins(board);
  const columns = sidesOf(modules, conductors, free, layout);
  const above = conductors.filter(({ kind }) => kind !== 'signal').length;
  const top = Math.ceil((MARGIN + above * TRACK) / STEP) * STEP;
  const stack = (offset: BySide<number>) => SIDES.flatMap((side) => stackModules(columns[side], side, top + offset[side] * STEP, layout));
  const first = stack({ left: 0, right: 0 });
  const bottom = (list: readonly PlacedModule[]) => Math.max(top, ...list.map(({ y, height }) => y + height));
  const heightOf = (of: Side) => bottom(first.filter(({ side }) => side === of)) - top;
  const heights = { left: heightOf('left'), right: heightOf('right') };
  const boardHeight = Math.max(0, ...free.map(({ y }) => y)) + 4 * STEP;
  const whole = Math.max(heights.left, heights.right, boardHeight);
  /** Steps by which something of a height is moved down to lie in the middle. */
  const centred = (height: number) => Math.floor((whole - height) / 2 / STEP);
  const placed = stack({ left: centred(heights.left), right: centred(heights.right) });
  const boardTop = top + centred(boardHeight) * STEP;
  const pins = free.map((pin) => ({ ...pin, y: boardTop + 2 * STEP + STEP / 2 + pin.y }));
  return { top, boardTop, boardHeight, modules: placed, pins, lowest: Math.max(boardTop + boardHeight, bottom(placed)) };
}

/** Where things are from left to right. */
interface Across {
  /** The inner edges of the modules, and those of the board. */
  readonly edge: BySide<number>;
  readonly boardEdge: BySide<number>;
  readonly laneX: (side: Side, conductor: string) => number;
}

function acrossOf(all: readonly Routed[], pins: readonly PlacedPin[]): Across {
  const distancesOf = (side: Side) =>
    laneDistances(
      all,
      side,
      all.some(({ branches }) => branches.ends[side].some(({ end }) => end.series)),
    );
  const distances = { left: distancesOf('left'), right: distancesOf('right') };
  const longest = Math.max(3, ...pins.map(({ label }) => label.length));
  const boardWidth = Math.max(130, 2 * longest * LETTER + 66);
  const left = MARGIN + MODULE_WIDTH;
  const boardX = left + distances.left.toBoard;
  const right = boardX + boardWidth + distances.right.toBoard;
  return {
    edge: { left, right },
    boardEdge: { left: boardX, right: boardX + boardWidth },
    laneX: (side, id) => {
      const distance = distances[side].at.get(id) ?? 0;
      return side === 'left' ? left + distance : right - distance;
    },
  };
}

const linkedBy = (all: readonly Routed[], leaves: 'above' | 'below') => all.filter(({ branches }) => branches.leaves === leaves);

/** The heights of what goes round the board, above or below it. */
function trackHeights(all: readonly Routed[], { laneX }: Across, { top, lowest }: Stacked): ReadonlyMap<string, number> {
  return new Map(
    (['above', 'below'] as const).flatMap((leaves) => {
      const list = linkedBy(all, leaves);
      const tracks = tracksOf(list.map(({ conductor }) => ({ left: laneX('left', conductor.id), right: laneX('right', conductor.id) })));
      return list.map(({ conductor }, at): [string, number] => {
        const track = tracks[at] ?? 0;
        return [conductor.id, leaves === 'above' ? top - (track + 0.5) * TRACK : lowest + STEP + track * TRACK];
      });
    }),
  );
}

/** What is drawn of wires. */
interface Drawn {
  readonly lines: WiringLine[];
  readonly dots: WiringPicture['dots'][number][];
  readonly resistors: WiringPicture['resistors'][number][];
}

/** One conductor on one side: its trunk, with a line to each module and each pin. */
function drawSide(drawn: Drawn, { conductor, branches }: Routed, side: Side, { edge, boardEdge, laneX }: Across, track?: number): void {
  const isBar = isDrawnAsBar(conductor);
  const x = laneX(side, conductor.id);
  const line = (x1: number, y1: number, x2: number, y2: number, more: Partial<WiringLine> = {}) =>
    drawn.lines.push({ conductor: conductor.id, colour: conductor.colour, isBar: false, x1, y1, x2, y2, ...more });
  const ys = [...branches.ends[side].map(({ y }) => y), ...branches.pins[side].map(({ y }) => y), ...(track === undefined ? [] : [track])];
  const [from, to] = [Math.min(...ys), Math.max(...ys)];
  if (from < to) line(x, from, x, to, { isBar });
  const join = (y: number, colour: WireColour) => {
    if (y > from && y < to) drawn.dots.push({ conductor: conductor.id, colour: isBar ? conductor.colour : colour, x, y });
  };
  for (const { end, y } of branches.ends[side]) {
    const colour = end.colour ?? conductor.colour;
    line(edge[side], y, x, y, { colour, end });
    join(y, colour);
    const beside = edge[side] + (side === 'left' ? 1 : -1) * (WITH_RESISTORS / 2);
    if (end.series) drawn.resistors.push({ conductor: conductor.id, component: end.series, x: beside, y });
  }
  for (const { y } of branches.pins[side]) {
    line(x, y, boardEdge[side], y);
    join(y, conductor.colour);
  }
}

const isDrawnAsBar = ({ kind, ends }: Conductor): boolean => kind !== 'signal' && ends.length >= BAR_ENDS;

function drawWires(all: readonly Routed[], across: Across, tracks: ReadonlyMap<string, number>): Drawn {
  const drawn: Drawn = { lines: [], dots: [], resistors: [] };
  for (const one of all) {
    const { conductor, trunks } = one;
    const track = tracks.get(conductor.id);
    for (const side of SIDES) if (trunks[side]) drawSide(drawn, one, side, across, track);
    if (track === undefined) continue;
    const [x1, x2] = [across.laneX('left', conductor.id), across.laneX('right', conductor.id)];
    const { id, colour } = conductor;
    drawn.lines.push({ conductor: id, colour, isBar: isDrawnAsBar(conductor), x1, y1: track, x2, y2: track });
  }
  return drawn;
}

/** Everything of a wiring picture, in pixels: board in the middle, modules on both sides, wires in lanes between them. Undefined if the
 *  board's sheet is missing. */
export const wiringPicture = memoizeByPair((plan: Plan, sheets: Sheets): WiringPicture | undefined => {
  const wiring = wiringOf(plan, sheets);
  if (!wiring) return undefined;
  const { conductors } = wiring;
  const stacked = stackAll(wiring, plan.layout);
  const { modules, pins, boardTop, boardHeight, lowest } = stacked;
  const byModule = new Map(modules.map((one) => [one.module.id, one]));
  const byPin = new Map(pins.map((pin) => [pin.id, pin]));
  const all = conductors.map((conductor) => routed(conductor, branchesOf(conductor, byModule, byPin)));
  const across = acrossOf(all, pins);
  const { edge, boardEdge } = across;
  const wired = new Map(
    all.flatMap(({ conductor, branches }) => SIDES.flatMap((side) => branches.pins[side].map((pin) => [pin.id, conductor] as const))),
  );
  return {
    width: edge.right + MODULE_WIDTH + MARGIN,
    height: lowest + STEP + linkedBy(all, 'below').length * TRACK + MARGIN,
    conductors,
    modules: modules.map((one) => ({ ...one, x: one.side === 'left' ? MARGIN : edge.right, edge: edge[one.side] })),
    board: { x: boardEdge.left, y: boardTop, width: boardEdge.right - boardEdge.left, height: boardHeight },
    pins: pins.map((pin) => {
      const conductor = wired.get(pin.id);
      return {
        ...pin,
        x: boardEdge[pin.side] + (pin.side === 'left' ? 10 : -10),
        colour: conductor?.colour,
        ...(conductor ? { conductor: conductor.id } : {}),
      };
    }),
    ...drawWires(all, across, trackHeights(all, across, stacked)),
  };
});
