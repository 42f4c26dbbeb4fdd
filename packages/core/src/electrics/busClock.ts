import { type Bus, findBuses } from '../nets/buses';
import { derived } from '../nets/derived';
import { segmentsOf } from '../nets/segments';
import { boardOf } from '../plan/edit';
import type { Plan } from '../plan/plan';
import type { IndexedBoard, Sheets } from '../sheets/sheetIndex';
import { type ClockLimit, clockLimits, meantClock, pullUpInput } from './busInputs';
import { busPullUps } from './busPullUps';
import { I2C_MODES } from './i2cModes';

/** The clock of an I2C bus, and everybody who has a say in it. */
export interface BusClock {
  readonly hz: number;
  /** The lowest first; `pull-ups` stands for the rise of the lines. */
  readonly limits: readonly ClockLimit[];
}

/** The fastest mode, at most the meant one, in which every line of the bus rises in time; the slowest where none does. */
function riseLimit(plan: Plan, sheets: Sheets, bus: Bus, meant: number): number {
  const inputs = segmentsOf(plan, sheets, bus).flatMap((segment) =>
    (['sda', 'scl'] as const).flatMap((line) => pullUpInput(plan, sheets, bus, line, segment, meant) ?? []),
  );
  const slowest = Math.max(
    ...inputs.map((input) => {
      const rise = busPullUps(input).riseSeconds?.max;
      return rise !== undefined && Number.isFinite(rise) ? rise : 0;
    }),
  );
  return I2C_MODES.findLast((mode) => slowest <= mode.riseSeconds)?.maxHz ?? I2C_MODES[0]!.maxHz;
}

function makeClock(plan: Plan, sheets: Sheets, board: IndexedBoard, bus: Bus): BusClock {
  const limits = clockLimits(plan, sheets, board, bus);
  const meant = meantClock(plan, sheets, board, bus);
  if (plan.busSettings[bus.controller ?? '']?.hz !== undefined) return { hz: meant, limits };
  const rise = riseLimit(plan, sheets, bus, meant);
  if (rise >= meant) return { hz: meant, limits };
  return { hz: rise, limits: [{ id: 'pull-ups', hz: rise }, ...limits].toSorted((a, b) => a.hz - b.hz) };
}

const clocks = derived((plan: Plan, sheets: Sheets): ReadonlyMap<string, BusClock> => {
  const board = boardOf(plan, sheets);
  const buses = board ? findBuses(plan, sheets).filter((bus) => bus.kind === 'i2c') : [];
  return new Map(buses.map((bus) => [bus.id, makeClock(plan, sheets, board!, bus)]));
});

/** The clock of an I2C bus of the plan: as the builder set it; else the highest that all members, the controller and the rise of its
 *  lines allow, up to the usual 400 kHz. */
export function busClock(plan: Plan, sheets: Sheets, bus: Bus): BusClock {
  return clocks(plan, sheets).get(bus.id) ?? makeClock(plan, sheets, boardOf(plan, sheets)!, bus);
}
