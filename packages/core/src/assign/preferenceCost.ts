import type { PlanContext } from '../plan/planContext';
import { firstOrThrow, getOrThrow, lastOrThrow } from '../collections/orThrow';
import { findBuses } from '../nets/buses';
import { planTerminals } from '../nets/terminals';
import { boardOf } from '../plan/edit';
import { type Plan, splitKey, type TerminalKey, type Together, type Wish } from '../plan/plan';
import type { IndexedBoard, Sheets } from '../sheets/sheetIndex';
import { buildInstance } from './model/buildInstance';
import { type Costs, lessCosts } from './model/instance';
import { solve } from './solve/solve';
import type { SolveOptions } from './solve/solved';
import { ownItems, portOf } from './model/wishes';

export type Preference =
  | { readonly kind: 'wish'; readonly terminal: TerminalKey; readonly wish: Wish }
  | { readonly kind: 'together'; readonly placement: string; readonly how: Together };

/** One preference of a plan: whether the assignment meets it, and its additional cost. */
export interface PreferenceCost {
  readonly of: Preference;
  readonly met: boolean;
  readonly more: Costs;
  /** Whether both plans compared are proved; else the price is of the best found. */
  readonly proved: boolean;
}

function pinAt(plan: Plan, board: IndexedBoard, key: TerminalKey): string | undefined {
  const end = plan.wires[key]?.end;
  return end?.to === 'pin' ? (board.pins.get(end.pin)?.sameAs ?? end.pin) : undefined;
}

function isMet({ plan, sheets, board }: PlanContext, key: TerminalKey, wish: Wish): boolean {
  const pin = pinAt(plan, board, key);
  if (pin === undefined) return false;
  const here = findBuses(plan, sheets).find((bus) => Object.values(bus.pins).includes(pin));
  return (
    (wish.pin === undefined || (board.pins.get(wish.pin)?.sameAs ?? wish.pin) === pin) &&
    !wish.not?.some((id) => (board.pins.get(id)?.sameAs ?? id) === pin) &&
    (wish.controller === undefined || here?.controller === wish.controller)
  );
}

/** Whether the pins of these terminals are neighbours on one header, or of one port. */
function liesTogether(board: IndexedBoard, pins: readonly string[], how: Together): boolean {
  const at = pins.map((id) => getOrThrow(board.pins, id));
  if (how === 'port') return new Set(at.map(portOf)).size === 1 && portOf(firstOrThrow(at)) !== undefined;
  // A conductor may come out at several positions; any of them will do.
  const places = (id: string) => board.sheet.pins.list.filter((pin) => pin.id === id || pin.sameAs === id);
  return board.sheet.headers.list.some(({ id: header }) => {
    const positions = pins.map((id) => places(id).find((pin) => pin.header === header)?.position);
    if (positions.some((position) => position === undefined)) return false;
    const sorted = (positions as number[]).toSorted((a, b) => a - b);
    return lastOrThrow(sorted) - firstOrThrow(sorted) === sorted.length - 1 && new Set(sorted).size === sorted.length;
  });
}

function without(plan: Plan, of: Preference): Plan {
  const drop = <T>(list: { readonly [key: string]: T }, key: string) => Object.fromEntries(Object.entries(list).filter(([k]) => k !== key));
  return of.kind === 'wish'
    ? { ...plan, wishes: drop(plan.wishes, of.terminal) }
    : { ...plan, together: drop(plan.together, of.placement) };
}

/** Every preference of a plan with its cost: the assignment with all of them compared with the one without it.
 *  @param settled the assignment with all preferences */
export function preferenceCosts(plan: Plan, settled: Plan, sheets: Sheets, options: SolveOptions = {}): readonly PreferenceCost[] {
  const board = boardOf(plan, sheets);
  const all: readonly Preference[] = [
    ...Object.entries(plan.wishes).map(([terminal, wish]): Preference => ({ kind: 'wish', terminal, wish })),
    ...Object.entries(plan.together).map(([placement, how]): Preference => ({ kind: 'together', placement, how })),
  ];
  if (!board || all.length === 0) return [];
  const known = new Set(planTerminals(plan, sheets).map((t) => t.key));
  const instance = buildInstance(plan, sheets, board);
  const whole = solve(instance, options);
  return all
    .filter((of) => of.kind === 'together' || known.has(of.terminal))
    .map((of): PreferenceCost => {
      const free = solve(buildInstance(without(plan, of), sheets, board), options);
      const pinsOf = (placement: string) =>
        ownItems(instance.items, placement).map((item) => pinAt(settled, board, firstOrThrow(item.terminals)));
      const lie = (placement: string, how: Together) => {
        const pins = pinsOf(placement);
        return pins.length < 2 || (pins.every((pin) => pin !== undefined) && liesTogether(board, pins as readonly string[], how));
      };
      const met = of.kind === 'wish' ? isMet({ plan: settled, sheets, board }, of.terminal, of.wish) : lie(of.placement, of.how);
      return { of, met, more: lessCosts(whole.costs, free.costs), proved: whole.proved && free.proved };
    });
}

/** The placement of a preference. */
export const placementOf = (of: Preference): string => (of.kind === 'wish' ? splitKey(of.terminal).placement : of.placement);
