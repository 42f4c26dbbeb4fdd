import { outputOfRail } from '../../plan/planRails';
import { isSameNominal, type Range, typical } from '../../quantity/range';
import { type Condition, CONDITIONS } from '../../sheets/condition';
import { voltsUnder } from '../../sheets/conditions';
import type { Rail } from '../../sheets/boardSheet';
import type { PartSheet, PartTerminal, Tie } from '../../sheets/partSheet';
import type { IndexedBoard } from '../../sheets/sheetIndex';
import { lineTerminal } from '../../nets/addresses';
import { logicSupply } from '../../nets/feedRail';
import type { Edit } from '../../plan/edit';
import { type Plan, terminalKey, type WireEnd } from '../../plan/plan';
import type { PlacedPart, PlanOnBoard } from '../../plan/planContext';

/** The supply range of a terminal: its own if the sheet states one, otherwise the part's. */
export function supplyRange(part: PartSheet, terminal: PartTerminal): Range | undefined {
  return terminal.volts ?? part.supply?.volts;
}

/** What is wrong with a rail for a supply terminal. */
export type SupplyTrouble = 'too-high' | 'above-range' | 'too-low' | 'sags-low' | 'not-logic';

/** A trouble, and the mildest condition of the rail under which it is there. */
export interface SupplyFault {
  readonly trouble: SupplyTrouble;
  readonly from: Condition;
}

/** Makers state their ranges for supplies of round nominal voltages: a part "from 3.3 V" is meant for a 3.3 V regulator with its tolerance.
 *  So much outside of the range is no failure, as a share of its end. */
const AT_THE_EDGE = 0.03;
/** So far below its range a part is taken not to work, as a share of the lower end. */
const STARVED = 0.05;

/** Whether a part survives and usually works on this rail, outside its specification. */
export const isRisky = (fault: SupplyFault | undefined): boolean => fault !== undefined && fault.from !== 'nominal';

/** @param absolute absolute maximum in volts, if its sheet states it */
function tooHigh(range: Range, absolute: number | undefined, rail: Rail): SupplyFault | undefined {
  const [nominal, usual, most] = [typical(rail.volts), voltsUnder(rail, 'usual').max, rail.volts.max];
  if (usual > (absolute ?? range.max * (1 + AT_THE_EDGE))) return { trouble: 'too-high', from: 'nominal' };
  if (most > (absolute ?? Infinity)) return { trouble: 'too-high', from: 'usual' };
  if (nominal > range.max || usual > range.max * (1 + AT_THE_EDGE)) return { trouble: 'above-range', from: 'usual' };
  return most > range.max ? { trouble: 'above-range', from: 'extreme' } : undefined;
}

function tooLow(range: Range, rail: Rail): SupplyFault | undefined {
  const [nominal, usual] = [typical(rail.volts), voltsUnder(rail, 'usual').min];
  if (nominal < range.min * (1 - STARVED)) return { trouble: 'too-low', from: 'nominal' };
  if (nominal < range.min || usual < range.min * (1 - AT_THE_EDGE)) return { trouble: 'sags-low', from: 'usual' };
  return rail.volts.min < range.min ? { trouble: 'sags-low', from: 'extreme' } : undefined;
}

/** Whether a rail has the voltage of the board's logic: it is the logic supply, or one as high. */
function isLogicVolts({ sheet }: IndexedBoard, rail: Rail): boolean {
  const logic = sheet.rails.list.find(({ id }) => id === sheet.logicRail);
  return (
    rail.id === sheet.logicRail || (outputOfRail(rail.id) !== undefined && logic !== undefined && isSameNominal(rail.volts, logic.volts))
  );
}

/** What is wrong with a rail for a supply terminal, the gravest.
 *  @returns undefined where the rail is within the range under every condition */
export function supplyFault(board: IndexedBoard, part: PartSheet, terminal: PartTerminal, rail: Rail): SupplyFault | undefined {
  const range = supplyRange(part, terminal);
  if (!range) return undefined;
  const absolute = terminal.volts ? undefined : part.supply?.absoluteMaxVolts;
  const found = [tooHigh(range, absolute, rail), tooLow(range, rail)].filter((fault) => fault !== undefined);
  if (part.supply?.mustMatchLogic && !terminal.volts && !isLogicVolts(board, rail) && !found.some((f) => f.from === 'nominal'))
    return { trouble: 'not-logic', from: 'nominal' };
  return found.toSorted((a, b) => CONDITIONS.indexOf(a.from) - CONDITIONS.indexOf(b.from))[0];
}

/** The rails suitable for a supply terminal, best first: the logic rail if it fits (no level shifting needed), then output rails in
 *  sheet order. A rail fits if it is within the part's supply range except at extremes. If none does, a rail outside the specification
 *  on which the part survives is used, and the checks report it. */
export function railsFor(board: IndexedBoard, part: PartSheet, terminal: PartTerminal): readonly Rail[] {
  if (!supplyRange(part, terminal)) return [];
  const logic = board.sheet.logicRail;
  const judged = board.sheet.rails.list.map((rail) => ({ rail, from: supplyFault(board, part, terminal, rail)?.from }));
  const fitting = judged.filter(({ from }) => from === undefined || from === 'extreme');
  const best = (fitting.length > 0 ? fitting : judged.filter(({ from }) => from === 'usual')).map(({ rail }) => rail);
  return best.toSorted(
    (a, b) => Number(b.id === logic) - Number(a.id === logic) || Number(b.direction !== 'in') - Number(a.direction !== 'in'),
  );
}

/** The rail that supplies a part: the connected one, otherwise the best suitable one. */
function ownRail({ plan, board }: PlanOnBoard, { placement, part }: PlacedPart): Rail | undefined {
  const supply = logicSupply(part);
  const end = supply && plan.wires[terminalKey(placement.id, supply.id)]?.end;
  if (end) return end.to === 'rail' ? board.sheet.rails.list.find((rail) => rail.id === end.rail) : undefined;
  return supply && railsFor(board, part, supply)[0];
}

/** The rail to which a strap or an input is tied for a high level: the part's own supply, which defines its thresholds; behind a
 *  regulator, or if the supply exceeds the maximum of the strap, the best rail below that maximum. */
export function tieRail(on: PlanOnBoard, placed: PlacedPart, maxVolts?: number): Rail | undefined {
  const { supply } = placed.part;
  const own = supply?.regulator ? undefined : ownRail(on, placed);
  if (own && own.volts.max <= (maxVolts ?? Infinity)) return own;
  return strapRail(on.board, maxVolts ?? supply?.volts.max ?? 0);
}

/** Where a wire goes that ties a terminal; undefined where no rail of the board is safe for it. */
export function tieEnd(on: PlanOnBoard, placed: PlacedPart, tie: Tie, maxVolts?: number): WireEnd | undefined {
  if (tie === 'ground') return { to: 'ground' };
  if (tie === 'supply') {
    const rail = tieRail(on, placed, maxVolts);
    return rail && { to: 'rail', rail: rail.id };
  }
  const terminal = lineTerminal(placed.part, tie);
  return terminal === undefined ? undefined : { to: 'terminal', placement: placed.placement.id, terminal };
}

/** A part's supply to another rail, and with it the inputs that are tied to the rail it had: what is high for them moves along. */
export function refeed(plan: Plan, { placement, part }: PlacedPart, supply: string, rail: Rail): readonly Edit[] {
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

/** The maximum voltage of a tied input according to its sheet: that of the strap, its tolerance, or the part's supply. */
export const tieLimit = (part: PartSheet, terminal: string): number =>
  strapVolts(part, terminal) ?? part.levels?.tolerantVolts ?? Math.max(part.supply?.absoluteMaxVolts ?? 0, part.supply?.volts.max ?? 0);

/** The highest rail at or under a voltage, for tying a strap high; the logic rail where it fits. */
function strapRail(board: IndexedBoard, maxVolts: number): Rail | undefined {
  const logic = board.sheet.logicRail;
  return board.sheet.rails.list
    .filter((rail) => rail.volts.max <= maxVolts && rail.direction !== 'in')
    .toSorted((a, b) => Number(b.id === logic) - Number(a.id === logic) || typical(b.volts) - typical(a.volts))[0];
}
