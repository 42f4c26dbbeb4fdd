import { getOrThrow, orThrow } from '../collections/orThrow';
import { memoizeByObject } from '../memo/memoizeByObject';
import type { BoardPin, Controller } from './boardSheet';
import { CONTROLLER_KINDS, type ControllerKind } from './roles';
import type { IndexedBoard } from './sheetIndex';

/** The buses of one kind that a program makes: more leave it no time for anything else. */
const NUMBERS = [1, 2, 3, 4] as const;

export type SoftwareBusId = `soft${ControllerKind}${(typeof NUMBERS)[number]}`;

/** @example softwareBusId('spi', 1) // 'softspi1' */
export const softwareBusId = (kind: ControllerKind, number: (typeof NUMBERS)[number]): SoftwareBusId => `soft${kind}${number}`;

/** Every bus that a program can make, by id. */
export const SOFTWARE_BUSES: readonly SoftwareBusId[] = CONTROLLER_KINDS.flatMap((kind) =>
  NUMBERS.map((number) => softwareBusId(kind, number)),
);

/** @example softwareKind('softspi1') // 'spi'; undefined for a controller of the chip */
export const softwareKind = (id: string): ControllerKind | undefined =>
  SOFTWARE_BUSES.includes(id as SoftwareBusId) ? (id.slice('soft'.length, -1) as ControllerKind) : undefined;

/** The clock in hertz (UART: baud) that a compiled program reaches on a board; undefined where that is not usual. */
export function softwareHz({ sheet }: IndexedBoard, kind: ControllerKind): number | undefined {
  return { spi: sheet.software?.spiHz, i2c: sheet.software?.i2cHz, uart: sheet.software?.uartBaud }[kind];
}

const drives = ({ io = 'both' }: BoardPin): boolean => io === 'both' || io === 'out';
const reads = ({ io = 'both' }: BoardPin): boolean => io === 'both' || io === 'in';

/** What each line of a bus requires of a pin. A program notices the start of a serial byte by an interrupt. */
const LINES: { readonly [K in ControllerKind]: { readonly [line: string]: (pin: BoardPin) => boolean } } = {
  i2c: {
    sda: (pin) => drives(pin) && reads(pin) && !pin.limits?.noOpenDrain,
    scl: (pin) => drives(pin) && reads(pin) && !pin.limits?.noOpenDrain,
  },
  spi: { sck: drives, mosi: drives, miso: reads },
  uart: { tx: drives, rx: (pin) => reads(pin) && pin.interrupts !== undefined && pin.interrupts.length > 0 },
};

/** @example softwareTitle('spi') // 'Software SPI' */
export const softwareTitle = (kind: ControllerKind): string => `Software ${kind.toUpperCase()}`;

function controllerOf(id: SoftwareBusId, kind: ControllerKind, hz: number): Controller {
  return {
    id,
    kind,
    title: `${softwareTitle(kind)} ${id.slice(-1)}`,
    maxHz: hz,
    legal: { rule: 'any-pin', lines: Object.keys(LINES[kind]), sets: [], maxHz: hz },
    software: true,
    note: 'Made by the program, on any pins.',
  };
}

function makeBoard(board: IndexedBoard, ids: readonly SoftwareBusId[]): IndexedBoard {
  const more = ids.flatMap((id): Controller[] => {
    const kind = orThrow(softwareKind(id), 'kind of the bus');
    const hz = softwareHz(board, kind);
    return hz === undefined ? [] : [controllerOf(id, kind, hz)];
  });
  if (more.length === 0) return board;
  const reaching = (pin: BoardPin): BoardPin => {
    if (pin.kind !== 'io' || pin.grade === 'reserved') return pin;
    const lines = more.flatMap(({ id, kind }) =>
      Object.entries(LINES[kind]).flatMap(([line, serves]) => (serves(pin) ? [`${id}.${line}`] : [])),
    );
    return lines.length > 0 ? { ...pin, functions: [...(pin.functions ?? []), ...lines] } : pin;
  };
  const pins = new Map([...board.pins].map(([id, pin]) => [id, reaching(pin)]));
  const all = [...board.sheet.controllers.list, ...more];
  return {
    ...board,
    sheet: {
      ...board.sheet,
      controllers: { ...board.sheet.controllers, list: all },
      pins: { ...board.sheet.pins, list: board.sheet.pins.list.map((pin) => getOrThrow(pins, pin.id)) },
    },
    pins,
    controllers: new Map(all.map((one) => [one.id, one])),
    ioPins: board.ioPins.map((pin) => getOrThrow(pins, pin.id)),
    positions: new Map([...board.positions].map(([id, list]) => [id, list.map((pin) => getOrThrow(pins, pin.id))])),
  };
}

const known = memoizeByObject((_board: IndexedBoard) => new Map<string, IndexedBoard>());

/** A board with the buses that a program makes among its controllers, on every pin that has the direction. */
export function withSoftwareBuses(board: IndexedBoard, ids: readonly SoftwareBusId[]): IndexedBoard {
  if (ids.length === 0) return board;
  const made = known(board);
  const key = ids.join();
  let found = made.get(key);
  if (!found) made.set(key, (found = makeBoard(board, ids)));
  return found;
}

/** The next software bus of a kind that is not in use; undefined where the board's sheet states no clock for it, or all are in use. */
export function nextSoftwareBus(board: IndexedBoard, used: readonly SoftwareBusId[], kind: ControllerKind): SoftwareBusId | undefined {
  if (softwareHz(board, kind) === undefined) return undefined;
  return SOFTWARE_BUSES.find((id) => softwareKind(id) === kind && !used.includes(id));
}
