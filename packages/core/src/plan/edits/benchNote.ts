import { dequal } from 'dequal';
import { firstOrThrow } from '../../collections/orThrow';
import { type BenchNote, noteKey, notesOn, overlaid } from '../../sheets/benchNote';
import { factAt } from '../../sheets/factPath';
import { bareSheets } from '../../sheets/notedSheets';
import { readSheet } from '../../sheets/readSheet';
import { boardSheet, partSheet, type Sheets } from '../../sheets/sheetIndex';
import { type EditResult, type EditRule, refuse } from '../edit';
import { type Plan, PLAN_LIMITS } from '../plan';

/** Identity of a sheet: not a fact that can be measured. */
const NOT_FACTS = /^(kind|schema|id|version)$|(^|\/)(id|source)(\/|$)/;

/** The versions of a sheet that the plan uses, otherwise the newest: a note survives the removal of its part, and must be valid in a
 *  plan rebuilt from differences. */
function sheetsOf(plan: Plan, sheets: Sheets, id: string) {
  const refs = [plan.board, ...plan.placements.map((p) => p.sheet)].filter((ref) => ref.id === id);
  const used = refs.flatMap((ref) => (boardSheet(sheets, ref) ?? partSheet(sheets, ref))?.sheet ?? []);
  const newest = sheets.boards.get(id)?.sheet ?? sheets.parts.get(id)?.sheet;
  return used.length === 0 && newest ? [newest] : used;
}

/** Why the sheets of the plan cannot carry the note; undefined where they can. */
function problem(plan: Plan, sheets: Sheets, note: BenchNote): EditResult | undefined {
  const used = sheetsOf(plan, sheets, note.sheet);
  if (used.length === 0) return refuse('sheet', 'a known sheet', note.sheet);
  if (NOT_FACTS.test(note.fact)) return refuse('fact', 'a fact other than the sheet’s ID', note.fact);
  const others = notesOn(plan.benchNotes, note.sheet).filter((other) => other.fact !== note.fact);
  for (const sheet of used) {
    const known = factAt(sheet, note.fact);
    if (note.value === undefined && known === undefined) return refuse('fact', 'a fact of the sheet', note.fact);
    const measured = overlaid(sheet, [...others, note]);
    if (note.value !== undefined && !dequal(factAt(measured, note.fact), note.value))
      return refuse('fact', 'a fact of the sheet', note.fact);
    const read = readSheet(measured);
    if (!read.ok)
      return refuse(
        'note.value',
        `a value for which the sheet is valid (${firstOrThrow(read.faults).path}: ${firstOrThrow(read.faults).fault})`,
        String(note.value),
      );
  }
  return undefined;
}

/** Sets a bench note, or removes it (`null`). */
export const benchNote: EditRule<'bench-note'> = {
  apply(plan, edit, sheets) {
    const key = noteKey(edit.sheet, edit.fact);
    const { [key]: before, ...others } = plan.benchNotes;
    const inverse = [{ ...edit, note: before ? withoutName(before) : null }];
    if (edit.note === null) {
      if (!before) return refuse('fact', 'a fact with a bench note', key);
      return { ok: true, plan: { ...plan, benchNotes: others }, inverse };
    }
    if (!before && Object.keys(others).length >= PLAN_LIMITS.benchNotes)
      return refuse('fact', `at most ${PLAN_LIMITS.benchNotes} bench notes`, 'one more');
    const note: BenchNote = { sheet: edit.sheet, fact: edit.fact, ...edit.note };
    return problem(plan, bareSheets(sheets), note) ?? { ok: true, plan: { ...plan, benchNotes: { ...others, [key]: note } }, inverse };
  },
};

function withoutName({ value, words, date }: BenchNote): Omit<BenchNote, 'sheet' | 'fact'> {
  return value === undefined ? { words, date } : { value, words, date };
}
