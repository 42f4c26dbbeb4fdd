import { encloses, point, type Range, typical } from '../quantity/range';
import type { Rail } from '../sheets/boardSheet';
import type { PartSheet, PartTerminal } from '../sheets/partSheet';
import type { IndexedBoard } from '../sheets/sheetIndex';
import type { Edit } from '../plan/edit';
import { type Placement, type Plan, terminalKey } from '../plan/plan';

/** The voltages a supply terminal takes: its own range where the sheet gives one, else the part's. */
export function supplyRange(part: PartSheet, terminal: PartTerminal): Range | undefined {
  return terminal.volts ?? part.supply?.volts;
}

/** What is wrong with a rail for a supply terminal. All but `above-range` and `sags-low` keep the part from working, or destroy it. */
export type SupplyTrouble = 'too-high' | 'above-range' | 'too-low' | 'sags-low' | 'not-logic';

/** Whether a part lives on a rail with this trouble, though nobody promises it. */
export const isRisky = (trouble: SupplyTrouble | undefined): boolean => trouble === 'above-range' || trouble === 'sags-low';

export function supplyTrouble(
  board: IndexedBoard,
  part: PartSheet,
  terminal: PartTerminal,
  { id, volts }: Rail,
): SupplyTrouble | undefined {
  const range = supplyRange(part, terminal);
  if (!range) return undefined;
  const most = terminal.volts ? range.max : (part.supply?.absoluteMaxVolts ?? range.max);
  if (volts.max > range.max) return volts.max <= most ? 'above-range' : 'too-high';
  if (volts.max < range.min) return 'too-low';
  if (volts.min < range.min) return 'sags-low';
  return part.supply?.mustMatchLogic && !terminal.volts && id !== board.sheet.logicRail ? 'not-logic' : undefined;
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
  const troubleOf = (rail: Rail) => supplyTrouble(board, part, terminal, rail);
  const safe = rails.filter((rail) => troubleOf(rail) === undefined);
  const nominal = rails.filter((rail) => isRisky(troubleOf(rail)) && encloses(range, point(typical(rail.volts))));
  return (safe.length > 0 ? safe : nominal).toSorted(
    (a, b) => Number(b.id === logic) - Number(a.id === logic) || Number(b.direction !== 'in') - Number(a.direction !== 'in'),
  );
}

/** The rail that feeds a part, or will as far as can be told: the one that its supply is wired to, else the best one for it. */
function ownRail(plan: Plan, board: IndexedBoard, placement: Placement, part: PartSheet): Rail | undefined {
  const supply = part.terminals.list.find((t) => t.role === 'supply.vcc');
  const end = supply && plan.wires[terminalKey(placement.id, supply.id)]?.end;
  if (end) return end.to === 'rail' ? board.sheet.rails.list.find((rail) => rail.id === end.rail) : undefined;
  return supply && railsFor(board, part, supply)[0];
}

/** The rail to which a strap or an input of a part is tied for high: the part's own supply, since what is high for it follows from that;
 *  behind a regulator, or where that is more than the strap takes, the best rail under what it takes. */
export function tieRail(plan: Plan, board: IndexedBoard, placement: Placement, part: PartSheet, maxVolts?: number): Rail | undefined {
  const own = part.supply?.regulator ? undefined : ownRail(plan, board, placement, part);
  if (own && own.volts.max <= (maxVolts ?? Infinity)) return own;
  return strapRail(board, maxVolts ?? part.supply?.volts.max ?? 0);
}

/** A part's supply to another rail, and with it the inputs that are tied to the rail it had: what is high for them moves along. */
export function refeed(plan: Plan, placement: Placement, part: PartSheet, supply: string, rail: Rail): readonly Edit[] {
  const before = plan.wires[terminalKey(placement.id, supply)]?.end;
  const to = (terminal: string): Edit => ({ kind: 'wire', placement: placement.id, terminal, end: { to: 'rail', rail: rail.id } });
  const tied = part.terminals.list.filter(({ id, role, ties }) => {
    const wire = plan.wires[terminalKey(placement.id, id)];
    return (
      !part.supply?.regulator &&
      before?.to === 'rail' &&
      (role === 'strap' || (role !== 'supply.vcc' && ties?.includes('supply'))) &&
      wire?.end.to === 'rail' &&
      wire.end.rail === before.rail &&
      !wire.locked &&
      rail.volts.max <= (strapVolts(part, id) ?? Infinity)
    );
  });
  return [to(supply), ...tied.map((t) => to(t.id))];
}

/** What the sheet states for a strap at most, in volts. */
export const strapVolts = (part: PartSheet, terminal: string): number | undefined =>
  part.bus.straps?.find((s) => (s.terminal ?? s.id) === terminal)?.maxVolts;

/** What an input that is tied takes at the very most, in volts, as far as its sheet alone says: its strap, its tolerance, or the part's
 *  supply. */
export const tieLimit = (part: PartSheet, terminal: string): number =>
  strapVolts(part, terminal) ?? part.levels?.tolerantVolts ?? Math.max(part.supply?.absoluteMaxVolts ?? 0, part.supply?.volts.max ?? 0);

/** The highest rail at or under a voltage, for tying a strap high; the logic rail where it fits. */
function strapRail(board: IndexedBoard, maxVolts: number): Rail | undefined {
  const logic = board.sheet.logicRail;
  return board.sheet.rails.list
    .filter((rail) => rail.volts.max <= maxVolts && rail.direction !== 'in')
    .toSorted((a, b) => Number(b.id === logic) - Number(a.id === logic) || typical(b.volts) - typical(a.volts))[0];
}
