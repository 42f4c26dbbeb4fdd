import { headerPins } from '../../sheets/headerPins';
import { entryOrThrow, firstOrThrow } from '../../collections/orThrow';
import type { BoardPin } from '../../sheets/boardSheet';
import type { IndexedBoard } from '../../sheets/sheetIndex';
import type { PlanTerminal } from '../../nets/terminals';
import type { Plan } from '../../plan/plan';
import type { BusController, Candidate, Group, Item } from './instance';

/** The pins of an item allowed by its preferences. A preference that no pin can meet is ignored and reported as unmet; it never makes a
 *  plan infeasible. */
export function wishedPins(plan: Plan, terminals: readonly PlanTerminal[], candidates: readonly Candidate[]): readonly Candidate[] {
  return terminals.reduce<readonly Candidate[]>((left, { key }) => {
    const wish = plan.wishes[key];
    if (!wish) return left;
    const fulfilling = left.filter(({ pin }) => (wish.pin === undefined || wish.pin === pin) && !wish.not?.includes(pin));
    return fulfilling.length > 0 ? fulfilling : left;
  }, candidates);
}

/** The preferences for the lines of a bus part: by line its pin, or pins to avoid. */
export interface LineWishes {
  readonly fixed: { readonly [line: string]: string };
  readonly avoid: { readonly [line: string]: readonly string[] };
}

/** The preferences for bus lines of a part, by line. */
export function wishedLines(plan: Plan, terminals: readonly PlanTerminal[], lineOf: (item: PlanTerminal) => string): LineWishes {
  const fixed: { [line: string]: string } = {};
  const avoid: { [line: string]: readonly string[] } = {};
  for (const item of terminals) {
    const wish = plan.wishes[item.key];
    if (wish?.pin !== undefined) fixed[lineOf(item)] = wish.pin;
    if (wish?.not) avoid[lineOf(item)] = wish.not;
  }
  return { fixed, avoid };
}

/** The controllers of a bus part allowed by its preferences; all, if none is left. */
export function wishedControllers(
  plan: Plan,
  terminals: readonly PlanTerminal[],
  controllers: readonly BusController[],
): readonly BusController[] {
  const wanted = new Set(terminals.flatMap(({ key }) => plan.wishes[key]?.controller ?? []));
  const left = controllers.filter((c) => wanted.size === 0 || wanted.has(c.id));
  return left.length > 0 ? left : controllers;
}

/** The port of a pin: the letters, and digits before a dot, that its neighbours of one register share.
 *  @example portOf({ port: 'PD3', ... }) // 'PD' */
export function portOf(pin: BoardPin): string | undefined {
  return pin.port?.includes('.') ? pin.port.slice(0, pin.port.indexOf('.')) : pin.port?.replace(/\d+$/, '');
}

type Alternative = Group['alternatives'][number];

/** Whether every item has a pin in an alternative. */
const isPossible = (items: readonly Item[], alternative: Alternative): boolean =>
  items.every((item) => item.candidates.some((c) => entryOrThrow(alternative, item.id).includes(c.pin)));

/** Neighbouring positions of one header, in any order: that they follow the printed one is a matter of neatness, which costs nothing. */
function adjacent(board: IndexedBoard, items: readonly Item[]): readonly Alternative[] {
  const rows = board.sheet.headers.list.map((header) => headerPins(board.sheet, header.id).toSorted((a, b) => a.position - b.position));
  const windows = rows.flatMap((pins) =>
    pins.flatMap((_, at) => {
      const window = pins.slice(at, at + items.length).map((pin) => pin.sameAs ?? pin.id);
      return window.length === items.length ? [window] : [];
    }),
  );
  return windows.map((window) => Object.fromEntries(items.map((item) => [item.id, window])));
}

function onOnePort(board: IndexedBoard, items: readonly Item[]): readonly Alternative[] {
  const ports = new Map<string, string[]>();
  for (const pin of board.ioPins) {
    const port = portOf(pin);
    if (port !== undefined) ports.set(port, [...(ports.get(port) ?? []), pin.id]);
  }
  return [...ports.values()]
    .filter((pins) => pins.length >= items.length)
    .map((pins) => Object.fromEntries(items.map((item) => [item.id, pins])));
}

/** The signals of their own that a part has in an instance, in printed order. */
export function ownItems(items: readonly Item[], placement: string): readonly Item[] {
  return items.filter((item) => item.terminals.length === 1 && firstOrThrow(item.terminals).startsWith(`${placement}:`));
}

/** A group for every part whose signals are wished to lie together, where there is a way for them to. */
export function groupsOf(plan: Plan, board: IndexedBoard, items: readonly Item[]): readonly Group[] {
  return Object.entries(plan.together).flatMap(([placement, how]): Group[] => {
    const own = ownItems(items, placement);
    if (own.length < 2) return [];
    const alternatives = (how === 'adjacent' ? adjacent(board, own) : onOnePort(board, own)).filter((a) => isPossible(own, a));
    return alternatives.length > 0 ? [{ id: `${placement} ${how}`, alternatives }] : [];
  });
}
