import { memoizeByPair } from '../../memo/memoizeByPair';
import { type MultiplexedLed, multiplexedLeds } from '../../nets/multiplexed';
import { partOf } from '../../plan/edit';
import { type Plan, splitKey, type TerminalKey, terminalKey } from '../../plan/plan';
import { type Range, typical } from '../../quantity/range';
import { valuesWithin } from '../../quantity/series';
import { USUAL_TOLERANCE } from '../../quantity/tolerance';
import type { PartSheet } from '../../sheets/partSheet';
import { partSheet, partSheetOrThrow, type Sheets } from '../../sheets/sheetIndex';
import { currentSetAmps, currentSetOhms, driverAmps } from '../formulas/currentSet';

/** An LED driver whose segment current a resistor sets. */
export interface SetDriver {
  /** Where the resistor sits; undefined where it is on the module. */
  readonly key: TerminalKey | undefined;
  readonly placement: string;
  readonly ohms: number | undefined;
  /** For the usual current of its sheet: exact value and value on hand. */
  readonly exactOhms: number;
  readonly fitOhms: number | undefined;
  /** Of a segment while it is on, with the resistor that is there, in amperes; undefined without one. */
  readonly amps: Range | undefined;
  /** Digits that the plan has on it, the highest current of a segment where the chip scans no more than those, and the resistor on hand that
   *  keeps it; undefined where that is no lower than its maximum, and without a digit. */
  readonly few: { readonly digits: number; readonly maxAmps: number; readonly fitOhms: number | undefined } | undefined;
  /** Supply current of the whole driver with every segment lit, in amperes; undefined without a resistor. */
  readonly totalAmps: Range | undefined;
}

/** The lowest typical forward voltage of the LEDs on a driver, in volts: they get the most current. Undefined without LEDs. */
function forwardVolts(plan: Plan, sheets: Sheets, leds: readonly MultiplexedLed[]): number | undefined {
  const volts = leds.flatMap(({ key }) => {
    const { placement, terminal } = splitKey(key);
    const part = partOf(plan, placement, sheets);
    const range = part?.terminals.get(terminal)?.led?.forwardVolts ?? part?.sheet.polarity?.forwardVolts;
    return range ? [typical(range)] : [];
  });
  return volts.length > 0 ? Math.min(...volts) : undefined;
}

function fewDigits(plan: Plan, { multiplex, currentSet }: PartSheet, leds: readonly MultiplexedLed[], volts: number): SetDriver['few'] {
  const digits = new Set(leds.map(({ digit }) => digit)).size;
  const milliamps = digits === 0 ? undefined : multiplex?.fewDigitsMilliamps?.[digits - 1];
  if (milliamps === undefined || !currentSet) return undefined;
  const maxAmps = milliamps / 1000;
  const most = (ohms: number) => currentSetAmps(currentSet, ohms, volts, USUAL_TOLERANCE).max;
  return { digits, maxAmps, fitOhms: valuesWithin(plan.valuesOnHand, 1000, 1e6).find((ohms) => most(ohms) <= maxAmps * (1 + 1e-9)) };
}

/** Every driver of the plan whose current a resistor sets. */
export const setDriversOf = memoizeByPair((plan: Plan, sheets: Sheets): readonly SetDriver[] =>
  plan.placements.flatMap((placement): SetDriver[] => {
    const table = partSheet(sheets, placement.sheet)?.sheet.currentSet;
    if (!table) return [];
    const key = table.terminal === undefined ? undefined : terminalKey(placement.id, table.terminal);
    const leds = multiplexedLeds(plan, sheets).filter((led) => led.driver === placement.id);
    const volts = forwardVolts(plan, sheets, leds) ?? table.usualVolts;
    const exact = currentSetOhms(table, table.usualMilliamps / 1000, volts);
    const ohms = key === undefined ? table.fixedOhms : plan.series[key];
    const amps = ohms === undefined ? undefined : currentSetAmps(table, ohms, volts, USUAL_TOLERANCE);
    return [
      {
        key,
        placement: placement.id,
        ohms,
        exactOhms: exact,
        fitOhms: valuesWithin(plan.valuesOnHand, 1000, 1e6).find((value) => value >= exact * (1 - 1e-9)),
        amps,
        few: fewDigits(plan, partSheetOrThrow(sheets, placement.sheet).sheet, leds, volts),
        totalAmps: amps && driverAmps(table, amps),
      },
    ];
  }),
);
