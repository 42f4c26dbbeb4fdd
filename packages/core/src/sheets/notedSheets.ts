import { type BenchNotes, noted, notesOn } from './benchNote';
import { indexOne, type IndexedBoard, type IndexedPart, type Sheets } from './sheetIndex';

/** The sheets without any notes, by the sheets that have them. */
const bare = new WeakMap<Sheets, { readonly sheets: Sheets; readonly notes: BenchNotes }>();
const made = new WeakMap<BenchNotes, WeakMap<Sheets, Sheets>>();

function make(sheets: Sheets, notes: BenchNotes): Sheets {
  const changed = new Set(Object.values(notes).map((note) => note.sheet));
  const change = <T extends IndexedBoard | IndexedPart>(indexed: T): T =>
    changed.has(indexed.sheet.id) ? (indexOne(noted(indexed.sheet, notesOn(notes, indexed.sheet.id))) as T) : indexed;
  const versions = new Map([...sheets.versions].map(([key, indexed]) => [key, change(indexed)]));
  const newest = <T extends IndexedBoard | IndexedPart>(map: ReadonlyMap<string, T>) =>
    new Map([...map].map(([id, indexed]) => [id, versions.get(`${id}@${indexed.sheet.version}`) as T]));
  return { boards: newest(sheets.boards), parts: newest(sheets.parts), versions };
}

/** The sheets with the bench notes of a plan applied. Without notes the same object, and memoised for the same notes, because every edit
 *  needs it. Sheets with other notes are reset first. */
export function notedSheets(sheets: Sheets, notes: BenchNotes): Sheets {
  const before = bare.get(sheets);
  if (before?.notes === notes) return sheets;
  const from = before?.sheets ?? sheets;
  if (Object.keys(notes).length === 0) return from;
  let known = made.get(notes);
  if (!known) made.set(notes, (known = new WeakMap()));
  let result = known.get(from);
  if (!result) {
    result = make(from, notes);
    known.set(from, result);
    bare.set(result, { sheets: from, notes });
  }
  return result;
}

/** The sheets as they were kept, before any bench note. */
export function bareSheets(sheets: Sheets): Sheets {
  return bare.get(sheets)?.sheets ?? sheets;
}
