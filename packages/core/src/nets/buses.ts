import { CONTROLLER_KINDS, type ControllerKind, PIN_ROLES } from '../sheets/roles';
import type { IndexedBoard, Sheets } from '../sheets/sheetIndex';
import { boardOf } from '../plan/edit';
import { type Placement, type Plan, splitKey, type TerminalKey } from '../plan/plan';
import { shareControllers } from './busControllers';
import { memoizeByPair } from '../memo/memoizeByPair';
import { incrementalSplit } from './incrementalSplit';
import { findNets, type Nets } from './nets';
import { passThroughSource } from './passThrough';
import { terminalsOf } from './terminals';
import type { PlanOnBoard } from '../plan/planContext';

/** One bus: the pins its lines use, its members, and the controller that can drive them together. */
export interface Bus {
  /** Kind and pins, stable while the wires are. */
  readonly id: string;
  readonly kind: ControllerKind;
  readonly pins: { readonly [line: string]: string };
  /** Absent where no controller of the board can drive these pins together. */
  readonly controller: string | undefined;
  readonly members: readonly Placement[];
}

/** Members on one bus share its clock line; the other lines are added as members bring them. */
const clockLine: { readonly [K in ControllerKind]: string } = { i2c: 'scl', spi: 'sck', uart: 'tx' };

function busKey(kind: ControllerKind, pins: { readonly [line: string]: string }): string {
  // Two I2C parts on one clock but different data lines are two (broken) buses: they never hear each other.
  if (kind === 'i2c') return `i2c:${pins.sda ?? ''}:${pins.scl ?? ''}`;
  return `${kind}:${pins[clockLine[kind]] ?? Object.values(pins).join(':')}`;
}

interface Found {
  readonly kind: ControllerKind;
  readonly pins: { [line: string]: string };
  readonly members: Placement[];
}

/** The pin of a line: its net's, or that of the net on the other side of a level shifter. */
export function pinOfLine(plan: Plan, key: TerminalKey, nets: Nets, sheets: Sheets): string | undefined {
  const carrier = passThroughSource(plan, sheets, key);
  return nets.byTerminal.get(carrier ?? key)?.pins[0];
}

/** The pins on which a placement's lines end, by kind of bus and line. */
function linesOf(plan: Plan, placement: Placement, nets: Nets, sheets: Sheets): ReadonlyMap<ControllerKind, { [line: string]: string }> {
  const lines = new Map<ControllerKind, { [line: string]: string }>();
  for (const item of terminalsOf(plan, placement, sheets)) {
    const line = PIN_ROLES[item.terminal.role]?.line;
    // What a level shifter carries is on the bus under its own name.
    const pin = line && !item.carries && pinOfLine(plan, item.key, nets, sheets);
    if (!line || !pin) continue;
    const pins = lines.get(line.kind) ?? {};
    pins[line.line] = pin;
    lines.set(line.kind, pins);
  }
  return lines;
}

/** Every I2C, SPI and UART bus of the plan with at least one wired line. */
export const findBuses = memoizeByPair((plan: Plan, sheets: Sheets): readonly Bus[] => {
  const board = boardOf(plan, sheets);
  if (!board) return [];
  const nets = findNets(plan, sheets);
  // Plans with the same nets have the same buses: a part that is not wired yet is on none.
  let buses = ofNets.get(nets);
  if (!buses) {
    const split = incrementalSplit(plan, sheets);
    buses = split
      ? incrementalBuses({ plan, board }, findBuses(split.base, sheets), split.placement, linesOf(plan, split.placement, nets, sheets))
      : makeBuses(plan, sheets, board, nets);
    ofNets.set(nets, buses);
  }
  return buses;
});

const ofNets = new WeakMap<Nets, readonly Bus[]>();

/** Controllers of the buses of a plan that is a part of another, by bus: which one a bus has depends on the buses beside it. */
export const controllersInWhole = new WeakMap<Plan, ReadonlyMap<string, string | undefined>>();

/** The controllers wished for a part, of whatever kind. */
function wishedFor(plan: Plan, members: readonly Placement[]): ReadonlySet<string> {
  const ids = new Set(members.map((member) => member.id));
  return new Set(
    Object.entries(plan.wishes).flatMap(([key, wish]) =>
      wish.controller !== undefined && ids.has(splitKey(key).placement) ? [wish.controller] : [],
    ),
  );
}

/** Buses with their controllers. One that is as it was stays the same object. */
function withControllers(plan: Plan, board: IndexedBoard, found: readonly (Found | Bus)[]): readonly Bus[] {
  const whole = controllersInWhole.get(plan);
  const shared = whole
    ? found.map((one) => whole.get(busKey(one.kind, one.pins)))
    : shareControllers(
        board,
        found.map(({ kind, pins, members }) => ({ kind, pins, wished: wishedFor(plan, members) })),
      );
  return found.map((one, at): Bus => {
    const controller = shared[at];
    return 'id' in one && one.controller === controller ? one : { ...one, id: busKey(one.kind, one.pins), controller };
  });
}

function makeBuses(plan: Plan, sheets: Sheets, board: IndexedBoard, nets: Nets): readonly Bus[] {
  const found = new Map<string, Found>();
  for (const placement of plan.placements)
    for (const [kind, pins] of linesOf(plan, placement, nets, sheets)) {
      const id = busKey(kind, pins);
      const bus = found.get(id) ?? { kind, pins: {}, members: [] };
      Object.assign(bus.pins, pins);
      bus.members.push(placement);
      found.set(id, bus);
    }
  return CONTROLLER_KINDS.flatMap((kind) =>
    withControllers(
      plan,
      board,
      [...found.values()].filter((bus) => bus.kind === kind),
    ),
  );
}

/** Buses with a new last part on them. */
function incrementalBuses(
  { plan, board }: PlanOnBoard,
  before: readonly Bus[],
  placement: Placement,
  lines: ReadonlyMap<ControllerKind, { readonly [line: string]: string }>,
): readonly Bus[] {
  if (lines.size === 0) return before;
  return CONTROLLER_KINDS.flatMap((kind): readonly Bus[] => {
    const same = before.filter((bus) => bus.kind === kind);
    const pins = lines.get(kind);
    if (!pins) return same;
    const id = busKey(kind, pins);
    const met = same.find((bus) => bus.id === id);
    const now: Found = { kind, pins: { ...met?.pins, ...pins }, members: [...(met?.members ?? []), placement] };
    return withControllers(plan, board, met ? same.map((bus) => (bus === met ? now : bus)) : [...same, now]);
  });
}
