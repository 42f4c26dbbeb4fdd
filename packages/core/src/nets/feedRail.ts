import { type Plan, terminalKey } from '../plan/plan';
import type { PartSheet, PartTerminal } from '../sheets/partSheet';
import type { Sheets } from '../sheets/sheetIndex';
import { findNets } from './nets';
import { terminalsOf } from './terminals';

/** The supply terminal that the signals of a part follow: the first one that has no voltage range of its own, as supplies of motors, LEDs and
 *  references have; the first at all where each has one. */
export function logicSupply(part: PartSheet): PartTerminal | undefined {
  const supplies = part.terminals.list.filter((t) => t.role === 'supply.vcc');
  return supplies.find((t) => !t.volts) ?? supplies[0];
}

/** The rail that feeds a part: that of the supply terminal that its signals follow. */
export function feedRail(plan: Plan, sheets: Sheets, id: string): string | undefined {
  const [first] = terminalsOf(plan, { id }, sheets);
  const supply = first && logicSupply(first.part);
  return supply && findNets(plan, sheets).byTerminal.get(terminalKey(id, supply.id))?.rails[0];
}
