import { firstOrThrow } from '../../collections/orThrow';
import { type Bus, findBuses } from '../../nets/buses';
import { mapPerComponent } from '../../nets/connectedComponents';
import { type Segment, segmentsOf } from '../../nets/segments';
import { boardOf, boardOrThrow } from '../../plan/edit';
import type { Plan } from '../../plan/plan';
import { memoizeByContent } from '../../memo/memoizeByContent';
import type { IndexedBoard, Sheets } from '../../sheets/sheetIndex';
import { type ClockLimit, clockLimits, type I2cLine, pullUpInput, usualClock } from './busInputs';
import { busPullUps, type PullUpInput, type PullUpResult } from '../formulas/busPullUps';
import { I2C_MODES } from '../formulas/i2cModes';
import type { Worked } from '../formulas/working';

/** The result for one line of one segment. */
export interface LinePullUps {
  readonly segment: Segment;
  readonly line: I2cLine;
  readonly input: PullUpInput;
  readonly pullUps: Worked<PullUpResult>;
}

/** The clock of an I2C bus, everybody who has a say in it, and its lines at that clock. */
export interface BusClock {
  readonly hz: number;
  /** The lowest first; `pull-ups` means the rise time of the lines. */
  readonly limits: readonly ClockLimit[];
  readonly lines: readonly LinePullUps[];
}

const pullUpsOf = memoizeByContent(busPullUps);

const linesAt = (plan: Plan, sheets: Sheets, bus: Bus, hz: number): readonly LinePullUps[] =>
  segmentsOf(plan, sheets, bus).flatMap((segment) =>
    (['sda', 'scl'] as const).flatMap((line) => {
      const input = pullUpInput(plan, sheets, bus, { line, segment, hz });
      return input ? [{ segment, line, input, pullUps: pullUpsOf(input) }] : [];
    }),
  );

/** The fastest mode in which every line rises in time; the slowest where none does. */
function riseLimit(lines: readonly LinePullUps[]): number {
  const rises = lines.flatMap(({ pullUps }) => pullUps.riseSeconds?.max ?? []).filter(Number.isFinite);
  const slowest = Math.max(0, ...rises);
  return I2C_MODES.findLast((mode) => slowest <= mode.riseSeconds)?.maxHz ?? firstOrThrow(I2C_MODES).maxHz;
}

function makeClock(plan: Plan, sheets: Sheets, board: IndexedBoard, bus: Bus): BusClock {
  const limits = clockLimits(plan, sheets, board, bus);
  const meant = plan.busSettings[bus.controller ?? '']?.hz ?? usualClock(limits);
  const lines = linesAt(plan, sheets, bus, meant);
  const rise = riseLimit(lines);
  if (rise >= meant || plan.busSettings[bus.controller ?? '']?.hz !== undefined) return { hz: meant, limits, lines };
  return {
    hz: rise,
    limits: [{ id: 'pull-ups', hz: rise }, ...limits].toSorted((a, b) => a.hz - b.hz),
    lines: linesAt(plan, sheets, bus, rise),
  };
}

const clocks = mapPerComponent((plan: Plan, sheets: Sheets): ReadonlyMap<string, BusClock> => {
  const board = boardOf(plan, sheets);
  if (!board) return new Map();
  const buses = findBuses(plan, sheets).filter((bus) => bus.kind === 'i2c');
  return new Map(buses.map((bus) => [bus.id, makeClock(plan, sheets, board, bus)]));
});

/** The clock of an I2C bus of the plan: as set in the plan; otherwise the highest that all members, the controller and the rise time
 *  allow, up to the usual 400 kHz. */
export function busClock(plan: Plan, sheets: Sheets, bus: Bus): BusClock {
  return clocks(plan, sheets).get(bus.id) ?? makeClock(plan, sheets, boardOrThrow(plan, sheets), bus);
}
