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
      return module?.side === side ? [{ end, y: module.at.get(end.terminal)! }] : [];
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

/** Everything of a wiring picture, in pixels: board in the middle, modules on both sides, wires in lanes between them. Undefined if the
 *  board's sheet is missing. */
export const wiringPicture = memoizeByPair((plan: Plan, sheets: Sheets): WiringPicture | undefined => {
  const wiring = wiringOf(plan, sheets);
  if (!wiring) return undefined;
  const { board, modules, conductors } = wiring;
  const free = placePins(board);
  const columns = sidesOf(modules, conductors, free, plan.layout);
  const above = conductors.filter(({ kind }) => kind !== 'signal').length;
  const top = Math.ceil((MARGIN + above * TRACK) / STEP) * STEP;
  const stack = (offset: { readonly [S in Side]: number }) =>
    SIDES.flatMap((side) => stackModules(columns[side], side, top + offset[side] * STEP, plan.layout));
  const first = stack({ left: 0, right: 0 });
  const bottom = (list: readonly PlacedModule[]) => Math.max(top, ...list.map(({ y, height }) => y + height));
  const boardHeight = Math.max(0, ...free.map(({ y }) => y)) + 4 * STEP;
  const heights = {
    left: bottom(first.filter(({ side }) => side === 'left')) - top,
    right: bottom(first.filter(({ side }) => side === 'right')) - top,
  };
  const whole = Math.max(heights.left, heights.right, boardHeight);
  /** Steps by which something of a height is moved down to lie in the middle. */
  const centred = (height: number) => Math.floor((whole - height) / 2 / STEP);
  const placedModules = stack({ left: centred(heights.left), right: centred(heights.right) });
  const boardTop = top + centred(boardHeight) * STEP;
  const pins = free.map((pin) => ({ ...pin, y: boardTop + 2 * STEP + STEP / 2 + pin.y }));

  const byModule = new Map(placedModules.map((one) => [one.module.id, one]));
  const byPin = new Map(pins.map((pin) => [pin.id, pin]));
  const all = conductors.map((conductor) => routed(conductor, branchesOf(conductor, byModule, byPin)));
  const hasResistors = (side: Side) => all.some(({ branches }) => branches.ends[side].some(({ end }) => end.series));
  const distances = { left: laneDistances(all, 'left', hasResistors('left')), right: laneDistances(all, 'right', hasResistors('right')) };

  const longest = Math.max(3, ...pins.map(({ label }) => label.length));
  const boardWidth = Math.max(130, 2 * longest * LETTER + 66);
  const edge = { left: MARGIN + MODULE_WIDTH, right: 0 };
  const boardX = edge.left + distances.left.toBoard;
  edge.right = boardX + boardWidth + distances.right.toBoard;
  const laneX = (side: Side, id: string) =>
    side === 'left' ? edge.left + distances.left.at.get(id)! : edge.right - distances.right.at.get(id)!;
  const boardEdge = { left: boardX, right: boardX + boardWidth };

  const linked = (leaves: 'above' | 'below') => all.filter(({ branches }) => branches.leaves === leaves);
  const trackY = new Map<string, number>();
  const lowest = Math.max(boardTop + boardHeight, bottom(placedModules));
  for (const leaves of ['above', 'below'] as const) {
    const list = linked(leaves);
    const tracks = tracksOf(list.map(({ conductor }) => ({ left: laneX('left', conductor.id), right: laneX('right', conductor.id) })));
    list.forEach(({ conductor }, at) =>
      trackY.set(conductor.id, leaves === 'above' ? top - (tracks[at]! + 0.5) * TRACK : lowest + STEP + tracks[at]! * TRACK),
    );
  }

  const lines: WiringLine[] = [];
  const dots: WiringPicture['dots'][number][] = [];
  const resistors: WiringPicture['resistors'][number][] = [];
  for (const { conductor, branches, trunks } of all) {
    const isBar = conductor.kind !== 'signal' && conductor.ends.length >= BAR_ENDS;
    const line = (x1: number, y1: number, x2: number, y2: number, more: Partial<WiringLine> = {}) =>
      lines.push({ conductor: conductor.id, colour: conductor.colour, isBar: false, x1, y1, x2, y2, ...more });
    const track = trackY.get(conductor.id);
    for (const side of SIDES) {
      if (!trunks[side]) continue;
      const x = laneX(side, conductor.id);
      const ys = [
        ...branches.ends[side].map(({ y }) => y),
        ...branches.pins[side].map(({ y }) => y),
        ...(track === undefined ? [] : [track]),
      ];
      const [from, to] = [Math.min(...ys), Math.max(...ys)];
      if (from < to) line(x, from, x, to, { isBar });
      const join = (y: number, colour: WireColour) => {
        if (y > from && y < to) dots.push({ conductor: conductor.id, colour: isBar ? conductor.colour : colour, x, y });
      };
      for (const { end, y } of branches.ends[side]) {
        const colour = end.colour ?? conductor.colour;
        line(edge[side], y, x, y, { colour, end });
        join(y, colour);
        if (end.series)
          resistors.push({
            conductor: conductor.id,
            component: end.series,
            x: edge[side] + (side === 'left' ? 1 : -1) * (WITH_RESISTORS / 2),
            y,
          });
      }
      for (const { y } of branches.pins[side]) {
        line(x, y, boardEdge[side], y);
        join(y, conductor.colour);
      }
    }
    if (track !== undefined) line(laneX('left', conductor.id), track, laneX('right', conductor.id), track, { isBar });
  }
  const wired = new Map(
    all.flatMap(({ conductor, branches }) => SIDES.flatMap((side) => branches.pins[side].map((pin) => [pin.id, conductor] as const))),
  );
  const tracksBelow = linked('below').length;
  return {
    width: edge.right + MODULE_WIDTH + MARGIN,
    height: lowest + STEP + tracksBelow * TRACK + MARGIN,
    conductors,
    modules: placedModules.map((one) => ({ ...one, x: one.side === 'left' ? MARGIN : edge.right, edge: edge[one.side] })),
    board: { x: boardX, y: boardTop, width: boardWidth, height: boardHeight },
    pins: pins.map((pin) => {
      const conductor = wired.get(pin.id);
      return {
        ...pin,
        x: boardEdge[pin.side] + (pin.side === 'left' ? 10 : -10),
        colour: conductor?.colour,
        ...(conductor ? { conductor: conductor.id } : {}),
      };
    }),
    lines,
    dots,
    resistors,
  };
});
