import { endTerminal, outputOfRail, withPartRails } from '../planRails';
import type { IndexedPart, SheetRef, Sheets } from '../../sheets/sheetIndex';
import { boardEndProblem } from './wire';
import { type Edit, type EditResult, type EditRule, placementIndex, refuse } from '../edit';
import { type Plan, splitKey } from '../plan';

const wanted = (ref: SheetRef, version: number): SheetRef => ({ id: ref.id, version });

function takeBoard(plan: Plan, version: number, sheets: Sheets): EditResult {
  const board = wanted(plan.board, version);
  const found = sheets.versions.get(`${board.id}@${version}`);
  if (!found || !('pins' in found)) return refuse('version', `an available version of ${board.id}`, String(version));
  for (const [key, { end }] of Object.entries(plan.wires)) {
    const problem = boardEndProblem(end, withPartRails(found, plan, sheets));
    if (problem) return refuse('version', `a version that still has the end of ${key}`, problem.got);
  }
  return { ok: true, plan: { ...plan, board }, inverse: [{ kind: 'take-sheet', placement: null, version: plan.board.version }] };
}

/** A terminal of the placement that is wired and that the version does not have. */
function lostTerminal(plan: Plan, placement: string, part: IndexedPart): string | undefined {
  const own = Object.keys(plan.wires).map(splitKey);
  const into = Object.values(plan.wires).flatMap(({ end }) => endTerminal(end) ?? []);
  const rails = Object.values(plan.wires).flatMap(({ end }) => (end.to === 'rail' ? (outputOfRail(end.rail) ?? []) : []));
  return (
    [...own, ...into].find((t) => t.placement === placement && !part.terminals.has(t.terminal)) ??
    rails.find((t) => t.placement === placement && !part.sheet.supplies?.list.some(({ output }) => output === t.terminal))
  )?.terminal;
}

/** Changes the sheet version of a part or the board. Refused if wires would lose their ends. */
export const takeSheet: EditRule<'take-sheet'> = {
  apply(plan, edit, sheets) {
    if (edit.placement === null) return takeBoard(plan, edit.version, sheets);
    const at = placementIndex(plan, edit.placement);
    const placement = plan.placements[at];
    if (!placement) return refuse('placement', 'a part of this plan', edit.placement);
    const sheet = wanted(placement.sheet, edit.version);
    const found = sheets.versions.get(`${sheet.id}@${sheet.version}`);
    if (!found || !('terminals' in found)) return refuse('version', `an available version of ${sheet.id}`, String(edit.version));
    const lost = lostTerminal(plan, placement.id, found);
    if (lost) return refuse('version', `a version that still has the wired terminal ${lost}`, String(edit.version));
    for (const [strap, state] of Object.entries(placement.straps))
      if (!found.sheet.bus.straps?.find((s) => s.id === strap)?.states.some((s) => s.id === state))
        return refuse('version', `a version that still has strap ${strap} in state ${state}`, String(edit.version));
    const inverse: Edit = { ...edit, version: placement.sheet.version };
    return { ok: true, plan: { ...plan, placements: plan.placements.with(at, { ...placement, sheet }) }, inverse: [inverse] };
  },
};
