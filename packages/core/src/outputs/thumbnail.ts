import type { Sheets } from '../sheets/sheetIndex';
import { findNets } from '../nets/nets';
import { boardOf } from '../plan/edit';
import type { Plan } from '../plan/plan';

/** A chart small enough for a list: for each part the columns of its wires, and the columns with a conflict. */
export interface Thumbnail {
  readonly columns: number;
  readonly rows: readonly (readonly number[])[];
  readonly clashes: readonly number[];
}

/** The thumbnail of a plan; empty where its board's sheet is gone. Columns count the board's signal pins. */
export function thumbnail(plan: Plan, sheets: Sheets): Thumbnail {
  const board = boardOf(plan, sheets);
  if (!board) return { columns: 0, rows: [], clashes: [] };
  const column = new Map(board.ioPins.map((pin, at) => [pin.id, at]));
  const nets = findNets(plan, sheets);
  const rows = plan.placements.map((placement) => {
    const own = Object.entries(plan.wires).filter(([key]) => key.startsWith(`${placement.id}:`));
    const at = own.flatMap(([, { end }]) => (end.to === 'pin' ? [column.get(end.pin) ?? -1] : []));
    return [...new Set(at.filter((n) => n >= 0))].sort((a, b) => a - b);
  });
  const clashes = nets.list.filter((net) => net.signals.length > 1).flatMap((net) => net.pins.map((pin) => column.get(pin) ?? -1));
  return { columns: board.ioPins.length, rows, clashes: clashes.filter((n) => n >= 0) };
}
