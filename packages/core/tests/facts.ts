import type { BoardSheet } from '../src/sheets/boardSheet';
import type { PartSheet } from '../src/sheets/partSheet';
import { indexSheets, type Sheets } from '../src/sheets/sheetIndex';

const listed = (sheets: Sheets) => [...sheets.boards.values(), ...sheets.parts.values()].map(({ sheet }) => sheet);

/** The sheets with facts of one board replaced. */
export const withBoard = (sheets: Sheets, id: string, change: (sheet: BoardSheet) => BoardSheet): Sheets =>
  indexSheets(listed(sheets).map((sheet) => (sheet.kind === 'board' && sheet.id === id ? change(sheet) : sheet)));

/** The sheets with facts of one part replaced. */
export const withPart = (sheets: Sheets, id: string, change: (sheet: PartSheet) => PartSheet): Sheets =>
  indexSheets(listed(sheets).map((sheet) => (sheet.kind === 'part' && sheet.id === id ? change(sheet) : sheet)));

/** The sheets with facts of one rail of a board replaced. */
export const withRail = (sheets: Sheets, board: string, rail: string, facts: Partial<BoardSheet['rails']['list'][number]>): Sheets =>
  withBoard(sheets, board, (sheet) => ({
    ...sheet,
    rails: { ...sheet.rails, list: sheet.rails.list.map((one) => (one.id === rail ? { ...one, ...facts } : one)) },
  }));
