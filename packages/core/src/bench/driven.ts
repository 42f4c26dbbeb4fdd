import { terminalsOf } from '../nets/terminals';
import type { Placement, Plan, TerminalKey } from '../plan/plan';
import { SEGMENTS } from '../displays/glyphs';
import type { Sheets } from '../sheets/sheetIndex';

/** An LED that the probe can drive, so that the user can see whether the right one lights. */
export interface Driven {
  /** Lines in the order in which they are driven. */
  readonly lines: readonly { readonly key: TerminalKey; readonly pin: string }[];
  /** The request that does it, without its number. */
  readonly words: string;
}

/** How long each is lit, in milliseconds. */
const EACH = 700;

/** Active-high LEDs or bare segments of a part on board pins with a series resistor, driven one after another. Active-low ones and those
 *  behind a transistor are not driven. */
export function drivenPart(plan: Plan, sheets: Sheets, placement: Placement): Driven | undefined {
  const own = terminalsOf(plan, placement, sheets);
  if (own.some(({ part }) => part.polarity?.common === 'anode')) return undefined;
  const order = (id: string) => (SEGMENTS as readonly string[]).indexOf(id);
  const lines = own
    .filter((t) => t.terminal.led && !plan.drivers[t.key] && plan.series[t.key] !== undefined)
    .toSorted((a, b) => order(a.terminal.id) - order(b.terminal.id))
    .flatMap(({ key, wire }) => (wire?.end.to === 'pin' ? [{ key, pin: wire.end.pin }] : []));
  const pins = lines.map((line) => line.pin);
  if (pins.length === 0) return undefined;
  return { lines, words: pins.length === 1 ? `drive ${pins[0]} 1 ${EACH}` : `walk ${EACH} ${pins.join(' ')}` };
}
