import { boardOf } from '../plan/edit';
import type { Placement, Plan, Readout } from '../plan/plan';
import type { PartSheet } from '../sheets/partSheet';
import { partSheet, type Sheets } from '../sheets/sheetIndex';

/** Frame buffer memory of a part. */
export interface MemoryLine {
  readonly placement: string;
  readonly bytes: number;
  readonly picture: NonNullable<Readout['picture']>;
  /** All of it in memory, in bytes. */
  readonly wholeBytes: number;
  readonly format: string;
}

export interface MemoryLedger {
  readonly ramBytes: number;
  /** What the runtime, its stack and the radio take. */
  readonly runtimeBytes: number;
  readonly lines: readonly MemoryLine[];
  /** What pictures take together, of `ramBytes` less `runtimeBytes`. */
  readonly usedBytes: number;
  readonly leftBytes: number;
}

/** Rows of a colour picture that a program works out at a time, and parts of a plain one. */
const BAND_ROWS = 16;
const PAGES = 8;

const isColour = (part: PartSheet): boolean => part.memory?.format.startsWith('16 bits') === true;

/** Default frame buffer mode: colour displays are drawn directly, monochrome ones buffered. */
const usualPicture = (part: PartSheet): MemoryLine['picture'] => (isColour(part) ? 'none' : 'whole');

function bytesOf(part: PartSheet, whole: number, picture: MemoryLine['picture']): number {
  if (picture === 'whole' || part.memory?.required) return whole;
  if (picture === 'none') return 0;
  const rows = part.readout?.rows ?? 1;
  return Math.ceil(isColour(part) ? whole * Math.min(1, BAND_ROWS / rows) : whole / PAGES);
}

function lineOf(plan: Plan, sheets: Sheets, placement: Placement): readonly MemoryLine[] {
  const part = partSheet(sheets, placement.sheet)?.sheet;
  if (!part?.memory) return [];
  const whole = part.memory.frameBufferBytes * (plan.loads[placement.id]?.units ?? 1);
  const picture = plan.readouts[placement.id]?.picture ?? usualPicture(part);
  return [{ placement: placement.id, bytes: bytesOf(part, whole, picture), picture, wholeBytes: whole, format: part.memory.format }];
}

/** The RAM of the board with what the pictures of all displays take. Undefined where the plan's board is not known.
 *  @example memoryLedger(plan, sheets)!.leftBytes // what is left for everything else of the program */
export function memoryLedger(plan: Plan, sheets: Sheets): MemoryLedger | undefined {
  const board = boardOf(plan, sheets);
  if (!board) return undefined;
  const { ramBytes, runtimeRamBytes = 0 } = board.sheet.memory;
  const lines = plan.placements.flatMap((placement) => lineOf(plan, sheets, placement));
  const usedBytes = lines.reduce((sum, line) => sum + line.bytes, 0);
  return { ramBytes, runtimeBytes: runtimeRamBytes, lines, usedBytes, leftBytes: ramBytes - runtimeRamBytes - usedBytes };
}
