import type { Rail } from '../sheets/boardSheet';
import { voltsUnder } from '../sheets/conditions';
import { type IndexedBoard, partSheet, type Sheets } from '../sheets/sheetIndex';
import { type Plan, splitKey, type TerminalKey, terminalKey, type WireEnd } from './plan';

/** The terminal of a part that gives a rail; undefined for a rail of the board. A rail that a part gives has the key of that terminal as
 *  its id, which no rail of a board can have. */
export const outputOfRail = (rail: string): { readonly placement: string; readonly terminal: string } | undefined =>
  rail.includes(':') ? splitKey(rail) : undefined;

/** The terminal of a part that a wire ends at, that of a rail which a part gives too. */
export function endTerminal(end: WireEnd): { readonly placement: string; readonly terminal: string } | undefined {
  if (end.to === 'terminal') return end;
  return end.to === 'rail' ? outputOfRail(end.rail) : undefined;
}

/** The part that a wire ends at: at a terminal of it, or at a rail that it gives. */
export const endPlacement = (end: WireEnd): string | undefined => endTerminal(end)?.placement;

/** The rail that a terminal is fed from by its own wire. */
function fedFrom(plan: Plan, key: TerminalKey): string | undefined {
  const end = plan.wires[key]?.end;
  if (end?.to === 'rail') return end.rail;
  return end?.to === 'terminal' ? terminalKey(end.placement, end.terminal) : undefined;
}

/** The rails that parts of a plan give, in the order of the parts. */
function railsOfParts(plan: Plan, sheets: Sheets): readonly Rail[] {
  return plan.placements.flatMap((placement): Rail[] => {
    const part = partSheet(sheets, placement.sheet);
    if (!part?.sheet.supplies) return [];
    return part.sheet.supplies.list.map(({ output, volts, maxMilliamps, regulator }): Rail => {
      const { from, ...how } = regulator ?? {};
      const input = from === undefined ? undefined : fedFrom(plan, terminalKey(placement.id, from));
      const rail: Rail = {
        id: terminalKey(placement.id, output),
        label: `${placement.name} ${part.terminals.get(output)?.label ?? output}`,
        terminal: part.terminals.get(output)?.label ?? output,
        volts,
        budgetMilliamps: maxMilliamps,
        feed: part.sheet.title,
        ...(input === undefined ? {} : { regulator: { ...how, from: input } }),
        direction: 'out',
      };
      return sheets.condition ? { ...rail, volts: voltsUnder(rail, sheets.condition) } : rail;
    });
  });
}

/** Boards with the rails of parts, by what those are: plans with the same ones share one. */
const extended = new WeakMap<IndexedBoard, Map<string, IndexedBoard>>();
/** Names are typed letter by letter; what was there before is not needed again. */
const KEPT = 16;

function withRails(board: IndexedBoard, more: readonly Rail[]): IndexedBoard {
  const known = extended.get(board) ?? new Map<string, IndexedBoard>();
  extended.set(board, known);
  const key = JSON.stringify(more);
  const found = known.get(key);
  if (found) return found;
  const { rails } = board.sheet;
  const made = { ...board, sheet: { ...board.sheet, rails: { ...rails, list: [...rails.list, ...more] } } };
  if (known.size >= KEPT) known.clear();
  known.set(key, made);
  return made;
}

/** What was found for a plan last, by its sheets: this is looked up for every wire. */
const latest = new WeakMap<Plan, { readonly sheets: Sheets; readonly board: IndexedBoard; readonly made: IndexedBoard }>();

/** A board with the rails that the parts of a plan give beside its own. */
export function withPartRails(board: IndexedBoard, plan: Plan, sheets: Sheets): IndexedBoard {
  const known = latest.get(plan);
  if (known?.sheets === sheets && known.board === board) return known.made;
  const more = railsOfParts(plan, sheets);
  const made = more.length > 0 ? withRails(board, more) : board;
  latest.set(plan, { sheets, board, made });
  return made;
}
