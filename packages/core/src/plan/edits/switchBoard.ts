import { endPlacement, withPartRails } from '../planRails';
import { solderedIn } from '../soldered';
import { segmentPlacement } from './busSettings';
import { boardEndProblem } from './wire';
import { type Edit, type EditResult, type EditRule, refuse, type Soldered } from '../edit';
import { type Placement, splitKey, terminalKey } from '../plan';
import { mapEntries, mapsKept } from '../planMaps';
import type { IndexedBoard, Sheets } from '../../sheets/sheetIndex';
import { partSheet } from '../../sheets/sheetIndex';

/** The first thing about the soldered parts that the new board or its sheets do not have. */
function solderedProblem(
  soldered: readonly Soldered[],
  kept: readonly Placement[],
  board: IndexedBoard,
  sheets: Sheets,
): EditResult | null {
  const taken = new Set(kept.map((p) => p.id));
  for (const [n, { placement, wires }] of soldered.entries()) {
    const path = `soldered/${n}`;
    if (taken.has(placement.id)) return refuse(`${path}/placement/id`, 'an unused ID', placement.id);
    taken.add(placement.id);
    const part = partSheet(sheets, placement.sheet);
    if (!part) return refuse(`${path}/placement/sheet`, 'a known part sheet', placement.sheet.id);
    for (const [terminal, { end }] of Object.entries(wires)) {
      if (!part.terminals.has(terminal)) return refuse(`${path}/wires/${terminal}`, 'a terminal of the part', terminal);
      const pin = end.to === 'pin' ? board.pins.get(end.pin) : undefined;
      // Soldered ends may be conductors that no header brings out; they only must be there.
      if (end.to === 'pin' && !pin) return refuse(`${path}/wires/${terminal}`, `a pin of ${board.sheet.title}`, end.pin);
      const problem = end.to === 'rail' ? boardEndProblem(end, board) : null;
      if (problem) return refuse(`${path}/wires/${terminal}`, problem.expected, problem.got);
    }
  }
  return null;
}

/** Changes the board of the plan, with its soldered parts. Refused if a wire would lose its end. */
export const switchBoard: EditRule<'switch-board'> = {
  apply(plan, edit, sheets) {
    const board = sheets.versions.get(`${edit.board.id}@${edit.board.version}`);
    if (!board || !('pins' in board)) return refuse('board', 'an available board sheet', `${edit.board.id}, version ${edit.board.version}`);
    const gone = new Set(plan.placements.filter((p) => p.onBoard).map((p) => p.id));
    const kept = plan.placements.filter((p) => !gone.has(p.id));
    const wires = Object.entries(plan.wires).filter(([key]) => !gone.has(splitKey(key).placement));
    for (const [key, { end }] of wires) {
      if (gone.has(endPlacement(end) ?? '')) return refuse('board', `no wire to what is soldered to the board`, key);
      const problem = boardEndProblem(end, withPartRails(board, plan, sheets));
      if (problem) return refuse('board', `a board that has the end of ${key}`, problem.got);
    }
    const problem = solderedProblem(edit.soldered, kept, board, sheets);
    if (problem) return problem;
    const placements = [...kept];
    for (const { at, placement } of edit.soldered.toSorted((a, b) => a.at - b.at)) placements.splice(at, 0, placement);
    const brought = edit.soldered.flatMap(({ placement, wires: own }) =>
      Object.entries(own).map(([terminal, wire]) => [terminalKey(placement.id, terminal), wire] as const),
    );
    const ticks = Object.entries(plan.ticks);
    const lost = ticks.filter(([key]) => gone.has(splitKey(key).placement));
    const kindOf = (id: string) => board.pins.get(id)?.kind;
    const wishes = Object.entries(plan.wishes);
    const stays = ([key, wish]: (typeof wishes)[number]) =>
      !gone.has(splitKey(key).placement) &&
      [...(wish.pin === undefined ? [] : [wish.pin]), ...(wish.not ?? [])].every((id) => kindOf(id) === 'io') &&
      (wish.controller === undefined || board.controllers.has(wish.controller));
    // A controller of that name is another one there, with other wires on it.
    const settings = Object.entries(plan.busSettings);
    const stands = ([segment]: (typeof settings)[number]) =>
      kept.some((p) => p.id === segmentPlacement(segment)) || (edit.board.id === plan.board.id && board.controllers.has(segment));
    const names = Object.entries(plan.references);
    const isNamed = ([component]: (typeof names)[number]) => stands([splitKey(component).placement, {}]);
    const back: readonly Edit[] = [
      { kind: 'switch-board', board: plan.board, soldered: solderedIn(plan) },
      ...lost.map(([key, end]): Edit => ({ kind: 'tick', ...splitKey(key), end })),
      ...wishes.filter((w) => !stays(w)).map(([key, wish]): Edit => ({ kind: 'wish', ...splitKey(key), wish })),
      ...settings.filter((s) => !stands(s)).map(([segment, own]): Edit => ({ kind: 'bus-settings', segment, settings: own })),
      ...mapEntries(plan)
        .filter((entry) => entry.field !== 'wishes' && entry.field !== 'references' && gone.has(entry.owner))
        .map((entry) => entry.set),
      ...names.filter((n) => !isNamed(n)).map(([component, name]): Edit => ({ kind: 'reference', component, name })),
    ];
    return {
      ok: true,
      plan: {
        ...plan,
        board: { id: edit.board.id, version: edit.board.version },
        placements,
        wires: Object.fromEntries([...wires, ...brought]),
        ticks: Object.fromEntries(ticks.filter(([key]) => !gone.has(splitKey(key).placement))),
        busSettings: Object.fromEntries(settings.filter(stands)),
        ...mapsKept(plan, (owner) => !gone.has(owner)),
        wishes: Object.fromEntries(wishes.filter(stays)),
        references: Object.fromEntries(names.filter(isNamed)),
      },
      inverse: back,
    };
  },
};
