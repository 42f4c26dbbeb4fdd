import { getOrThrow } from '../collections/orThrow';
import { point, type Range, typical } from '../quantity/range';
import { memoizeByObject } from '../memo/memoizeByObject';
import type { Rail } from './boardSheet';
import type { Condition } from './condition';
import type { IndexedBoard, IndexedPart, Sheets } from './sheetIndex';

/** Voltage of a rail under a condition, in volts.
 *  @example voltsUnder(usb, 'usual') // { min: 4.75, typ: 5, max: 5.25 } */
export function voltsUnder(rail: Rail, condition: Condition): Range {
  const typ = typical(rail.volts);
  if (condition === 'nominal') return { ...point(typ), typ };
  return condition === 'usual' && rail.usual ? { typ, ...rail.usual } : rail.volts;
}

function boardUnder(board: IndexedBoard, condition: Condition): IndexedBoard {
  const { rails } = board.sheet;
  const list = rails.list.map((rail) => ({ ...rail, volts: voltsUnder(rail, condition) }));
  return { ...board, sheet: { ...board.sheet, rails: { ...rails, list } } };
}

function narrowed(sheets: Sheets, condition: Condition): Sheets {
  const boards = new Map([...sheets.boards].map(([id, board]) => [id, boardUnder(board, condition)]));
  const versions = new Map(
    [...sheets.versions].map(([key, sheet]): [string, IndexedBoard | IndexedPart] => [
      key,
      'pins' in sheet
        ? sheet === sheets.boards.get(sheet.sheet.id)
          ? getOrThrow(boards, sheet.sheet.id)
          : boardUnder(sheet, condition)
        : sheet,
    ]),
  );
  return { ...sheets, boards, versions, condition };
}

const NARROWED = {
  nominal: memoizeByObject((sheets: Sheets) => narrowed(sheets, 'nominal')),
  usual: memoizeByObject((sheets: Sheets) => narrowed(sheets, 'usual')),
  extreme: (sheets: Sheets): Sheets => sheets,
} as const;

/** The sheets with the rails of every board as they are under a condition: what is worked out with them holds under it. */
export const sheetsUnder = (sheets: Sheets, condition: Condition): Sheets => NARROWED[condition](sheets);
