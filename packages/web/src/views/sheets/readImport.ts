import { firstOrThrow } from '@roof-chart/core/collections/orThrow';
import type { BoardSheet } from '@roof-chart/core/sheets/boardSheet';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import { readSheet } from '@roof-chart/core/sheets/readSheet';
import { syntaxFault } from './jsonPlace';

export type Import =
  { readonly ok: true; readonly sheets: readonly (BoardSheet | PartSheet)[] } | { readonly ok: false; readonly words: string };

const LETTERS = 5_000_000;

/** A file as sheets: one sheet, or a bundle `{ "sheets": [...] }`; all of it, or why not, with the place. */
export function readImport(text: string, name: string): Import {
  if (text.length > LETTERS) return { ok: false, words: `${name} is larger than 5 MB. Nothing was imported.` };
  const syntax = syntaxFault(text);
  if (syntax) return { ok: false, words: `${name}, line ${syntax.place.line}: ${syntax.fault}. Nothing was imported.` };
  const document_ = JSON.parse(text) as { sheets?: unknown } | null;
  const list = Array.isArray(document_?.sheets) ? (document_.sheets as unknown[]) : [document_];
  if (list.length === 0 || list.length > 50)
    return { ok: false, words: `${name} has ${list.length} sheets: 1 to 50 can be imported at once. Nothing was imported.` };
  const sheets: (BoardSheet | PartSheet)[] = [];
  for (const [at, one] of list.entries()) {
    const result = readSheet(one);
    if (!result.ok) {
      const { path, fault } = firstOrThrow(result.faults);
      const which = list.length > 1 ? `, sheet ${at + 1}` : '';
      const more = result.faults.length > 1 ? ` and ${result.faults.length - 1} more faults` : '';
      return { ok: false, words: `${name}${which}: ${path}: ${fault}${more}. Nothing was imported.` };
    }
    sheets.push(result.sheet);
  }
  return { ok: true, sheets };
}
