import type { Plan } from '../plan/plan';
import type { Sheets } from '../sheets/sheetIndex';
import { findNets } from './nets';
import { terminalsOf } from './terminals';

/** The rail that feeds a part: that of its first supply terminal. */
export function feedRail(plan: Plan, sheets: Sheets, id: string): string | undefined {
  const supply = terminalsOf(plan, { id }, sheets).find((t) => t.terminal.role === 'supply.vcc');
  return supply && findNets(plan, sheets).byTerminal.get(supply.key)?.rails[0];
}
