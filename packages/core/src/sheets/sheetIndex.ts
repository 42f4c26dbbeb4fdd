import type { BoardPin, BoardSheet, Controller } from './boardSheet';
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
  readonly boards: ReadonlyMap<string, IndexedBoard>;
  readonly parts: ReadonlyMap<string, IndexedPart>;
}

/** The pin on which the facts of a conductor stand.
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

/** Look-ups over validated sheets.
 *  @throws Error when two sheets carry one id */
export function indexSheets(sheets: readonly (BoardSheet | PartSheet)[]): Sheets {
  const boards = new Map<string, IndexedBoard>();
  const parts = new Map<string, IndexedPart>();
  for (const sheet of sheets) {
    if (boards.has(sheet.id) || parts.has(sheet.id)) throw new Error(`Two sheets carry the id ${sheet.id}`);
    if (sheet.kind === 'board') boards.set(sheet.id, indexBoard(sheet));
    else parts.set(sheet.id, indexPart(sheet));
  }
  return { boards, parts };
}
