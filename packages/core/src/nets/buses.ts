import { CONTROLLER_KINDS, type ControllerKind, PIN_ROLES } from '../sheets/roles';
import type { IndexedBoard, Sheets } from '../sheets/sheetIndex';
import { boardOf } from '../plan/edit';
import type { Placement, Plan } from '../plan/plan';
import { legalControllers } from './controllers';
import type { Nets } from './nets';
import { terminalsOf } from './terminals';

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

/** The pins on which a placement's lines of one bus kind end, line by line. */
export function busPins(
  plan: Plan,
  placement: Placement,
  kind: ControllerKind,
  nets: Nets,
  sheets: Sheets,
): { readonly [line: string]: string } {
  const pins: { [line: string]: string } = {};
  for (const item of terminalsOf(plan, placement, sheets)) {
    const line = PIN_ROLES[item.terminal.role]?.line;
    const pin = line?.kind === kind ? nets.byTerminal.get(item.key)?.pins[0] : undefined;
    if (line && pin) pins[line.line] = pin;
  }
  return pins;
}

/** Members on one bus share its clock line; the other lines are added as members bring them. */
const clockLine: { readonly [K in ControllerKind]: string } = { i2c: 'scl', spi: 'sck', uart: 'tx' };

function busKey(kind: ControllerKind, pins: { readonly [line: string]: string }): string {
  // Two I2C parts on one clock but different data lines are two (broken) buses: they never hear each other.
  if (kind === 'i2c') return `i2c:${pins.sda ?? ''}:${pins.scl ?? ''}`;
  return `${kind}:${pins[clockLine[kind]] ?? Object.values(pins).join(':')}`;
}

function busesOf(kind: ControllerKind, plan: Plan, nets: Nets, sheets: Sheets, board: IndexedBoard): readonly Bus[] {
  const found = new Map<string, { pins: { [line: string]: string }; members: Placement[] }>();
  for (const placement of plan.placements) {
    const pins = busPins(plan, placement, kind, nets, sheets);
    if (Object.keys(pins).length === 0) continue;
    const id = busKey(kind, pins);
    const bus = found.get(id) ?? { pins: {}, members: [] };
    Object.assign(bus.pins, pins);
    bus.members.push(placement);
    found.set(id, bus);
  }
  return [...found].map(([id, { pins, members }]) => ({
    id,
    kind,
    pins,
    members,
    controller: legalControllers(board, kind, pins)[0]?.id,
  }));
}

/** Every I2C, SPI and UART bus of the plan with at least one wired line. */
export function findBuses(plan: Plan, nets: Nets, sheets: Sheets): readonly Bus[] {
  const board = boardOf(plan, sheets);
  return board ? CONTROLLER_KINDS.flatMap((kind) => busesOf(kind, plan, nets, sheets, board)) : [];
}
