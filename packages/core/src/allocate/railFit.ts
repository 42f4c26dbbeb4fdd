import { encloses, point, type Range, typical } from '../quantity/range';
import type { Rail } from '../sheets/boardSheet';
import type { PartSheet, PartTerminal } from '../sheets/partSheet';
import type { IndexedBoard } from '../sheets/sheetIndex';

/** The voltages a supply terminal takes: its own range where the sheet gives one, else the part's. */
export function supplyRange(part: PartSheet, terminal: PartTerminal): Range | undefined {
  return terminal.volts ?? part.supply?.volts;
}

/** The rails of the board that a supply terminal may hang on, best first: the logic rail where it fits (no level shift
 *  needed), then rails that give current, by sheet order.
 *  A rail fits when its whole voltage range lies within the part's supply range. Where none does, a rail serves
 *  whose nominal voltage does and that cannot destroy the part: the checks then name the risk. */
export function railsFor(board: IndexedBoard, part: PartSheet, terminal: PartTerminal): readonly Rail[] {
  const range = supplyRange(part, terminal);
  if (!range) return [];
  const logic = board.sheet.logicRail;
  const mustMatch = part.supply?.mustMatchLogic && !terminal.volts;
  const rails = board.sheet.rails.list.filter((rail) => !mustMatch || rail.id === logic);
  const safe = rails.filter((rail) => encloses(range, rail.volts));
  const most = terminal.volts ? range.max : (part.supply?.absoluteMaxVolts ?? range.max);
  const nominal = rails.filter((rail) => encloses(range, point(typical(rail.volts))) && rail.volts.max <= most);
  return (safe.length > 0 ? safe : nominal).toSorted(
    (a, b) => Number(b.id === logic) - Number(a.id === logic) || Number(b.direction !== 'in') - Number(a.direction !== 'in'),
  );
}

/** The highest rail at or under a voltage, for tying a strap high; the logic rail where it fits. */
export function strapRail(board: IndexedBoard, maxVolts: number): Rail | undefined {
  const logic = board.sheet.logicRail;
  return board.sheet.rails.list
    .filter((rail) => rail.volts.max <= maxVolts && rail.direction !== 'in')
    .toSorted((a, b) => Number(b.id === logic) - Number(a.id === logic) || typical(b.volts) - typical(a.volts))[0];
}
