import { has } from '../../collections/has';
import { USUAL_TOLERANCE } from '../../quantity/tolerance';
import { findBuses } from '../../nets/buses';
import { memoizeByPair } from '../../memo/memoizeByPair';
import { segmentsOf } from '../../nets/segments';
import { type PlanTerminal, planTerminals } from '../../nets/terminals';
import { boardOf } from '../../plan/edit';
import type { Driver, Plan, TerminalKey } from '../../plan/plan';
import type { IndexedBoard, Sheets } from '../../sheets/sheetIndex';
import { feedOf, logicVolts, pullFeed } from './busInputs';
import { baseAmps, type LedReport, ledReports } from './ledReport';
import { type SetDriver, setDriversOf } from './setDrivers';
import { ratingFor } from '../formulas/led';
import { i2cSegmentReports } from './segmentReport';

/** What a resistor is there for. */
export type ResistorUse =
  | { readonly use: 'led'; readonly led: LedReport }
  | { readonly use: 'divider-top' | 'divider-bottom'; readonly with: number }
  | { readonly use: 'series' | 'pull-up' | 'pull-down' }
  | { readonly use: 'bus'; readonly controller: string; readonly segment: string; readonly lines: number }
  | { readonly use: 'base'; readonly kind: Driver['kind'] }
  | { readonly use: 'current-set'; readonly driver: SetDriver };

/** One resistor that the plan has, or lacks. */
export interface PlanResistor {
  readonly id: string;
  readonly why: ResistorUse;
  /** The terminal that it sits at; absent for those of a bus. */
  readonly key: TerminalKey | undefined;
  /** Undefined while it is missing. */
  readonly ohms: number | undefined;
  readonly exactOhms: number | undefined;
  /** Most current through it, in amperes, what it turns into heat, and the rating to take: twice that. */
  readonly amps: number | undefined;
  readonly watts: number | undefined;
  readonly ratingWatts: number | undefined;
}

/** @param amps through the resistor at its least resistance, where the current is greatest */
function heated(ohms: number | undefined, amps: number | undefined): Pick<PlanResistor, 'amps' | 'watts' | 'ratingWatts'> {
  if (ohms === undefined || amps === undefined || !Number.isFinite(amps))
    return { amps: undefined, watts: undefined, ratingWatts: undefined };
  const watts = amps ** 2 * ohms * (1 - USUAL_TOLERANCE);
  return { amps, watts, ratingWatts: ratingFor(watts) };
}

/** What a resistor between a supply at its highest and ground carries. */
const fromSupply = (volts: number, ohms: number): number => volts / (ohms * (1 - USUAL_TOLERANCE));

function atTerminal(plan: Plan, sheets: Sheets, board: IndexedBoard, item: PlanTerminal): readonly PlanResistor[] {
  const { key } = item;
  const [series, pull, driver] = [plan.series[key], plan.pulls[key], plan.drivers[key]];
  const volts = feedOf(plan, sheets, board, item.placement.id).volts.max;
  const divides = series !== undefined && pull?.to === 'ground';
  const found: PlanResistor[] = [];
  if (series !== undefined) {
    const amps = divides ? fromSupply(volts, series + pull.ohms) : undefined;
    const why: ResistorUse = divides ? { use: 'divider-top', with: pull.ohms } : { use: 'series' };
    found.push({ id: `series ${key}`, why, key, ohms: series, exactOhms: undefined, ...heated(series, amps) });
  }
  if (pull) {
    const pulled = pull.to === 'supply' ? (pullFeed(plan, sheets, key)?.volts.max ?? volts) : volts;
    const amps = divides ? fromSupply(volts, series + pull.ohms) : fromSupply(pulled, pull.ohms);
    const why: ResistorUse = divides ? { use: 'divider-bottom', with: series } : { use: pull.to === 'supply' ? 'pull-up' : 'pull-down' };
    found.push({ id: `pull ${key}`, why, key, ohms: pull.ohms, exactOhms: undefined, ...heated(pull.ohms, amps) });
  }
  if (driver)
    found.push({
      id: `driver ${key}`,
      why: { use: 'base', kind: driver.kind },
      key,
      ohms: driver.ohms,
      exactOhms: undefined,
      ...heated(driver.ohms, baseAmps(logicVolts(board).max, driver)),
    });
  return found;
}

function ofBuses(plan: Plan, sheets: Sheets, board: IndexedBoard): readonly PlanResistor[] {
  return findBuses(plan, sheets)
    .filter(has('controller'))
    .flatMap((bus) => {
      if (bus.kind !== 'i2c') return [];
      const sheet = new Map((i2cSegmentReports(plan, sheets).get(bus.id) ?? []).map((one) => [one.segment.id, one]));
      return segmentsOf(plan, sheets, bus).flatMap((segment): PlanResistor[] => {
        const ohms = plan.busSettings[segment.id]?.addedOhms;
        if (ohms === undefined) return [];
        const volts = sheet.get(segment.id)?.input.vdd.max ?? logicVolts(board).max;
        return [
          {
            id: `bus ${segment.id}`,
            why: { use: 'bus', controller: bus.controller, segment: segment.id, lines: 2 },
            key: undefined,
            ohms,
            exactOhms: undefined,
            ...heated(ohms, fromSupply(volts, ohms)),
          },
        ];
      });
    });
}

/** Every resistor of a plan with its current, and those its LEDs still lack: LEDs first, then terminals, then buses. */
export const planResistors = memoizeByPair((plan: Plan, sheets: Sheets): readonly PlanResistor[] => {
  const board = boardOf(plan, sheets);
  if (!board) return [];
  const leds = ledReports(plan, sheets).map((led): PlanResistor => ({
    id: `series ${led.resistorAt}`,
    why: { use: 'led', led },
    key: led.resistorAt,
    ohms: led.ohms,
    exactOhms: led.exactOhms,
    ...heated(led.ohms, led.amps.max),
  }));
  // What flows into the terminal is microamperes: the driver multiplies it.
  const drivers = setDriversOf(plan, sheets).flatMap((driver): PlanResistor[] =>
    driver.key === undefined
      ? []
      : [
          {
            id: `series ${driver.key}`,
            why: { use: 'current-set', driver },
            key: driver.key,
            ohms: driver.ohms,
            exactOhms: driver.exactOhms,
            ...heated(undefined, undefined),
          },
        ],
  );
  const listed = new Set([...leds, ...drivers].map((one) => one.key));
  const others = planTerminals(plan, sheets).flatMap((item) =>
    atTerminal(plan, sheets, board, item).filter((one) => !(listed.has(one.key) && one.id.startsWith('series'))),
  );
  return [...leds, ...drivers, ...others, ...ofBuses(plan, sheets, board)];
});
