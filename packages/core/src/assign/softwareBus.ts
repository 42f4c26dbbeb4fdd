import { entryOrThrow } from '../collections/orThrow';
import { type Bus, findBuses } from '../nets/buses';
import { findNets } from '../nets/nets';
import type { PlanTerminal } from '../nets/terminals';
import { applyEdits } from '../plan/applyEdits';
import { boardOf, boardOrThrow, type Edit } from '../plan/edit';
import type { Placement, Plan } from '../plan/plan';
import type { PlanContext } from '../plan/planContext';
import { busLineOf, type ControllerKind } from '../sheets/roles';
import { nextSoftwareBus, type SoftwareBusId } from '../sheets/softwareBuses';
import type { Sheets } from '../sheets/sheetIndex';
import { type Ability, wasteOn } from './model/abilities';
import { freePins } from './fit/freePins';
import { editsOntoFree, lineTerminals } from './moveBus';
import { type PinSet, pinSetsOf } from './fit/pinSets';

/** Parts on a bus that the program makes. */
export interface OntoSoftware {
  readonly bus: SoftwareBusId;
  readonly pins: { readonly [line: string]: string };
  readonly edits: readonly Edit[];
}

const NONE: ReadonlySet<Ability> = new Set();

const lineOf = (item: PlanTerminal): string => busLineOf(item.terminal.role).line;

/** A plan with one more software bus of a kind; undefined where the board’s sheet states no clock for one, or there are too many. */
function withNext(plan: Plan, sheets: Sheets, kind: ControllerKind) {
  const board = boardOf(plan, sheets);
  const bus = board && nextSoftwareBus(board, plan.softwareBuses, kind);
  if (!bus) return undefined;
  const on: Edit = { kind: 'software-bus', bus, on: true };
  const after = applyEdits(plan, [on], sheets);
  return after.ok ? { bus, on, plan: after.plan, board: boardOrThrow(after.plan, sheets) } : undefined;
}

/** Pins one by one where no neat set is free: the best free pin for each line. */
function looseSet({ plan, sheets, board }: PlanContext, controller: string, items: readonly PlanTerminal[]): PinSet {
  const nets = findNets(plan, sheets);
  const pins: { [line: string]: string } = {};
  for (const item of items) {
    const name = `${controller}.${lineOf(item)}`;
    const isFree = (id: string) =>
      !nets.byPin.has(id) && !Object.values(pins).includes(id) && board.pins.get(id)?.functions?.includes(name) === true;
    const free = freePins(board, nets, item).find(isFree);
    if (free !== undefined) pins[lineOf(item)] ??= free;
  }
  return { controller, pins };
}

/** Every line of these parts on free pins of a new software bus, side by side where there is room. Undefined where there is no room, or a
 *  wire is locked.
 *  @param members parts of one bus, or one that is on none */
export function ontoSoftware(plan: Plan, sheets: Sheets, members: readonly Placement[], kind: ControllerKind): OntoSoftware | undefined {
  const next = withNext(plan, sheets, kind);
  if (!next) return undefined;
  const { bus, board } = next;
  const items = lineTerminals(next.plan, sheets, members, kind).filter((item) => item.wire || item.terminal.need === 'needed');
  const nets = findNets(next.plan, sheets);
  const waste = wasteOn(board);
  // A program can use any pins: those that can do more are left for others.
  const price = ({ pins }: PinSet) => items.reduce((sum, item) => sum + waste(pins[lineOf(item)] ?? '', NONE), 0);
  const isCautious = ({ pins }: PinSet) => (items.some((item) => board.pins.get(pins[lineOf(item)] ?? '')?.grade === 'caution') ? 1 : 0);
  const neat = pinSetsOf(board, kind)
    .filter(({ controller }) => controller === bus)
    .toSorted((a, b) => isCautious(a) - isCautious(b) || price(a) - price(b));
  for (const set of [...neat, looseSet({ plan: next.plan, sheets, board }, bus, items)]) {
    const wires = editsOntoFree(board, nets, items, set);
    if (!wires || wires.length === 0) continue;
    const pins = Object.fromEntries(
      items.flatMap((item) => (set.pins[lineOf(item)] ? [[lineOf(item), entryOrThrow(set.pins, lineOf(item))]] : [])),
    );
    return { bus, pins, edits: [next.on, ...wires] };
  }
  return undefined;
}

/** A bus made by the program on the pins where it is. Undefined where it has a controller, or a pin lacks the direction. */
export function softwareAsWired(plan: Plan, sheets: Sheets, { id, kind, pins, controller }: Bus): OntoSoftware | undefined {
  const next = controller === undefined ? withNext(plan, sheets, kind) : undefined;
  const found = next && findBuses(next.plan, sheets).find((bus) => bus.id === id);
  return next && found?.controller === next.bus ? { bus: next.bus, pins, edits: [next.on] } : undefined;
}
