import { derived } from '../nets/derived';
import { type Plan, type TerminalKey, terminalKey } from '../plan/plan';
import type { Range } from '../quantity/range';
import { drawerValues } from '../quantity/series';
import { USUAL_TOLERANCE } from '../quantity/tolerance';
import { partSheet, type Sheets } from '../sheets/sheetIndex';
import { currentSetAmps, currentSetOhms, driverAmps } from './currentSet';

/** An LED driver whose segment current a resistor sets. */
export interface SetDriver {
  readonly key: TerminalKey;
  readonly placement: string;
  readonly ohms: number | undefined;
  /** For the usual current of its sheet: exact value and value on hand. */
  readonly exactOhms: number;
  readonly fitOhms: number | undefined;
  /** Of a segment while it is on, with the resistor that is there, in amperes; undefined without one. */
  readonly amps: Range | undefined;
  /** Supply current of the whole driver with every segment lit, in amperes; undefined without a resistor. */
  readonly totalAmps: Range | undefined;
}

/** Every driver of the plan whose current a resistor sets. */
export const setDriversOf = derived((plan: Plan, sheets: Sheets): readonly SetDriver[] =>
  plan.placements.flatMap((placement): SetDriver[] => {
    const table = partSheet(sheets, placement.sheet)?.sheet.currentSet;
    if (!table) return [];
    const key = terminalKey(placement.id, table.terminal);
    const exact = currentSetOhms(table, table.usualMilliamps / 1000, table.usualVolts);
    const ohms = plan.series[key];
    const amps = ohms === undefined ? undefined : currentSetAmps(table, ohms, table.usualVolts, USUAL_TOLERANCE);
    return [
      {
        key,
        placement: placement.id,
        ohms,
        exactOhms: exact,
        fitOhms: drawerValues(plan.drawer, 1000, 1e6).find((value) => value >= exact * (1 - 1e-9)),
        amps,
        totalAmps: amps && driverAmps(table, amps),
      },
    ];
  }),
);
