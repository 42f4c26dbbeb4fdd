import type { Range } from '../quantity/range';
import { PIN_ROLES } from '../sheets/roles';
import { type IndexedBoard, partSheet, type Sheets } from '../sheets/sheetIndex';
import type { Bus } from '../nets/buses';
import { findNets } from '../nets/nets';
import { terminalsOf } from '../nets/terminals';
import { boardOf } from '../plan/edit';
import type { Plan } from '../plan/plan';
import type { PullUp, PullUpInput, Sink } from './busPullUps';
import type { BusUser } from './i2cTime';

/** What the electrics of an I2C bus start from, read from plan and sheets. */

/** Tolerance of the resistors on modules: the usual one of their size. */
const TOLERANCE = 0.05;
/** Most that the input of an I2C part loads a line with, by UM10204. */
const INPUT_PICOFARADS = 10;
const PICOFARADS_PER_CM = 1;
const PICOFARADS_PER_NODE = 3;
const CM_PER_MEMBER = 10;
/** A module's own regulator for parts of 3.3 V. */
const REGULATED: Range = { min: 3.2, max: 3.4 };
/** A member of which the sheet says nothing must at least do this. */
const STANDARD_SINK = { volts: 0.4, amps: 3e-3 };

export type I2cLine = 'sda' | 'scl';

const around = (ohms: number): Range => ({ min: ohms * (1 - TOLERANCE), typ: ohms, max: ohms * (1 + TOLERANCE) });

/** A pull-up of the builder's to the logic supply. */
export const addedPullUp = (ohms: number, volts: Range): PullUp => ({ id: 'added', ohms: around(ohms), volts });

/** Supply of the board's logic, in volts. */
export function logicVolts(board: IndexedBoard): Range {
  return board.sheet.rails.list.find((rail) => rail.id === board.sheet.logicRail)?.volts ?? board.sheet.electrical.vdd;
}

/** The rail that feeds a placement, in volts; the logic supply where it is not wired yet. */
function feedOf(plan: Plan, sheets: Sheets, board: IndexedBoard, placement: string): Range {
  const nets = findNets(plan, sheets);
  const supply = terminalsOf(plan, { id: placement }, sheets).find((t) => t.terminal.role === 'supply.vcc');
  const rail = supply && nets.byTerminal.get(supply.key)?.rails[0];
  return board.sheet.rails.list.find((r) => r.id === rail)?.volts ?? logicVolts(board);
}

const lowerOf = (a: Range, b: Range): Range => ({ min: Math.min(a.min, b.min), max: Math.min(a.max, b.max) });

/** The pull-ups that members bring to a line. */
function modulePullUps(plan: Plan, sheets: Sheets, board: IndexedBoard, bus: Bus, line: I2cLine): readonly PullUp[] {
  return bus.members.flatMap((member): PullUp[] => {
    const part = partSheet(sheets, member.sheet)?.sheet;
    const own = part?.terminals.list.filter((t) => PIN_ROLES[t.role]?.line?.line === line).map((t) => t.id) ?? [];
    const pulls = (part?.module.pullUps ?? []).filter((pull) => pull.terminals.some((t) => own.includes(t)));
    const feed = feedOf(plan, sheets, board, member.id);
    return pulls.map((pull) => ({
      id: member.id,
      ohms: around(pull.ohms),
      volts: pull.to === 'supply' ? feed : lowerOf(feed, REGULATED),
    }));
  });
}

/** Resistors on the board at a bus pin, and the one in the chip that a program may switch on. */
function boardPullUps(board: IndexedBoard, bus: Bus, line: I2cLine): { readonly fixed: readonly PullUp[]; readonly internal?: PullUp } {
  const pin = board.pins.get(bus.pins[line] ?? '');
  const volts = logicVolts(board);
  const fixed = (pin?.duties ?? []).flatMap((duty): PullUp[] =>
    duty.duty === 'pull-up' && duty.ohms ? [{ id: 'board', ohms: around(duty.ohms), volts }] : [],
  );
  const inside = board.sheet.electrical.pullUpOhms;
  return inside && !pin?.limits?.noPullUp ? { fixed, internal: { id: 'internal', ohms: inside, volts } } : { fixed };
}

function sinksOf(sheets: Sheets, board: IndexedBoard, bus: Bus): readonly Sink[] {
  const { volMax } = board.sheet.electrical;
  return [
    { id: 'board', volts: volMax.volts, amps: volMax.atMilliamps / 1000 },
    ...bus.members.map((member): Sink => {
      const low = partSheet(sheets, member.sheet)?.sheet.levels?.volMax;
      return low ? { id: member.id, volts: low.volts, amps: low.atMilliamps / 1000 } : { id: member.id, ...STANDARD_SINK };
    }),
  ];
}

export interface CapacitanceParts {
  readonly inputs: number;
  readonly wire: number;
  readonly nodes: number;
  /** Measured: then the rest is not counted. */
  readonly measured?: number;
  /** All of it, in farads. */
  readonly farads: number;
}

/** The capacitance of a line, in picofarads: estimated from inputs, wire and nodes, unless it was measured. */
export function capacitanceOf(plan: Plan, board: IndexedBoard, bus: Bus): CapacitanceParts {
  const settings = plan.busSettings[bus.controller ?? ''];
  const inputs = bus.members.length * INPUT_PICOFARADS + (board.sheet.electrical.pinCapacitancePicofarads ?? INPUT_PICOFARADS);
  const wire = (settings?.wireCm ?? bus.members.length * CM_PER_MEMBER) * PICOFARADS_PER_CM;
  const nodes = (bus.members.length + 1) * PICOFARADS_PER_NODE;
  const measured = settings?.picofarads;
  return { inputs, wire, nodes, ...(measured === undefined ? {} : { measured }), farads: (measured ?? inputs + wire + nodes) * 1e-12 };
}

export interface ClockLimit {
  /** A placement, or `board`. */
  readonly id: string;
  readonly hz: number;
}

/** Highest clocks of all that are on the bus, the lowest first. */
export function clockLimits(sheets: Sheets, board: IndexedBoard, bus: Bus): readonly ClockLimit[] {
  const controller = bus.controller === undefined ? undefined : board.controllers.get(bus.controller);
  const parts = bus.members.flatMap((member): ClockLimit[] => {
    const devices = partSheet(sheets, member.sheet)?.sheet.bus.devices ?? [];
    return devices.length > 0 ? [{ id: member.id, hz: Math.min(...devices.map((d) => d.maxHz)) }] : [];
  });
  return [...parts, ...(controller ? [{ id: 'board', hz: controller.maxHz }] : [])].toSorted((a, b) => a.hz - b.hz);
}

/** Clock that programs use where nothing else is said. */
const USUAL_HZ = 400e3;

/** The clock of a bus: as set, else the highest that all allow, up to the usual one. */
export function clockOf(plan: Plan, sheets: Sheets, board: IndexedBoard, bus: Bus): number {
  return plan.busSettings[bus.controller ?? '']?.hz ?? Math.min(USUAL_HZ, clockLimits(sheets, board, bus)[0]?.hz ?? USUAL_HZ);
}

/** The pull-ups of one line of an I2C bus, ready to be calculated. Undefined where the plan's board is not known. */
export function pullUpInput(plan: Plan, sheets: Sheets, bus: Bus, line: I2cLine): PullUpInput | undefined {
  const board = boardOf(plan, sheets);
  if (!board) return undefined;
  const vdd = logicVolts(board);
  const added = plan.busSettings[bus.controller ?? '']?.addedOhms;
  const { fixed, internal } = boardPullUps(board, bus, line);
  return {
    vdd,
    pullUps: [...modulePullUps(plan, sheets, board, bus, line), ...fixed, ...(added === undefined ? [] : [addedPullUp(added, vdd)])],
    ...(internal ? { internal } : {}),
    sinks: sinksOf(sheets, board, bus),
    farads: capacitanceOf(plan, board, bus).farads,
    hz: clockOf(plan, sheets, board, bus),
  };
}

/** What the members of a bus send and read, as often as the plan says, else as the sheets take for usual. Members whose sheet
 *  does not say are left out and named. */
export function busUsers(
  plan: Plan,
  sheets: Sheets,
  bus: Bus,
): { readonly users: readonly BusUser[]; readonly unknown: readonly string[] } {
  const unknown: string[] = [];
  const users = bus.members.flatMap((member): BusUser[] => {
    const access = partSheet(sheets, member.sheet)?.sheet.access;
    if (!access) {
      unknown.push(member.id);
      return [];
    }
    return [{ id: member.id, transfers: access.transfers, perSecond: plan.rates[member.id] ?? access.perSecond }];
  });
  return { users, unknown };
}
