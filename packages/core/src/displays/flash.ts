import { boardOf } from '../plan/edit';
import type { Placement, Plan } from '../plan/plan';
import { partSheet, type Sheets } from '../sheets/sheetIndex';
import { LETTER } from './layout';
import { segmentTable } from './segmentTable';

/** Flash used by the fonts, pictures and tables of a display. */
export interface FlashLine {
  readonly placement: string;
  readonly what: 'font' | 'picture' | 'table' | 'glyphs';
  /** The picture's. */
  readonly name?: string;
  readonly bytes: number;
}

export interface FlashLedger {
  readonly flashBytes: number;
  /** Size of the boot loader. */
  readonly runtimeBytes: number;
  readonly lines: readonly FlashLine[];
  readonly usedBytes: number;
  readonly leftBytes: number;
}

/** The printable characters of ASCII, one byte column per dot column; larger scales use the same font. */
const FONT_BYTES = 95 * (LETTER.width - 1);
/** Rows of a custom character on a character display. */
const OWN_ROWS = 8;

function linesOf(plan: Plan, sheets: Sheets, placement: Placement): readonly FlashLine[] {
  const part = partSheet(sheets, placement.sheet)?.sheet;
  const readout = plan.readouts[placement.id];
  const id = placement.id;
  const lines: FlashLine[] = [];
  const table = segmentTable(plan, sheets, id);
  if (table) lines.push({ placement: id, what: 'table', bytes: table.glyphs.length });
  if (part?.readout?.unit === 'pixels' && readout?.text) lines.push({ placement: id, what: 'font', bytes: FONT_BYTES });
  const own = Object.keys(readout?.glyphs ?? {}).length;
  if (part?.readout?.unit === 'characters' && own > 0) lines.push({ placement: id, what: 'glyphs', bytes: own * OWN_ROWS });
  for (const { name, bytes } of readout?.pictures ?? []) lines.push({ placement: id, what: 'picture', name, bytes });
  return lines;
}

/** The flash of the board and its use by fonts and pictures of all displays. The program itself is unknown and not counted. Undefined if
 *  the board is unknown. */
export function flashLedger(plan: Plan, sheets: Sheets): FlashLedger | undefined {
  const board = boardOf(plan, sheets);
  if (!board) return undefined;
  const { flashBytes, runtimeFlashBytes = 0 } = board.sheet.memory;
  const all = plan.placements.flatMap((placement) => linesOf(plan, sheets, placement));
  // Displays with text share the font.
  const font = all.findIndex((line) => line.what === 'font');
  const lines = all.filter((line, at) => line.what !== 'font' || at === font);
  const usedBytes = lines.reduce((sum, line) => sum + line.bytes, 0);
  return { flashBytes, runtimeBytes: runtimeFlashBytes, lines, usedBytes, leftBytes: flashBytes - runtimeFlashBytes - usedBytes };
}
