import { terminalsOf } from '../nets/terminals';
import type { Plan } from '../plan/plan';
import { SEGMENTS } from '../readout/glyphs';
import { partSheet, type Sheets } from '../sheets/sheetIndex';

/** Something that a probe can light, so that somebody can look whether the right one does. */
export interface Driven {
  readonly placement: string;
  /** Pins in the order in which they are driven, with what lights there. */
  readonly pins: readonly { readonly pin: string; readonly label: string }[];
  /** The request that does it, without its number. */
  readonly words: string;
}

/** How long each is lit, in milliseconds. */
const EACH = 700;

/** LEDs and bare segments that hang at the board's own pins with a resistor in their wire and light at a high level: one after another.
 *  What lights at a low level, or through a transistor, a probe leaves alone. */
export function drivenParts(plan: Plan, sheets: Sheets): readonly Driven[] {
  return plan.placements.flatMap((placement): Driven[] => {
    const part = partSheet(sheets, placement.sheet)?.sheet;
    if (!part || part.polarity?.common === 'anode') return [];
    const lit = terminalsOf(plan, placement, sheets).filter(
      (t) => t.terminal.led && t.wire?.end.to === 'pin' && !plan.drivers[t.key] && plan.series[t.key] !== undefined,
    );
    if (lit.length === 0) return [];
    const order = (id: string) => (SEGMENTS as readonly string[]).indexOf(id);
    const pins = lit
      .toSorted((a, b) => order(a.terminal.id) - order(b.terminal.id))
      .map(({ terminal, wire }) => ({ pin: (wire!.end as { readonly pin: string }).pin, label: terminal.label }));
    return [
      {
        placement: placement.id,
        pins,
        words: pins.length === 1 ? `drive ${pins[0]!.pin} 1 ${EACH}` : `walk ${EACH} ${pins.map((one) => one.pin).join(' ')}`,
      },
    ];
  });
}
