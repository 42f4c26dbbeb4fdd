import { getOrThrow } from '../../collections/orThrow';
import { conductor, type IndexedBoard, type Sheets } from '../../sheets/sheetIndex';
import { findBuses } from '../../nets/buses';
import { findNets, type Nets } from '../../nets/nets';
import { planTerminals, type PlanTerminal } from '../../nets/terminals';
import type { Plan } from '../../plan/plan';
import type { Candidate } from './instance';
import { resourcesAt, unlikePwm } from './sharedResources';

/** The conductor that a terminal is wired to. */
export const pinOf = (board: IndexedBoard, item: PlanTerminal): string | undefined =>
  item.wire?.end.to === 'pin' ? conductor(board, item.wire.end.pin) : undefined;

/** Pins, and resources that pins share, which wired terminals have for good. */
export interface Occupied {
  readonly by: (pin: string) => readonly string[];
  readonly resources: readonly { readonly resources: readonly string[]; readonly item: PlanTerminal }[];
  readonly controllers: ReadonlySet<string>;
}

export const NOTHING: Occupied = { by: () => [], resources: [], controllers: new Set() };

/** What is wired on a plan's nets: plans with the same nets have the same. */
const ofNets = new WeakMap<Nets, Occupied>();

/** The pins and shared resources in use in a plan. */
export function occupiedBy(plan: Plan, sheets: Sheets, board: IndexedBoard): Occupied {
  const nets = findNets(plan, sheets);
  let occupied = ofNets.get(nets);
  if (!occupied) ofNets.set(nets, (occupied = findOccupied(plan, sheets, board, nets)));
  return occupied;
}

function findOccupied(plan: Plan, sheets: Sheets, board: IndexedBoard, nets: Nets): Occupied {
  const users = planTerminals(plan, sheets).flatMap((item) => {
    const pin = pinOf(board, item);
    const resources = pin === undefined ? [] : resourcesAt(getOrThrow(board.pins, pin), [item]);
    return resources.length > 0 ? [{ resources, item }] : [];
  });
  const controllers = findBuses(plan, sheets).flatMap((bus) => bus.controller ?? []);
  return {
    by: (pin) => nets.byPin.get(pin)?.signals.map((signal) => signal.id) ?? [],
    resources: users,
    controllers: new Set(controllers),
  };
}

/** Whether an item can have a pin beside all that is there for good. */
export function fitsBeside(occupied: Occupied, id: string, terminals: readonly PlanTerminal[], candidate: Candidate): boolean {
  if (occupied.by(candidate.pin).some((signal) => signal !== id)) return false;
  if (candidate.unless !== undefined && occupied.controllers.has(candidate.unless)) return false;
  return (candidate.uses ?? []).every((use) =>
    occupied.resources.every(({ resources, item }) => {
      if (!resources.includes(use) || terminals.some((t) => t.key === item.key)) return true;
      return use.startsWith('timer ') && !unlikePwm(terminals, [item]);
    }),
  );
}
