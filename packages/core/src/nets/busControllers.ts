import { atOrThrow } from '../collections/orThrow';
import { type Controller, choicesOf } from '../sheets/boardSheet';
import type { ControllerKind } from '../sheets/roles';
import type { IndexedBoard } from '../sheets/sheetIndex';
import { legalControllers } from './controllers';

/** What a bus requires of a controller. */
export interface BusLines {
  readonly kind: ControllerKind;
  readonly pins: { readonly [line: string]: string };
  /** Controllers that its parts are wished to be on. */
  readonly wished: ReadonlySet<string>;
}

type Lines = Pick<BusLines, 'pins'>;

/** Whether two buses can be lines of one controller: a line comes out at one pin at a time. Serial parts may share a controller, one
 *  sending and one receiving, and a part that is only half wired shares that of the others. */
const canShare = (a: Lines, b: Lines): boolean =>
  Object.entries(a.pins).every(([line, pin]) => b.pins[line] === undefined || b.pins[line] === pin);

/** Whether two buses have a pin in common and are not lines of one controller: the pin belongs to one of them only. */
export const areCrossed = (a: Lines, b: Lines): boolean => {
  const shared = Object.entries(a.pins).filter(([, pin]) => Object.values(b.pins).includes(pin));
  return shared.length > 0 && (!canShare(a, b) || shared.some(([line, pin]) => b.pins[line] !== pin));
};

interface Option {
  readonly id: string;
  /** Wished, on the pins that the sheet lists for it, on others, or made by the program. */
  readonly rank: number;
}

/** The controllers that can drive a bus, best first. */
function optionsFor(board: IndexedBoard, { kind, pins, wished }: BusLines): readonly Option[] {
  const isListed = (controller: Controller) =>
    choicesOf(controller).some((set) => Object.entries(pins).every(([line, pin]) => set[line] === pin));
  const rank = (controller: Controller) => (wished.has(controller.id) ? 0 : controller.software ? 3 : isListed(controller) ? 1 : 2);
  return legalControllers(board, kind, pins)
    .map((controller) => ({ id: controller.id, rank: rank(controller) }))
    .toSorted((a, b) => a.rank - b.rank);
}

/** A controller for each bus, no controller for two that need it for themselves: as many buses as possible get one, those with a wish or
 *  on listed pins before others, and the earlier before the later.
 *  @returns controller IDs in the order of the buses; undefined where none is left */
export function shareControllers(board: IndexedBoard, buses: readonly BusLines[]): readonly (string | undefined)[] {
  const options = buses.map((bus) => optionsFor(board, bus));
  const given: (string | undefined)[] = buses.map(() => undefined);
  const inTheWay = (bus: number, id: string) =>
    buses.flatMap((other, at) => (at !== bus && given[at] === id && !canShare(atOrThrow(buses, bus), other) ? [at] : []));
  const isCrossed = (bus: number) =>
    buses.some((other, at) => at !== bus && given[at] !== undefined && areCrossed(atOrThrow(buses, bus), other));
  const place = (bus: number, tried: Set<string>): boolean => {
    if (given[bus] === undefined && isCrossed(bus)) return false;
    const free = atOrThrow(options, bus).find(({ id }) => !tried.has(id) && inTheWay(bus, id).length === 0);
    if (free) {
      given[bus] = free.id;
      return true;
    }
    return atOrThrow(options, bus).some(({ id }) => {
      if (tried.has(id)) return false;
      tried.add(id);
      // The bus that is there moves on if another controller is left for it.
      const [other, ...more] = inTheWay(bus, id);
      if (other === undefined || more.length > 0 || !place(other, tried)) return false;
      given[bus] = id;
      return true;
    });
  };
  const rankOf = (bus: number) => atOrThrow(options, bus)[0]?.rank ?? 0;
  const linesOf = (bus: number) => Object.keys(atOrThrow(buses, bus).pins).length;
  // Parts that are wired in full come before those that are not yet.
  const order = [...buses.keys()].toSorted((a, b) => rankOf(a) - rankOf(b) || linesOf(b) - linesOf(a));
  for (const bus of order) place(bus, new Set());
  return given;
}
