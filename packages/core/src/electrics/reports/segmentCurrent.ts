import { firstOrThrow } from '../../collections/orThrow';
import { multiplexedLeds } from '../../nets/multiplexed';
import { partOf } from '../../plan/edit';
import { type Plan, splitKey } from '../../plan/plan';
import { type Range, typical } from '../../quantity/range';
import type { Sheets } from '../../sheets/sheetIndex';
import { ledReports } from './ledReport';
import { setDriversOf } from './setDrivers';

/** What a segment of a display gets while its digit is on, in amperes, and the share of the time that it is: 1 / `digits`. */
export interface SegmentCurrent {
  readonly amps: Range;
  readonly digits: number;
}

/** The current of a segment as the display is wired: by its resistors, or by the driver that it is on, which scans all its digit outputs.
 *  Undefined where nothing limits it yet. */
export function segmentCurrent(plan: Plan, sheets: Sheets, placement: string): SegmentCurrent | undefined {
  const led = multiplexedLeds(plan, sheets).find(({ key }) => splitKey(key).placement === placement);
  if (led) {
    const amps = setDriversOf(plan, sheets).find((one) => one.placement === led.driver)?.amps;
    const digits = partOf(plan, led.driver, sheets)?.sheet.multiplex?.digits.length;
    return amps && digits !== undefined ? { amps, digits } : undefined;
  }
  const leds = ledReports(plan, sheets).filter((led) => led.placement === placement && led.ohms !== undefined);
  if (leds.length === 0) return undefined;
  const range = (pick: (amps: Range) => number, of: (...all: number[]) => number) => of(...leds.map(({ amps }) => pick(amps)));
  return {
    amps: { min: range((a) => a.min, Math.min), typ: range(typical, Math.min), max: range((a) => a.max, Math.max) },
    digits: firstOrThrow(leds).digits,
  };
}
