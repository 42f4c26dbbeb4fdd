import { firstOrThrow, getOrThrow } from '../../collections/orThrow';
import type { ModulePlace, Plan } from '../../plan/plan';
import type { IndexedBoard } from '../../sheets/sheetIndex';
import type { Conductor, WiringModule } from './conductors';

export type Side = 'left' | 'right';
export const SIDES: readonly Side[] = ['left', 'right'];
const other = (side: Side): Side => (side === 'left' ? 'right' : 'left');

/** Distance of two terminals, in pixels. Terminals of modules lie on whole steps and pins of the board between them, so that no wire of one
 *  runs along a wire of the other. */
export const STEP = 14;
/** Steps above the first terminal of a module: its title and its edge. */
const HEAD_STEPS = 2;
const FOOT_STEPS = 1;
/** Of a component: a line with its name, and its legs. */
const COMPONENT_HEAD_STEPS = 1;
/** So many positions of one side are drawn at twice the distance. */
const WIDE_SPACED = 24;

export interface PlacedPin {
  readonly id: string;
  readonly label: string;
  readonly side: Side;
  readonly y: number;
}

export interface PlacedModule {
  readonly module: WiringModule;
  readonly side: Side;
  /** Top of the outline, below the title. */
  readonly y: number;
  readonly height: number;
  /** By terminal. */
  readonly at: ReadonlyMap<string, number>;
}

const headOf = ({ component }: WiringModule): number => (component ? COMPONENT_HEAD_STEPS : HEAD_STEPS);
const stepsOf = (module: WiringModule): number => headOf(module) + Math.max(1, module.terminals.length) + FOOT_STEPS;

/** The side of each position: that of its header; of the only double header one row on each side. */
function sideOf(board: IndexedBoard): (headerId: string, position: number) => Side {
  const headers = board.sheet.headers.list;
  const outer = headers.filter(({ side }) => side !== 'inside');
  const isOneDouble = outer.length === 1 && firstOrThrow(outer).rows === 2;
  return (headerId, position) => {
    if (isOneDouble && headerId === firstOrThrow(outer).id) return position % 2 === 1 ? 'left' : 'right';
    return headers.find(({ id }) => id === headerId)?.side === 'left' ? 'left' : 'right';
  };
}

/** The positions of the board in two columns, in the order of its headers. `y` counts from the first position. */
export function placePins(board: IndexedBoard): readonly PlacedPin[] {
  const side = sideOf(board);
  const all = board.sheet.headers.list.flatMap((header) =>
    board.sheet.pins.list
      .filter((pin) => pin.header === header.id)
      .map((pin) => ({ id: pin.id, label: pin.label, header: header.id, side: side(header.id, pin.position ?? 1) })),
  );
  const longest = Math.max(...SIDES.map((one) => all.filter((pin) => pin.side === one).length));
  const distance = longest <= WIDE_SPACED ? 2 * STEP : STEP;
  return SIDES.flatMap((one) => {
    let y = -distance;
    let header = '';
    return all
      .filter((pin) => pin.side === one)
      .map((pin): PlacedPin => {
        y += header !== '' && header !== pin.header ? 2 * distance : distance;
        header = pin.header;
        return { id: pin.id, label: pin.label, side: one, y };
      });
  });
}

interface Wanted {
  /** The module, and the components that are drawn below it. */
  readonly group: readonly WiringModule[];
  readonly steps: number;
  /** The signals that end at it. */
  readonly signals: readonly Conductor[];
  /** Where its pins are, from the first position down. */
  readonly y: number;
}

/** Board pins that the signals of modules reach. */
function reachedPins(
  ids: ReadonlySet<string>,
  conductors: readonly Conductor[],
  pins: ReadonlyMap<string, PlacedPin>,
): readonly PlacedPin[] {
  return conductors.flatMap(({ kind, ends, pins: places }) =>
    kind === 'signal' && ends.some((end) => ids.has(end.module))
      ? places.flatMap((positions) => pins.get(firstOrThrow(positions)) ?? [])
      : [],
  );
}

/** The modules that a signal joins with these, and these themselves. */
const withNeighbours = (ids: ReadonlySet<string>, conductors: readonly Conductor[]): ReadonlySet<string> =>
  new Set([
    ...ids,
    ...conductors.flatMap(({ kind, ends }) =>
      kind === 'signal' && ends.some((end) => ids.has(end.module)) ? ends.map((end) => end.module) : [],
    ),
  ]);

function wantedPlace(group: readonly WiringModule[], conductors: readonly Conductor[], pins: ReadonlyMap<string, PlacedPin>): Wanted {
  const ids = new Set(group.map(({ id }) => id));
  const direct = reachedPins(ids, conductors, pins);
  // A part that other parts drive lies beside these.
  const reached = direct.length > 0 ? direct : reachedPins(withNeighbours(ids, conductors), conductors, pins);
  return {
    group,
    steps: group.reduce((sum, one) => sum + stepsOf(one), 0),
    signals: conductors.filter(({ kind, ends }) => kind === 'signal' && ends.some((end) => ids.has(end.module))),
    y: reached.length === 0 ? Infinity : reached.reduce((sum, { y }) => sum + y, 0) / reached.length,
  };
}

/** A signal that has to go round the board is worth as many steps of height. */
const ROUND_THE_BOARD = 6;

/** Modules in two columns: each on the side of its signals unless that column becomes much the taller one, in the order of these pins, with
 *  its components below it. Sides are chosen in the order of the plan, so that one more part at its end moves no other to the other side.
 *  @param layout where the user has put modules
 *  @returns by side, from the top */
export function sidesOf(
  modules: readonly WiringModule[],
  conductors: readonly Conductor[],
  placed: readonly PlacedPin[],
  layout: Plan['layout'] = {},
): { readonly [S in Side]: readonly WiringModule[] } {
  const pins = new Map(placed.map((pin) => [pin.id, pin]));
  const ids = new Set(modules.map(({ id }) => id));
  const heads = modules.filter(({ owner }) => owner === undefined || !ids.has(owner));
  const wanted = heads.map((head) => wantedPlace([head, ...modules.filter(({ owner }) => owner === head.id)], conductors, pins));
  const side = new Map<Wanted, Side>();
  const height = { left: 0, right: 0 };
  const board = Math.max(0, ...placed.map(({ y }) => y)) / STEP;
  /** The sides that each signal is on, as far as modules are placed. */
  const on = new Map(conductors.map((one) => [one, new Set(one.pins.flatMap(([pin]) => pins.get(pin ?? '')?.side ?? []))]));
  for (const one of wanted) {
    const cost = (to: Side) => {
      const round = one.signals.filter((signal) => getOrThrow(on, signal).size === 1 && !getOrThrow(on, signal).has(to)).length;
      return ROUND_THE_BOARD * round + Math.max(height[to] + one.steps, height[other(to)], board);
    };
    // Where both sides are as good, the lower column.
    const [left, right] = [cost('left'), cost('right')];
    const to = left === right ? (height.left <= height.right ? 'left' : 'right') : left < right ? 'left' : 'right';
    side.set(one, to);
    height[to] += one.steps;
    for (const signal of one.signals) getOrThrow(on, signal).add(to);
  }
  // What the user has moved counts above as if it had not been: the others stay.
  for (const one of wanted) side.set(one, layout[firstOrThrow(one.group).id]?.side ?? getOrThrow(side, one));
  const column = (one: Side) => {
    const own = wanted.filter((item) => side.get(item) === one).sort((a, b) => (a.y === b.y ? 0 : a.y - b.y));
    const given = (item: Wanted): ModulePlace | undefined => layout[firstOrThrow(item.group).id];
    const order = own.filter((item) => !given(item));
    const moved = own.flatMap((item) => {
      const place = given(item);
      return place ? [{ at: place.at, item }] : [];
    });
    for (const { at, item } of moved.toSorted((a, b) => a.at - b.at)) order.splice(at, 0, item);
    return order.flatMap(({ group }) => group);
  };
  return { left: column('left'), right: column('right') };
}

/** A column of modules from the top.
 *  @param top of the first title, a whole step */
export function stackModules(
  column: readonly WiringModule[],
  side: Side,
  top: number,
  layout: Plan['layout'] = {},
): readonly PlacedModule[] {
  let y = top;
  return column.map((module): PlacedModule => {
    const first = y + headOf(module) * STEP;
    const count = Math.max(1, module.terminals.length);
    const placed: PlacedModule = {
      module,
      side,
      y: first - STEP * 0.75,
      height: (count + 0.5) * STEP,
      // Turned half round, its first terminal is below.
      at: new Map(module.terminals.map(({ id }, n) => [id, first + (layout[module.id]?.turned ? count - 1 - n : n) * STEP])),
    };
    y += stepsOf(module) * STEP;
    return placed;
  });
}
