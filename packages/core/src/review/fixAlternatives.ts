import { findOrThrow } from '../collections/orThrow';
import { assignPins, type AssignOptions } from '../assign/assignPins';
import { isAboutFacts, type Finding } from '../checks/engine/check';
import { findNets } from '../nets/nets';
import { applyEdits } from '../plan/applyEdits';
import { boardOf, type Edit, partOf } from '../plan/edit';
import { type Plan, splitKey } from '../plan/plan';
import { swapPart } from '../plan/swapPart';
import { notedSheets } from '../sheets/notedSheets';
import type { Sheets } from '../sheets/sheetIndex';
import { boardFit, compareFits } from './boardFit';
import { planFindingsOf } from './review';
import { formsOf } from './variants';

/** A larger change that a finding goes away with, where no single fix does: other pins for everything, another form of a part, or another
 *  board. */
export type FixAlternative =
  | { readonly kind: 'assign'; readonly edits: readonly Edit[] }
  | { readonly kind: 'form'; readonly edits: readonly Edit[]; readonly placement: string; readonly form: string }
  | { readonly kind: 'board'; readonly edits: readonly Edit[]; readonly board: string };

/** More of a kind would hide the others. */
const MOST = 3;

const isGrave = (finding: Finding): boolean => finding.level !== 'hint' && finding.accepted === undefined && !isAboutFacts(finding);

/** The parts that a finding is about: those it names, those at the pins it names, and those fed from the rails it names. */
function concerned(plan: Plan, sheets: Sheets, { place }: Finding): readonly string[] {
  const nets = findNets(plan, sheets);
  const atPins = (place.pins ?? []).flatMap((pin) => nets.byPin.get(pin)?.terminals.map((t) => t.placement.id) ?? []);
  const atRails = (place.rails ?? []).flatMap((rail) =>
    Object.entries(plan.wires).flatMap(([key, { end }]) => (end.to === 'rail' && end.rail === rail ? [splitKey(key).placement] : [])),
  );
  return [
    ...new Set([...(place.placements ?? []), ...(place.terminals ?? []).map((key) => splitKey(key).placement), ...atPins, ...atRails]),
  ].filter((id) => plan.placements.some((p) => p.id === id));
}

/** Whether a plan is rid of a finding, with fewer errors and warnings than before and none of the same kind about the same parts. */
function isRid(plan: Plan, after: Plan, sheets: Sheets, finding: Finding): boolean {
  const parts = concerned(plan, sheets, finding);
  const before = planFindingsOf(plan, sheets).filter(isGrave);
  const left = planFindingsOf(after, sheets).filter(isGrave);
  const same = left.some((one) => one.code === finding.code && concerned(after, sheets, one).some((id) => parts.includes(id)));
  const clashes = (list: readonly Finding[]) => list.filter((one) => one.level === 'clash').length;
  return !same && left.length < before.length && clashes(left) <= clashes(before);
}

function settled(plan: Plan, first: readonly Edit[], sheets: Sheets, options: AssignOptions): readonly Edit[] {
  const started = applyEdits(plan, first, sheets);
  const found = started.ok ? assignPins(started.plan, sheets, options) : undefined;
  return found ? [...first, ...found.edits] : [];
}

/** The larger changes that rid a plan of a finding, each tried: pins assigned anew, then other forms of the parts concerned, then other boards,
 *  the best first. Empty where none of them does.
 *  @param options limits of each single search */
export function fixAlternatives(plan: Plan, kept: Sheets, finding: Finding, options: AssignOptions = {}): readonly FixAlternative[] {
  const sheets = notedSheets(kept, plan.benchNotes);
  const board = boardOf(plan, sheets);
  if (!board) return [];
  const parts = concerned(plan, sheets, finding);
  const rids = (edits: readonly Edit[]) => {
    const result = edits.length > 0 ? applyEdits(plan, edits, sheets) : undefined;
    return result?.ok === true && isRid(plan, result.plan, sheets, finding);
  };
  const anew = settled(plan, [], sheets, options);
  const assigned: readonly FixAlternative[] = rids(anew) ? [{ kind: 'assign', edits: anew }] : [];
  const forms = parts.flatMap((id): FixAlternative[] => {
    const placement = findOrThrow(plan.placements, (p) => p.id === id);
    const from = partOf(plan, id, sheets)?.sheet;
    if (!from || placement.onBoard || options.stop?.()) return [];
    return formsOf(sheets, from)
      .slice(1)
      .flatMap((form): FixAlternative[] => {
        const edits = settled(plan, swapPart(plan, placement, from, form), sheets, { ...options, only: id });
        return rids(edits) ? [{ kind: 'form', edits, placement: id, form: form.id }] : [];
      })
      .slice(0, MOST);
  });
  const fits = [...sheets.boards.keys()].flatMap((id) => {
    const fit = id === board.sheet.id || options.stop?.() ? undefined : boardFit(plan, sheets, id, options);
    return fit && fit.verdict === 'fits' && isRid(plan, fit.plan, sheets, finding) ? [fit] : [];
  });
  const boards = fits
    .toSorted(compareFits)
    .slice(0, MOST)
    .map((fit): FixAlternative => ({ kind: 'board', edits: fit.edits, board: fit.board }));
  return [...assigned, ...forms, ...boards];
}
