import type { BoardPin, BoardSheet, Controller } from './boardSheet';
import type { Condition } from './condition';
import type { PartSheet, PartTerminal } from './partSheet';

/** A board sheet with its look-ups made once. */
export interface IndexedBoard {
  readonly sheet: BoardSheet;
  readonly pins: ReadonlyMap<string, BoardPin>;
  readonly controllers: ReadonlyMap<string, Controller>;
  /** Pins that signals can go to, in physical order, one per conductor. */
  readonly ioPins: readonly BoardPin[];
  /** Every position of a conductor, by the id of its first pin. */
  readonly positions: ReadonlyMap<string, readonly BoardPin[]>;
}

export interface IndexedPart {
  readonly sheet: PartSheet;
  readonly terminals: ReadonlyMap<string, PartTerminal>;
}

/** The sheets a plan is read against. */
export interface Sheets {
  /** The newest version of each board, by id. */
  readonly boards: ReadonlyMap<string, IndexedBoard>;
  /** The newest version of each part, by id. */
  readonly parts: ReadonlyMap<string, IndexedPart>;
  /** Every version, by `id@version`: a plan keeps to the one it was made with. */
  readonly versions: ReadonlyMap<string, IndexedBoard | IndexedPart>;
  /** The supply condition of these sheets; `extreme` by default. */
  readonly condition?: Condition;
}

/** A sheet as a plan names it. */
export interface SheetRef {
  readonly id: string;
  readonly version: number;
}

const versionKey = ({ id, version }: SheetRef): string => `${id}@${version}`;

/** The board sheet a plan was made with; the newest one where that version is not there any more. */
export function boardSheet(sheets: Sheets, ref: SheetRef): IndexedBoard | undefined {
  const newest = sheets.boards.get(ref.id);
  // Nearly always the one; making the key of a version for each question would be half of finding the nets.
  if (newest?.sheet.version === ref.version) return newest;
  const kept = sheets.versions.get(versionKey(ref));
  return kept && 'pins' in kept ? kept : newest;
}

/** The part sheet a placement was made with; the newest one where that version is not there any more. */
export function partSheet(sheets: Sheets, ref: SheetRef): IndexedPart | undefined {
  const newest = sheets.parts.get(ref.id);
  if (newest?.sheet.version === ref.version) return newest;
  const kept = sheets.versions.get(versionKey(ref));
  return kept && 'terminals' in kept ? kept : newest;
}

/** The board sheet of a reference that is known to have one.
 *  @throws RangeError where it has none */
export function boardSheetOrThrow(sheets: Sheets, ref: SheetRef): IndexedBoard {
  const board = boardSheet(sheets, ref);
  if (!board) throw new RangeError(`No board sheet ${versionKey(ref)}`);
  return board;
}

/** The part sheet of a reference that is known to have one.
 *  @throws RangeError where it has none */
export function partSheetOrThrow(sheets: Sheets, ref: SheetRef): IndexedPart {
  const part = partSheet(sheets, ref);
  if (!part) throw new RangeError(`No part sheet ${versionKey(ref)}`);
  return part;
}

/** The pin with the facts of a conductor.
 *  @example conductor(board, 'SDA') // 'A4' on a board where both are one conductor */
export function conductor(board: IndexedBoard, pin: string): string {
  return board.pins.get(pin)?.sameAs ?? pin;
}

/** Lines that an input-only pin can serve. */
const INPUT_LINES = new Set(['miso', 'rx', 'cts']);

/** A crossbar pin with every line it reaches among its functions. */
function withCrossbar(sheet: BoardSheet, pin: BoardPin): BoardPin {
  if (!pin.crossbar) return pin;
  const reached = sheet.controllers.list.flatMap((controller) =>
    controller.legal.rule === 'any-pin'
      ? controller.legal.lines.filter((line) => pin.io !== 'in' || INPUT_LINES.has(line)).map((line) => `${controller.id}.${line}`)
      : [],
  );
  return { ...pin, functions: [...new Set([...(pin.functions ?? []), ...reached])] };
}

function indexBoard(sheet: BoardSheet): IndexedBoard {
  const list = sheet.pins.list.map((pin) => withCrossbar(sheet, pin));
  const pins = new Map(list.map((pin) => [pin.id, pin]));
  const positions = new Map<string, BoardPin[]>();
  for (const pin of list) {
    const key = pin.sameAs ?? pin.id;
    positions.set(key, [...(positions.get(key) ?? []), pin]);
  }
  return {
    sheet,
    pins,
    controllers: new Map(sheet.controllers.list.map((c) => [c.id, c])),
    ioPins: list.filter((pin) => pin.kind === 'io' && !pin.sameAs && pin.header),
    positions,
  };
}

function indexPart(sheet: PartSheet): IndexedPart {
  return { sheet, terminals: new Map(sheet.terminals.list.map((t) => [t.id, t])) };
}

/** The look-ups of one sheet. */
export function indexOne(sheet: BoardSheet | PartSheet): IndexedBoard | IndexedPart {
  return sheet.kind === 'board' ? indexBoard(sheet) : indexPart(sheet);
}

/** Look-ups over validated sheets, several versions of one among them.
 *  @throws Error when two sheets carry one id and version, or a board and a part one id */
export function indexSheets(sheets: readonly (BoardSheet | PartSheet)[]): Sheets {
  const boards = new Map<string, IndexedBoard>();
  const parts = new Map<string, IndexedPart>();
  const versions = new Map<string, IndexedBoard | IndexedPart>();
  for (const sheet of [...sheets].sort((a, b) => a.version - b.version)) {
    if (versions.has(versionKey(sheet))) throw new Error(`Duplicate sheet: ID ${sheet.id}, version ${sheet.version}`);
    if (sheet.kind === 'board' ? parts.has(sheet.id) : boards.has(sheet.id))
      throw new Error(`Duplicate ID ${sheet.id}: used by a board and a part`);
    const indexed = indexOne(sheet);
    versions.set(versionKey(sheet), indexed);
    if (sheet.kind === 'board') boards.set(sheet.id, indexed as IndexedBoard);
    else parts.set(sheet.id, indexed as IndexedPart);
  }
  return { boards, parts, versions };
}
