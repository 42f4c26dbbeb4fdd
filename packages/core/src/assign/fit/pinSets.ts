import { has } from '../../collections/has';
import { atOrThrow, firstOrThrow } from '../../collections/orThrow';
import { type BoardPin, choicesOf, type Controller } from '../../sheets/boardSheet';
import type { ControllerKind } from '../../sheets/roles';
import type { IndexedBoard } from '../../sheets/sheetIndex';
import { linePins } from '../../nets/controllers';
import { usualPins } from './usual';
import { isCautionForLine } from './pinUse';

/** A legal combination of pins for a controller. */
export interface PinSet {
  readonly controller: string;
  readonly pins: { readonly [line: string]: string };
}

const LINES: { readonly [K in ControllerKind]: readonly string[] } = {
  i2c: ['sda', 'scl'],
  spi: ['miso', 'sck', 'mosi'],
  uart: ['tx', 'rx'],
};

const place = (board: IndexedBoard, pin: BoardPin): number => board.ioPins.indexOf(pin);

/** Every choice of one pin a line that starts at `start` and stays near it on its header. */
function setsFrom(board: IndexedBoard, controller: Controller, start: BoardPin): readonly (readonly BoardPin[])[] {
  const lines = LINES[controller.kind];
  const near = (pin: BoardPin) => pin.header === start.header && Math.abs(place(board, pin) - place(board, start)) <= lines.length;
  return lines.slice(1).reduce<readonly (readonly BoardPin[])[]>(
    (sets, line) =>
      sets.flatMap((set) =>
        linePins(board, controller.id, line)
          .filter((pin) => near(pin) && !set.includes(pin))
          .map((pin) => [...set, pin]),
      ),
    [[start]],
  );
}

/** A compactness score of a pin set: lines out of order weigh most, then the length of header it spans. */
function untidiness(board: IndexedBoard, pins: readonly BoardPin[]): number {
  const inOrder = pins.filter(has('position')).every((pin, at, all) => at === 0 || pin.position > atOrThrow(all, at - 1).position);
  const places = pins.map((pin) => place(board, pin));
  return (inOrder ? 0 : 1000) + Math.max(...places) - Math.min(...places);
}

/** For each pin of the first line, the tidiest set that starts there. */
function neatSets(board: IndexedBoard, controller: Controller): readonly PinSet[] {
  const lines = LINES[controller.kind];
  return linePins(board, controller.id, firstOrThrow(lines)).flatMap((start) => {
    const best = setsFrom(board, controller, start).toSorted((a, b) => untidiness(board, a) - untidiness(board, b))[0];
    return best ? [{ controller: controller.id, pins: Object.fromEntries(best.map((pin, at) => [lines[at], pin.id])) }] : [];
  });
}

/** The pin sets a person would consider for a controller: all listed ones, or, where any member pins
 *  may be combined, those that lie side by side. In physical order, a crossbar's customary sets first. */
export function pinSets(board: IndexedBoard, controller: Controller): readonly PinSet[] {
  if (controller.legal.rule === 'membership') return neatSets(board, controller);
  const listed = choicesOf(controller).map((pins) => ({ controller: controller.id, pins }));
  return controller.legal.rule === 'any-pin' ? [...listed, ...neatSets(board, controller)] : listed;
}

const known = new WeakMap<IndexedBoard, Map<ControllerKind, readonly PinSet[]>>();

/** The pin sets of every controller of a kind: those without pins of caution first, then the usual ones, then in sheet order.
 *  Remembered per board, which is immutable: charts and proposals ask at every edit. */
export function pinSetsOf(board: IndexedBoard, kind: ControllerKind): readonly PinSet[] {
  const kinds = known.get(board) ?? new Map<ControllerKind, readonly PinSet[]>();
  known.set(board, kinds);
  const sets = kinds.get(kind) ?? findPinSets(board, kind);
  kinds.set(kind, sets);
  return sets;
}

function findPinSets(board: IndexedBoard, kind: ControllerKind): readonly PinSet[] {
  const caution = (set: PinSet) =>
    Object.entries(set.pins).filter(([line, pin]) => {
      const found = board.pins.get(pin);
      return found && isCautionForLine(found, kind, line);
    }).length;
  const sets = board.sheet.controllers.list.filter((c) => c.kind === kind).flatMap((c) => pinSets(board, c));
  const usual = usualPins(board);
  const unusual = ({ controller, pins }: PinSet) =>
    Object.entries(pins).reduce((sum, [line, pin]) => sum + usual.line(controller, line, pin), 0);
  return sets.toSorted((a, b) => caution(a) - caution(b) || unusual(a) - unusual(b));
}
