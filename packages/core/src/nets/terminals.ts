import { atOrThrow, firstOrThrow } from '../collections/orThrow';
import { memoizeByObject } from '../memo/memoizeByObject';
import type { PartSheet, PartTerminal } from '../sheets/partSheet';
import { PIN_ROLES, type Role } from '../sheets/roles';
import { asSoftwarePwm } from '../sheets/softwarePwm';
import { partSheet, type Sheets } from '../sheets/sheetIndex';
import { type Placement, type Plan, splitKey, type TerminalKey, terminalKey, type Wire } from '../plan/plan';
import { tieOf } from './addresses';
import { memoizeByPair } from '../memo/memoizeByPair';
import { incrementalSplit } from './incrementalSplit';
import { asActiveLow, cathodeOf, hasDigits } from './leds';
import { passThroughOf, isWiredTo } from './passThrough';

/** A terminal of a placement with its sheet facts and its wire. */
export interface PlanTerminal {
  readonly key: TerminalKey;
  readonly placement: Placement;
  readonly part: PartSheet;
  readonly terminal: PartTerminal;
  readonly wire: Wire | undefined;
  /** The part at the head of the chain this part is in: itself where it is in none. */
  readonly head: string;
  /** What this one shares the line of on purpose: the terminal at the other end of a wire between two lines that may be joined, or the bus
   *  line that a strap is tied to. */
  readonly joins?: string;
  /** The terminals on the other side of a channel that this one represents. */
  readonly carries?: readonly TerminalKey[];
}

/** A terminal as its sheet has it, with its wire. */
type OwnTerminal = Pick<PlanTerminal, 'placement' | 'part' | 'terminal' | 'wire'>;

const NONE: ReadonlySet<string> = new Set();

/** The data-in of a part that chains, or null. Remembered: nets are found anew at every edit. */
const chainInput = memoizeByObject((part: PartSheet): string | null => part.terminals.list.find((t) => t.chain === 'in')?.id ?? null);

/** The first part of a chain, found from its data-in backwards. A chain in a circle has no head but where one began. */
function chainHead(plan: Plan, placement: Placement, sheets: Sheets, passed: ReadonlySet<string> = NONE): string {
  const part = partSheet(sheets, placement.sheet)?.sheet;
  const input = part && chainInput(part);
  const end = input ? plan.wires[terminalKey(placement.id, input)]?.end : undefined;
  if (end?.to !== 'terminal' || passed.has(placement.id)) return placement.id;
  const before = plan.placements.find((p) => p.id === end.placement);
  const output = before && partSheet(sheets, before.sheet)?.terminals.get(end.terminal);
  if (!before || output?.chain !== 'out') return placement.id;
  return chainHead(plan, before, sheets, new Set([...passed, placement.id]));
}

/** The terminal at the end of a wire between two lines of one kind. A line that goes on from there is followed to its end. */
function joinedWith(plan: Plan, sheets: Sheets, { part, terminal, wire }: OwnTerminal): TerminalKey | undefined {
  const passed = new Set<TerminalKey>();
  let last: TerminalKey | undefined;
  for (let end = wire?.end; end?.to === 'terminal'; end = plan.wires[last]?.end) {
    const { placement, terminal: id } = end;
    const key = terminalKey(placement, id);
    const other = plan.placements.find((p) => p.id === placement);
    const sheet = other && partSheet(sheets, other.sheet);
    if (!sheet || sheet.terminals.get(id)?.line !== terminal.line || passed.has(key)) break;
    if (terminal.line === 'clock' && sheet.sheet.chip !== part.chip) break;
    passed.add(key);
    last = key;
  }
  return last;
}

/** A terminal as the plan uses it: its PWM may be made by the program. */
const inPlan = (plan: Plan, key: TerminalKey, terminal: PartTerminal): PartTerminal =>
  plan.softwarePwm[key] ? asSoftwarePwm(terminal) : terminal;

/** An end of a channel as the terminal it represents, with its role and requirements; required once the channel is in use. */
function standingFor(plan: Plan, sheets: Sheets, item: PlanTerminal): PlanTerminal {
  const carries = passThroughOf(plan, item.placement, item.part, item.terminal.id);
  const { placement: id, terminal: far } = carries.length > 0 ? splitKey(firstOrThrow(carries)) : { placement: '', terminal: '' };
  const other = plan.placements.find((p) => p.id === id);
  const carried = other && partSheet(sheets, other.sheet)?.terminals.get(far);
  if (!carried || !PIN_ROLES[carried.role]) return item;
  const { role, direction, requires, prefers, pwmHz, idle } = inPlan(plan, firstOrThrow(carries), carried);
  const terminal: PartTerminal = {
    ...item.terminal,
    role,
    direction,
    need: 'needed',
    ...(requires ? { requires } : {}),
    ...(prefers ? { prefers } : {}),
    ...(pwmHz ? { pwmHz } : {}),
    ...(idle ? { idle } : {}),
  };
  return { ...item, terminal, carries };
}

/** An input of an open-collector output: required once a load is wired to the output. */
function inUse(plan: Plan, part: PartSheet, item: PlanTerminal): PlanTerminal {
  const output = part.sinks?.channels.find(({ input }) => input === item.terminal.id)?.output;
  if (output === undefined || !isWiredTo(plan.wires, terminalKey(item.placement.id, output))) return item;
  return { ...item, terminal: { ...item.terminal, need: 'needed' } };
}

/** The bus line of its own part that a strap is tied to, where the sheet allows that. */
function tiedLine(plan: Plan, { placement, part, terminal, wire }: OwnTerminal): Role | undefined {
  const tie = wire && terminal.ties && tieOf(plan, placement, part, wire.end);
  return (tie === 'sda' || tie === 'scl') && terminal.ties?.includes(tie) ? `i2c.${tie}` : undefined;
}

/** Whether the terminals of a part depend only on its own wires: no chain, no channel, no joined line. */
const standsAlone = memoizeByObject(
  (part: PartSheet): boolean =>
    !part.levelShifter &&
    !part.sinks &&
    part.terminals.list.every((t) => t.chain !== 'in' && t.line === undefined && !t.ties?.some((tie) => tie === 'sda' || tie === 'scl')),
);

/** The terminals that a part had last: with the same wires they are the same. */
const lastOf = new WeakMap<Placement, { readonly part: PartSheet; readonly list: readonly PlanTerminal[] }>();

function alone(plan: Plan, placement: Placement, part: PartSheet): readonly PlanTerminal[] {
  const last = lastOf.get(placement);
  const isSame = (item: PlanTerminal, at: number) =>
    plan.wires[item.key] === item.wire && inPlan(plan, item.key, atOrThrow(part.terminals.list, at)) === item.terminal;
  if (last?.part === part && last.list.every(isSame)) return last.list;
  const list = part.terminals.list.map((terminal): PlanTerminal => {
    const key = terminalKey(placement.id, terminal.id);
    return { key, placement, part, terminal: inPlan(plan, key, terminal), wire: plan.wires[key], head: placement.id };
  });
  lastOf.set(placement, { part, list });
  return list;
}

/** Whether another LED is wired to an end of this one, its cathode to the anode or its anode to the cathode: it is the string that is driven
 *  then. */
const isInString = (plan: Plan, sheets: Sheets, placement: Placement, part: PartSheet): boolean =>
  Object.entries(plan.wires).some(([key, { end }]) => {
    if (end.to !== 'terminal' || end.placement !== placement.id) return false;
    const { placement: id, terminal } = splitKey(key);
    const from = plan.placements.find((p) => p.id === id);
    const other = from && partSheet(sheets, from.sheet)?.sheet;
    const cathode = other && cathodeOf(other);
    if (cathode === undefined || cathode === null) return false;
    return (terminal === cathode) !== (end.terminal === cathodeOf(part));
  });

/** Whether the output of a single LED is at its cathode: that is at a pin, or the anode is at a supply and the cathode not at ground. */
function isActiveLow(plan: Plan, sheets: Sheets, placement: Placement, part: PartSheet): boolean {
  const cathode = cathodeOf(part);
  if (cathode === null) return false;
  const anodeEnd = plan.wires[terminalKey(placement.id, firstOrThrow(part.terminals.list).id)]?.end;
  const end = plan.wires[terminalKey(placement.id, cathode)]?.end;
  if (isInString(plan, sheets, placement, part)) return false;
  if (end?.to === 'pin') return anodeEnd?.to !== 'pin' && anodeEnd?.to !== 'terminal';
  if (anodeEnd?.to !== 'rail' || end?.to === 'ground' || end?.to === 'rail') return false;
  // Another LED behind it is a string of LEDs.
  const next = end?.to === 'terminal' ? plan.placements.find((p) => p.id === end.placement) : undefined;
  const nextPart = next && partSheet(sheets, next.sheet)?.sheet;
  return !nextPart || cathodeOf(nextPart) === null;
}

function terminalsIn(plan: Plan, placement: Placement, sheets: Sheets): readonly PlanTerminal[] {
  const sheet = partSheet(sheets, placement.sheet)?.sheet;
  if (!sheet) return [];
  const part = isActiveLow(plan, sheets, placement, sheet) ? asActiveLow(sheet) : sheet;
  if (standsAlone(part)) return alone(plan, placement, part);
  const head = chainHead(plan, placement, sheets);
  return part.terminals.list.map((terminal): PlanTerminal => {
    const key = terminalKey(placement.id, terminal.id);
    const wire = plan.wires[key];
    const own = { placement, part, terminal, wire };
    const joins = terminal.line ? joinedWith(plan, sheets, own) : tiedLine(plan, own);
    const item: PlanTerminal = { key, placement, part, terminal: inPlan(plan, key, terminal), wire, head, ...(joins ? { joins } : {}) };
    if (part.sinks) return inUse(plan, part, item);
    return part.levelShifter ? standingFor(plan, sheets, item) : item;
  });
}

/** The terminals of each placement, by its id. */
const byPlacement = memoizeByPair((plan: Plan, sheets: Sheets): ReadonlyMap<string, readonly PlanTerminal[]> => {
  const split = incrementalSplit(plan, sheets);
  if (split) return new Map(byPlacement(split.base, sheets)).set(split.placement.id, terminalsIn(plan, split.placement, sheets));
  return new Map(plan.placements.map((placement) => [placement.id, terminalsIn(plan, placement, sheets)]));
});

/** Every terminal of a placement of the plan in printed order; empty where its sheet is gone. */
export function terminalsOf(plan: Plan, placement: Pick<Placement, 'id'>, sheets: Sheets): readonly PlanTerminal[] {
  return byPlacement(plan, sheets).get(placement.id) ?? [];
}

/** Every terminal of the plan, part by part in printed order. */
export const planTerminals = memoizeByPair((plan: Plan, sheets: Sheets): readonly PlanTerminal[] => {
  const split = incrementalSplit(plan, sheets);
  if (split) return [...planTerminals(split.base, sheets), ...terminalsOf(plan, split.placement, sheets)];
  return [...byPlacement(plan, sheets).values()].flat();
});

/** What makes two terminals the same signal when they meet on one pin: bus lines join, parts of a chain share the
 *  select, latch and clock of its head, all else is private. */
export function signalOf(item: PlanTerminal): string {
  if (PIN_ROLES[item.terminal.role]?.shared) return item.terminal.role;
  if (item.joins) return item.joins;
  // LEDs on one output, each with its own resistor, are one signal; digits take turns and are not.
  if (item.terminal.led && item.wire?.end.to === 'pin' && !hasDigits(item.part)) return `${item.terminal.id} at ${item.wire.end.pin}`;
  const follows = item.head !== item.placement.id && PIN_ROLES[item.terminal.role]?.output && !item.terminal.chain;
  return follows ? terminalKey(item.head, item.terminal.id) : item.key;
}
