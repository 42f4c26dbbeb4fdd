import { getOrThrow } from '../../collections/orThrow';
import { memoizeByObject } from '../../memo/memoizeByObject';
import type { UsualBus } from '../../sheets/boardSheet';
import { PIN_ROLES, type Role } from '../../sheets/roles';
import type { IndexedBoard } from '../../sheets/sheetIndex';

/** From here on nothing is less usual. */
const UNUSUAL = 2;
const BY_PROGRAM = UNUSUAL + 2;

/** How far a choice is from what people use first: its place in the list of the sheet, from 0; 0 throughout where the sheet lists nothing. */
export interface UsualPins {
  /** Of a bus line at a pin of a controller. */
  readonly line: (controller: string, line: string, pin: string) => number;
  /** Of a signal of its own at a pin: a chip select, a one-wire bus, or any other. */
  readonly signal: (role: Role, pin: string) => number;
}

/** The place of what is listed; of anything else the last, and one more on a pin that is kept for a bus. */
function placeOf(list: readonly unknown[], at: number, isKept: boolean): number {
  if (at >= 0) return Math.min(UNUSUAL, at);
  return (list.length > 0 ? UNUSUAL : 0) + (isKept ? 1 : 0);
}

/** The usual pins of a board. A signal that has no usual pin keeps off those of the first bus of each kind: a bus that is added later
 *  is looked for there. */
export const usualPins = memoizeByObject(({ sheet, controllers }: IndexedBoard): UsualPins => {
  const byKind = new Map<string, UsualBus[]>();
  for (const bus of sheet.usual?.list ?? []) {
    const kind = getOrThrow(controllers, bus.controller).kind;
    byKind.set(kind, [...(byKind.get(kind) ?? []), bus]);
  }
  const selects = (byKind.get('spi') ?? []).flatMap((bus) => bus.selects ?? []);
  const kept = new Set(
    [...byKind.values()].flatMap(([first]) => (first ? [...Object.values(first.pins), ...(first.selects ?? []).slice(0, 1)] : [])),
  );
  return {
    line: (controller, line, pin) => {
      const { kind, software } = getOrThrow(controllers, controller);
      const list = byKind.get(kind) ?? [];
      // A bus of the chip comes before one that the program makes, wherever it is.
      if (software && list.every((bus) => bus.controller !== controller)) return BY_PROGRAM + (kept.has(pin) ? 1 : 0);
      const at = list.findIndex((bus) => bus.controller === controller && bus.pins[line] === pin);
      return placeOf(list, at, kept.has(pin));
    },
    signal: (role, pin) => {
      const list = role === 'spi.cs' ? selects : role === 'onewire.data' ? (sheet.usual?.oneWire ?? []) : [];
      return placeOf(list, list.indexOf(pin), kept.has(pin));
    },
  };
});

/** Whether a pin is the first choice of the sheet for a role: its line of the first usual bus of that kind, the first select, the one-wire
 *  pin. */
export function isUsualAt(board: IndexedBoard, role: Role, pin: string): boolean {
  const { usual } = board.sheet;
  if (role === 'onewire.data') return usual?.oneWire?.[0] === pin;
  const line = PIN_ROLES[role]?.line;
  const kind = line?.kind ?? (role === 'spi.cs' ? 'spi' : undefined);
  const first = kind && usual?.list.find((bus) => board.controllers.get(bus.controller)?.kind === kind);
  return first !== undefined && (line ? first.pins[line.line] === pin : first.selects?.[0] === pin);
}
