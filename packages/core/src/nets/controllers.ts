import { memoizeByObject } from '../memo/memoizeByObject';
import type { BoardPin, Controller } from '../sheets/boardSheet';
import type { ControllerKind } from '../sheets/roles';
import type { IndexedBoard } from '../sheets/sheetIndex';

/** The controllers of a kind whose line comes out on this pin.
 *  @example controllersAt(board, 'GP4', 'i2c', 'sda') // ['i2c0'] */
export function controllersAt(board: IndexedBoard, pin: string, kind: ControllerKind, line: string): readonly string[] {
  const functions = board.pins.get(pin)?.functions ?? [];
  return functions
    .filter((name) => name.endsWith(`.${line}`))
    .map((name) => name.slice(0, name.indexOf('.')))
    .filter((id) => board.controllers.get(id)?.kind === kind);
}

/** The pins that carry one line of a controller, in physical order. */
export function linePins(board: IndexedBoard, controller: string, line: string): readonly BoardPin[] {
  const known = linesKnown(board);
  const name = `${controller}.${line}`;
  let pins = known.get(name);
  if (!pins) known.set(name, (pins = board.ioPins.filter((pin) => pin.functions?.includes(name))));
  return pins;
}

const linesKnown = memoizeByObject((_board: IndexedBoard) => new Map<string, readonly BoardPin[]>());

/** Whether these pins together are a legal set of the controller (lines that are absent do not matter). */
export function isLegalSet(board: IndexedBoard, controller: Controller, chosen: { readonly [line: string]: string }): boolean {
  const lines = Object.entries(chosen);
  if (controller.legal.rule !== 'sets') {
    return lines.every(([line, pin]) => board.pins.get(pin)?.functions?.includes(`${controller.id}.${line}`));
  }
  return controller.legal.sets.some((set) => lines.every(([line, pin]) => set[line] === pin));
}

/** The highest clock of a controller on its pins, in hertz: past the crossbar its own, through it what that allows. Selects are made by the
 *  program and do not count. */
export function controllerHz(
  { legal, maxHz }: Controller,
  { cs: _select, ...pins }: { readonly [line: string]: string | undefined },
): number {
  if (legal.rule !== 'any-pin') return maxHz;
  const lines = Object.entries(pins).filter(([, pin]) => pin !== undefined);
  const isDirect = legal.sets.some((set) => lines.every(([line, pin]) => set[line] === pin));
  return isDirect ? maxHz : Math.min(maxHz, legal.maxHz);
}

/** The controllers for which these pins are a legal set, in sheet order. */
export function legalControllers(
  board: IndexedBoard,
  kind: ControllerKind,
  chosen: { readonly [line: string]: string },
): readonly Controller[] {
  return board.sheet.controllers.list.filter((c) => c.kind === kind && isLegalSet(board, c, chosen));
}
