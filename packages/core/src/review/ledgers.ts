import { busClock } from '../electrics/reports/busClock';
import { busUsers } from '../electrics/reports/busInputs';
import { busTime } from '../electrics/formulas/i2cTime';
import { spiReport } from '../electrics/reports/spiReport';
import { railReports } from '../electrics/reports/railReport';
import type { Bus } from '../nets/buses';
import type { Plan } from '../plan/plan';
import type { IndexedBoard, Sheets } from '../sheets/sheetIndex';
import type { Nets } from '../nets/nets';

/** Pins with a wire, of the signal pins on the board's headers. */
export interface PinLedger {
  readonly used: number;
  readonly total: number;
}

/** What the parts take from one rail, in milliamperes, against its budget. */
export interface RailLedger {
  readonly rail: string;
  readonly label: string;
  readonly typicalMilliamps: number;
  readonly peakMilliamps: number;
  readonly budgetMilliamps: number | undefined;
  /** Without a part: what a regulator on the board makes from this rail. */
  readonly lines: readonly { readonly placement: string | undefined; readonly typicalMilliamps: number; readonly peakMilliamps: number }[];
}

/** The load of one bus as a fraction; more than 1 is an overload. */
export interface BusLedger {
  readonly controller: string;
  readonly label: string;
  readonly share: number;
}

export interface Ledgers {
  readonly pins: PinLedger;
  readonly rails: readonly RailLedger[];
  readonly buses: readonly BusLedger[];
}

/** The load of every I2C and SPI bus with a controller and at least one member with traffic facts. */
export function busLedgers(plan: Plan, sheets: Sheets, board: IndexedBoard, buses: readonly Bus[]): readonly BusLedger[] {
  return buses.flatMap((bus): BusLedger[] => {
    const controller = bus.controller === undefined ? undefined : board.controllers.get(bus.controller);
    if (!controller || bus.kind === 'uart') return [];
    const share =
      bus.kind === 'i2c'
        ? busTime(busClock(plan, sheets, bus).hz, busUsers(plan, sheets, bus).users).share
        : spiReport(plan, sheets, board, bus).share;
    return share > 0 ? [{ controller: controller.id, label: controller.title, share }] : [];
  });
}

/** How many of a board's signal pins something is wired to. */
export const usedPins = (board: IndexedBoard, nets: Nets): number => board.ioPins.filter((pin) => nets.byPin.has(pin.id)).length;

/** The budgets of a plan but bus time: pins, and the current of every rail that gives current. */
export function ledgersOf(plan: Plan, sheets: Sheets, board: IndexedBoard, nets: Nets): Omit<Ledgers, 'buses'> {
  const rails = railReports(plan, sheets).map(({ rail, lines, typicalMilliamps, peakMilliamps }): RailLedger => ({
    rail: rail.id,
    label: rail.label,
    typicalMilliamps,
    peakMilliamps,
    budgetMilliamps: rail.budgetMilliamps,
    lines: lines.map((line) => ({
      placement: line.placement,
      typicalMilliamps: line.typicalMilliamps,
      peakMilliamps: line.peakMilliamps,
    })),
  }));
  return { pins: { used: usedPins(board, nets), total: board.ioPins.length }, rails };
}
