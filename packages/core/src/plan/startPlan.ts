import { getOrThrow } from '../collections/orThrow';
import type { BoardSheet } from '../sheets/boardSheet';
import type { Sheets } from '../sheets/sheetIndex';
import { defaultColour } from './edits/wire';
import type { Soldered } from './edit';
import { newPlacement } from './newPlacement';
import { newPlan, type Plan, terminalKey, type Wire } from './plan';

/** The parts that a board carries, as they come into a plan: their wires are there and locked.
 *  @param plan whose ids and names they must not repeat
 *  @throws Error when a part that the board carries is not among the sheets */
export function solderedParts(plan: Plan, board: BoardSheet, sheets: Sheets): readonly Soldered[] {
  const all: Soldered[] = [];
  let now = plan;
  for (const soldered of board.onBoard.parts ?? []) {
    const part = sheets.parts.get(soldered.part);
    if (!part) throw new Error(`No part sheet ${soldered.part}, which ${board.id} carries`);
    const placement = { ...newPlacement(now, part.sheet), name: soldered.name, onBoard: true as const };
    const wires = Object.entries(soldered.wires).map(([terminal, end]): [string, Wire] => [
      terminal,
      { end, colour: defaultColour(getOrThrow(part.terminals, terminal), end), locked: true },
    ]);
    all.push({ at: all.length, placement, wires: Object.fromEntries(wires) });
    now = { ...now, placements: [...now.placements, placement] };
  }
  return all;
}

/** A new plan on a board, with the parts that are soldered to it.
 *  @throws Error when the board, or a part that it carries, is not among the sheets */
export function startPlan(id: string, name: string, boardId: string, sheets: Sheets): Plan {
  const board = sheets.boards.get(boardId)?.sheet;
  if (!board) throw new Error(`No board sheet ${boardId}`);
  const bare = newPlan(id, name, { id: board.id, version: board.version });
  const soldered = solderedParts(bare, board, sheets);
  const wires = soldered.flatMap(({ placement, wires: own }) =>
    Object.entries(own).map(([terminal, wire]) => [terminalKey(placement.id, terminal), wire] as const),
  );
  return { ...bare, placements: soldered.map((s) => s.placement), wires: Object.fromEntries(wires) };
}
