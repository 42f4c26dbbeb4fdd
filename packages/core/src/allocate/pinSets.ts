import type { BoardPin, Controller } from '../sheets/boardSheet';
import type { ControllerKind } from '../sheets/roles';
import type { IndexedBoard } from '../sheets/sheetIndex';
import { linePins } from '../nets/controllers';

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

function distance(board: IndexedBoard, a: BoardPin, b: BoardPin): number {
  if (a.header !== b.header) return Infinity;
  return Math.abs(board.ioPins.indexOf(a) - board.ioPins.indexOf(b));
}

/** For each pin of the first line, the nearest pins of the other lines on the same header. */
function neatSets(board: IndexedBoard, controller: Controller): readonly PinSet[] {
  const [first, ...rest] = LINES[controller.kind];
  return linePins(board, controller.id, first!).flatMap((start) => {
    const pins: { [line: string]: string } = { [first!]: start.id };
    for (const line of rest) {
      const near = linePins(board, controller.id, line)
        .map((pin) => ({ pin, away: distance(board, start, pin) }))
        .filter(({ away }) => away <= LINES[controller.kind].length)
        .sort((a, b) => a.away - b.away)[0];
      if (!near) return [];
      pins[line] = near.pin.id;
    }
    return [{ controller: controller.id, pins }];
  });
}

/** The pin sets a person would consider for a controller: all listed ones, or, where any member pins
 *  may be combined, those that lie side by side. In physical order. */
export function pinSets(board: IndexedBoard, controller: Controller): readonly PinSet[] {
  if (controller.legal.rule === 'membership') return neatSets(board, controller);
  return controller.legal.sets.map((pins) => ({ controller: controller.id, pins }));
}

/** The pin sets of every controller of a kind, in sheet order. */
export function pinSetsOf(board: IndexedBoard, kind: ControllerKind): readonly PinSet[] {
  return board.sheet.controllers.list.filter((c) => c.kind === kind).flatMap((c) => pinSets(board, c));
}
