import type { Sheets } from '../sheets/sheetIndex';
import { defaultColour } from './edits/wire';
import { newPlacement } from './newPlacement';
import { newPlan, type Placement, type Plan, terminalKey, type Wire } from './plan';

/** A new plan on a board, with the parts that are soldered to it: their wires are there and locked.
 *  @throws Error when the board, or a part that it carries, is not among the sheets */
export function startPlan(id: string, name: string, boardId: string, sheets: Sheets): Plan {
  const board = sheets.boards.get(boardId)?.sheet;
  if (!board) throw new Error(`No board sheet ${boardId}`);
  let plan = newPlan(id, name, { id: board.id, version: board.version });
  for (const soldered of board.onBoard.parts ?? []) {
    const part = sheets.parts.get(soldered.part);
    if (!part) throw new Error(`No part sheet ${soldered.part}, which ${board.id} carries`);
    const placement: Placement = { ...newPlacement(plan, part.sheet), name: soldered.name, onBoard: true };
    const wires = Object.entries(soldered.wires).map(([terminal, end]): [string, Wire] => [
      terminalKey(placement.id, terminal),
      { end, colour: defaultColour(part.terminals.get(terminal)!, end), locked: true },
    ]);
    plan = { ...plan, placements: [...plan.placements, placement], wires: { ...plan.wires, ...Object.fromEntries(wires) } };
  }
  return plan;
}
