import { findOrThrow } from '../collections/orThrow';
import type { Sheets } from '../sheets/sheetIndex';
import { PIN_ROLES } from '../sheets/roles';
import { type PlanTerminal, terminalsOf } from '../nets/terminals';
import { applyEdits } from '../plan/applyEdits';
import { boardOf, boardOrThrow, type Edit, partOf } from '../plan/edit';
import { type Plan, splitKey, type TerminalKey } from '../plan/plan';
import { buildInstance } from './model/buildInstance';
import type { Choice, Costs, Instance } from './model/instance';
import { compactly } from './solve/compactness';
import { ontoFreeDrivers } from './ontoDriver';
import { proposeWires } from './proposeWires';
import { solve } from './solve/solve';
import type { SolveOptions } from './solve/solved';
import { strapEdits } from './addresses/strapEdits';
import type { InstanceScope } from './model/terminalsToPlace';

/** With `only`, what is open at other parts stays open. With `freeze` no wire moves, and the instance is a small one. */
export interface AssignOptions extends SolveOptions, InstanceScope {}

/** A pin assignment: the edits that lead to it and what is proved. */
export interface PinAssignment {
  readonly edits: readonly Edit[];
  readonly plan: Plan;
  readonly costs: Costs;
  /** No settlement can cost less. */
  readonly bound: Costs;
  readonly proved: boolean;
  readonly nodes: number;
  /** Needed terminals for which there is no pin or bus. */
  readonly open: readonly TerminalKey[];
  readonly instance: Instance;
}

function toPin(item: PlanTerminal, pin: string | undefined): readonly Edit[] {
  const now = item.wire?.end.to === 'pin' ? item.wire.end.pin : undefined;
  if (now === pin || item.wire?.locked || item.placement.onBoard) return [];
  const place = { placement: item.placement.id, terminal: item.terminal.id };
  return [pin === undefined ? { kind: 'unwire', ...place } : { kind: 'wire', ...place, end: { to: 'pin', pin } }];
}

/** The pin that a choice gives each terminal of the instance; undefined where it leaves it open. */
export function chosenPins(
  instance: Instance,
  choice: Choice,
  terminalsOf: (placement: string) => readonly PlanTerminal[],
): ReadonlyMap<TerminalKey, string | undefined> {
  const pins = new Map<TerminalKey, string | undefined>();
  for (const item of instance.items) for (const key of item.terminals) pins.set(key, choice.items[item.id]);
  for (const member of instance.members) {
    const controller = choice.members[member.id]?.controller;
    for (const item of member.placements.flatMap(terminalsOf)) {
      const line = PIN_ROLES[item.terminal.role]?.line;
      if (line?.kind !== member.kind || !member.lines.includes(line.line)) continue;
      if (item.wire ? item.wire.end.to === 'pin' : item.terminal.need === 'needed')
        pins.set(item.key, controller && choice.lines[controller]?.[line.line]);
    }
  }
  return pins;
}

function strapsOf(plan: Plan, sheets: Sheets, instance: Instance, choice: Choice): readonly Edit[] {
  const board = boardOrThrow(plan, sheets);
  return instance.members.flatMap((member) => {
    const address = choice.members[member.id]?.address;
    const placement = plan.placements.find((p) => p.id === member.placements[0]);
    const part = placement && partOf(plan, placement.id, sheets)?.sheet;
    return address && part ? (strapEdits({ plan, board }, { placement, part }, address.straps) ?? []) : [];
  });
}

/** Assigns every terminal of the plan optimally: existing wires stay unless they must move, and the result states what is proved.
 *  Supplies, grounds and tied inputs follow once the signals have their pins.
 *  @returns undefined where the plan's board is not known */
export function assignPins(plan: Plan, sheets: Sheets, options: AssignOptions = {}): PinAssignment | undefined {
  // What a driver of the plan can light needs no pins.
  const driven = ontoFreeDrivers(plan, sheets, options.only);
  const after = driven.length > 0 ? applyEdits(plan, driven, sheets) : undefined;
  const rest = settlePins(after?.ok ? after.plan : plan, sheets, options);
  return rest && after?.ok ? { ...rest, edits: [...driven, ...rest.edits] } : rest;
}

function settlePins(plan: Plan, sheets: Sheets, options: AssignOptions): PinAssignment | undefined {
  const board = boardOf(plan, sheets);
  if (!board) return undefined;
  const instance = buildInstance(plan, sheets, board, options);
  const solved = solve(instance, options);
  const choice = compactly(instance, solved.choice, board);
  const ofPart = (placement: string) => terminalsOf(plan, { id: placement }, sheets);
  const terminal = (key: TerminalKey) => findOrThrow(ofPart(splitKey(key).placement), (t) => t.key === key);
  const pins = chosenPins(instance, choice, ofPart);
  const signals = [...[...pins].flatMap(([key, pin]) => toPin(terminal(key), pin)), ...strapsOf(plan, sheets, instance, choice)];
  const edits: Edit[] = [];
  let now = plan;
  const take = (more: readonly Edit[]) => {
    const result = applyEdits(now, more, sheets);
    if (!result.ok) throw new Error(`An assignment edit does not apply: ${JSON.stringify(result.problem)}`);
    now = result.plan;
    edits.push(...more);
  };
  take(signals);
  for (const placement of plan.placements)
    if (options.only === undefined || placement.id === options.only) take(proposeWires({ plan: now, sheets, board }, placement, 'supply'));
  const open = [...pins].filter(([key, pin]) => pin === undefined && terminal(key).terminal.need === 'needed').map(([key]) => key);
  const { costs, bound, proved, nodes } = solved;
  return { edits, plan: now, costs, bound, proved, nodes, open, instance };
}
