import { dequal } from 'dequal';
import { isOfBoard } from '../plan/ofPart';
import { orThrow } from '../collections/orThrow';
import { endPlacement } from '../plan/planRails';
import { type IndexedBoard, type Sheets } from '../sheets/sheetIndex';
import { applyEdits } from '../plan/applyEdits';
import { boardEndProblem } from '../plan/edits/wire';
import { boardOf, type Edit } from '../plan/edit';
import { type Plan, splitKey, type TerminalKey, type WireEnd } from '../plan/plan';
import { solderedParts } from '../plan/startPlan';
import { assignPins, type PinAssignment, type AssignOptions } from './assignPins';

/** A plan moved to another board with its pins assigned there. */
export interface OntoBoard {
  /** One batch: what must come off, the board, and the wires there. */
  readonly edits: readonly Edit[];
  readonly plan: Plan;
  readonly settlement: PinAssignment;
  /** Wires that end where they did. */
  readonly kept: number;
  /** Locked wires whose place the other board does not have. */
  readonly lostLocks: readonly TerminalKey[];
  /** Parts soldered to the present board, which stay with it. */
  readonly left: readonly string[];
}

/** Whether a wire end means the same on both boards: ground and other parts always, a rail of one name and voltage, a pin
 *  of one chip. On another chip a pin of that name is another pin. */
function means(end: WireEnd, from: IndexedBoard | undefined, to: IndexedBoard): boolean {
  if (boardEndProblem(end, to)) return false;
  if (end.to === 'pin') return from?.sheet.chip === to.sheet.chip;
  if (end.to !== 'rail') return true;
  const volts = (board: IndexedBoard | undefined) => board?.sheet.rails.list.find((r) => r.id === end.rail)?.volts;
  const [here, there] = [volts(from), volts(to)];
  return here !== undefined && there !== undefined && here.min <= there.max && there.min <= here.max;
}

/** Bench results; they belong to the previous board and are dropped. */
const ON_THE_BENCH = /^(sure|light|found|wire):/;

/** The plan's parts on another board: names, jumpers, colours and possible wires are kept, the rest is assigned anew. Undefined if the
 *  board is not among the sheets. */
export function ontoBoard(plan: Plan, sheets: Sheets, boardId: string, options: AssignOptions = {}): OntoBoard | undefined {
  const to = sheets.boards.get(boardId);
  if (!to) return undefined;
  const from = boardOf(plan, sheets);
  const soldered = new Set(plan.placements.filter((p) => p.onBoard).map((p) => p.id));
  const own = Object.entries(plan.wires).filter(([key]) => !soldered.has(splitKey(key).placement));
  const stays = ({ end }: { readonly end: WireEnd }) => {
    const other = endPlacement(end);
    return other === undefined ? means(end, from, to) : !soldered.has(other);
  };
  const gone = own.filter(([, wire]) => !stays(wire));
  // What was wired on one board is not wired on the other yet.
  const ticks = Object.keys(plan.ticks).filter((key) => !soldered.has(splitKey(key).placement));
  const noted = Object.keys(plan.wireNotes).filter((key) => !soldered.has(splitKey(key).placement));
  const off = [
    ...ticks.map((key): Edit => ({ kind: 'tick', ...splitKey(key), end: null })),
    ...noted.map((key): Edit => ({ kind: 'wire-note', ...splitKey(key), note: null })),
    ...Object.keys(plan.steps)
      .filter((step) => ON_THE_BENCH.test(step))
      .map((step): Edit => ({ kind: 'step', step, done: null })),
    // What was accepted of pins, levels and rails was accepted on the board before.
    ...(plan.board.id === boardId ? [] : Object.keys(plan.accepted).filter(isOfBoard)).map((finding): Edit => ({
      kind: 'accept',
      finding,
      reason: null,
    })),
    ...gone.flatMap(([key, { locked }]): Edit[] => [
      ...(locked ? [{ kind: 'lock' as const, ...splitKey(key), locked: false }] : []),
      { kind: 'unwire', ...splitKey(key) },
    ]),
  ];
  const bare: Plan = { ...plan, placements: plan.placements.filter((p) => !p.onBoard) };
  const move: Edit = {
    kind: 'switch-board',
    board: { id: to.sheet.id, version: to.sheet.version },
    soldered: solderedParts(bare, to.sheet, sheets),
  };
  const moved = applyEdits(plan, [...off, move], sheets);
  if (!moved.ok) throw new Error(`A change of board does not apply: ${JSON.stringify(moved.problem)}`);
  const settlement = orThrow(assignPins(moved.plan, sheets, options), 'board sheet');
  return {
    edits: [...off, move, ...settlement.edits],
    plan: settlement.plan,
    settlement,
    kept: own.filter(([key, { end }]) => dequal(settlement.plan.wires[key]?.end, end)).length,
    lostLocks: gone.filter(([, { locked }]) => locked).map(([key]) => key),
    left: [...soldered],
  };
}
