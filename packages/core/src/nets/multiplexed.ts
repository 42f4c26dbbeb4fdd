import { type Plan, type TerminalKey, terminalKey } from '../plan/plan';
import { memoizeByObject } from '../memo/memoizeByObject';
import type { PartSheet, PartTerminal } from '../sheets/partSheet';
import { partSheet, type Sheets } from '../sheets/sheetIndex';
import { cathodeOf } from './leds';

/** A digit has at most so many segments: a byte of a driver's memory. */
export const BANK = 8;

/** What an output of a driver that lights LEDs in turn is: a segment output with its place in the order of the bits, or a digit output with
 *  its register; undefined for other terminals. */
export function multiplexedOutput(
  { multiplex }: PartSheet,
  terminal: string,
): { readonly is: 'segment' | 'digit'; readonly index: number } | undefined {
  const segment = multiplex?.segments.indexOf(terminal) ?? -1;
  if (segment >= 0) return { is: 'segment', index: segment };
  const digit = multiplex?.digits.indexOf(terminal) ?? -1;
  return digit < 0 ? undefined : { is: 'digit', index: digit };
}

/** The terminals that the LEDs of a part have in common, digit by digit; several of one digit are joined on the part. Empty for parts
 *  without LEDs. */
export const commonsOf = memoizeByObject((part: PartSheet): readonly PartTerminal[] => {
  const { terminals, polarity } = part;
  if (!polarity) return [];
  const digits = terminals.list.filter((t) => t.digit);
  if (digits.length > 0) return digits.toSorted((a, b) => a.id.localeCompare(b.id, 'en', { numeric: true }));
  const role = polarity.common === 'anode' ? 'supply.vcc' : 'ground';
  return terminals.list.filter((t) => (polarity.common ? t.role === role : t.id === cathodeOf(part)));
});

/** The lines of a part's LEDs that are not common. */
export const segmentsOfPart = memoizeByObject((part: PartSheet): readonly PartTerminal[] => part.terminals.list.filter((t) => t.led));

/** Whether a driver that lights LEDs in turn can drive a part: bare LEDs of the polarity that its digit outputs connect. */
export const canMultiplex = (driver: PartSheet, part: PartSheet): boolean =>
  driver.multiplex !== undefined &&
  segmentsOfPart(part).length > 0 &&
  commonsOf(part).length > 0 &&
  (part.polarity?.common ?? driver.multiplex.common) === driver.multiplex.common;

/** One LED or segment of a plan on a driver: its own line at a segment output, its common line at a digit output. */
export interface MultiplexedLed {
  readonly key: TerminalKey;
  readonly common: TerminalKey;
  readonly driver: string;
  readonly segment: number;
  readonly digit: number;
}

/** The output of a driver that a terminal is wired to. */
export function driverAt(
  plan: Plan,
  sheets: Sheets,
  key: TerminalKey,
): { readonly driver: string; readonly is: 'segment' | 'digit'; readonly index: number } | undefined {
  const end = plan.wires[key]?.end;
  const placement = end?.to === 'terminal' ? plan.placements.find((p) => p.id === end.placement) : undefined;
  const part = placement && partSheet(sheets, placement.sheet)?.sheet;
  const output = part && end?.to === 'terminal' ? multiplexedOutput(part, end.terminal) : undefined;
  return placement && output && { driver: placement.id, ...output };
}

/** Every LED of a plan that a driver lights: both of its lines are at outputs of it. Digits of one part share its segment lines. */
export function multiplexedLeds(plan: Plan, sheets: Sheets): readonly MultiplexedLed[] {
  return plan.placements.flatMap(({ id, sheet }): readonly MultiplexedLed[] => {
    const part = partSheet(sheets, sheet)?.sheet;
    if (!part?.polarity) return [];
    const at = (terminals: readonly PartTerminal[], is: 'segment' | 'digit') =>
      terminals.flatMap((t) => {
        const key = terminalKey(id, t.id);
        const output = driverAt(plan, sheets, key);
        return output?.is === is ? [{ key, driver: output.driver, index: output.index }] : [];
      });
    const segments = at(segmentsOfPart(part), 'segment');
    return at(commonsOf(part), 'digit').flatMap((common) =>
      segments.flatMap((one): MultiplexedLed[] =>
        one.driver === common.driver
          ? [{ key: one.key, common: common.key, driver: one.driver, segment: one.index, digit: common.index }]
          : [],
      ),
    );
  });
}
