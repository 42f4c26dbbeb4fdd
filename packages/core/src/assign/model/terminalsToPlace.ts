import { PIN_ROLES } from '../../sheets/roles';
import type { IndexedBoard, Sheets } from '../../sheets/sheetIndex';
import { findBuses } from '../../nets/buses';
import { findNets, type Nets } from '../../nets/nets';
import { planTerminals, type PlanTerminal, signalOf, terminalsOf } from '../../nets/terminals';
import type { Plan } from '../../plan/plan';
import { wantsPin } from '../fit/pinFit';

/** What an instance is about. */
export interface InstanceScope {
  /** The placement whose open terminals are to be served; without it those of all. */
  readonly only?: string;
  /** What is wired stays where it is, so that only what meets the open terminals has to be looked at. */
  readonly freeze?: boolean;
  /** Wires that stay where they are, besides the locked ones. */
  readonly keep?: readonly string[];
}

/** A terminal that needs a pin, and whether its present pin is fixed. */
export interface TerminalToPlace extends PlanTerminal {
  readonly fixed: boolean;
  /** The bus whose members are fixed together: nothing about them is to be chosen. */
  readonly bus?: string;
}

/** Terminals that need a pin: required and unconnected ones, and those with a pin already. Terminals tied to ground or a rail, or
 *  connected to another part, need none. */
export function terminalsToPlace(plan: Plan, sheets: Sheets, board: IndexedBoard, scope: InstanceScope): readonly TerminalToPlace[] {
  const { only, freeze, keep = [] } = scope;
  const nets = findNets(plan, sheets);
  const served = only === undefined ? planTerminals(plan, sheets) : terminalsOf(plan, { id: only }, sheets);
  const open = served.filter((item) => !item.wire && isOpen(nets, item));
  const there = atPins(plan, sheets, board, nets);
  if (freeze) return [...metBy(plan, sheets, open, there), ...open.map((item) => ({ ...item, fixed: false }))];
  const fixed = (item: PlanTerminal) =>
    item.wire?.locked === true || item.placement.onBoard === true || (item.wire !== undefined && keep.includes(item.key));
  const all = new Set([...there, ...open]);
  return planTerminals(plan, sheets).flatMap((item) => (all.has(item) ? [{ ...item, fixed: fixed(item) }] : []));
}

const isOpen = (nets: Nets, { key, terminal }: PlanTerminal): boolean =>
  wantsPin(terminal) && !nets.byTerminal.has(key) && terminal.need === 'needed' && terminal.role !== 'strap' && terminal.ties?.length !== 1;

/** By nets: the terminals that need a pin and have one. */
const atPinsOf = new WeakMap<Nets, readonly PlanTerminal[]>();

function atPins(plan: Plan, sheets: Sheets, board: IndexedBoard, nets: Nets): readonly PlanTerminal[] {
  let found = atPinsOf.get(nets);
  if (!found) {
    // A wire to the board reset is fixed: no signal pin can replace it.
    found = planTerminals(plan, sheets).filter(
      ({ terminal, wire }) => wire?.end.to === 'pin' && wantsPin(terminal) && !board.pins.get(wire.end.pin)?.control,
    );
    atPinsOf.set(nets, found);
  }
  return found;
}

/** Of wired terminals that stay where they are those that open ones can meet: on a bus of their kind, or as the same signal. */
function metBy(plan: Plan, sheets: Sheets, open: readonly PlanTerminal[], there: readonly PlanTerminal[]): readonly TerminalToPlace[] {
  const signals = new Set(open.map(signalOf));
  const kinds = new Set(open.flatMap((item) => PIN_ROLES[item.terminal.role]?.line?.kind ?? []));
  const meets = (item: PlanTerminal) => {
    const kind = PIN_ROLES[item.terminal.role]?.line?.kind;
    return kind ? kinds.has(kind) : signals.has(signalOf(item));
  };
  const buses = new Map(findBuses(plan, sheets).flatMap((bus) => bus.members.map((m) => [`${m.id}:${bus.kind}`, bus.id] as const)));
  const opens = new Set(open.map((item) => item.placement.id));
  return there.filter(meets).map((item) => {
    const kind = PIN_ROLES[item.terminal.role]?.line?.kind;
    const bus = kind && !opens.has(item.placement.id) ? buses.get(`${item.placement.id}:${kind}`) : undefined;
    return { ...item, fixed: true, ...(bus === undefined ? {} : { bus }) };
  });
}
