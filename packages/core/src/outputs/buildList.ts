import { holesOfWire, holesValue } from './holes/stepHoles';
import { has, type With } from '../collections/has';
import { findOrThrow, getOrThrow } from '../collections/orThrow';
import { partSheet, type IndexedBoard, type Sheets } from '../sheets/sheetIndex';
import { driverAt } from '../nets/multiplexed';
import { findNets, type Nets } from '../nets/nets';
import { openTerminals } from '../nets/openTerminals';
import { planTerminals, type PlanTerminal } from '../nets/terminals';
import { boardOf, boardOrThrow, partOf } from '../plan/edit';
import { endTerminal } from '../plan/planRails';
import { endKey, type Plan, sameEnd, type TerminalKey, terminalKey, type WireColour, type WireEnd, type WireNote } from '../plan/plan';
import { type Component, isDivider, planComponents } from '../electrics/reports/components';
import { type BoardPosition, positionsOf } from './boardPosition';
import { usualGround } from './usualGround';

export interface BuildWire {
  readonly key: TerminalKey;
  readonly placement: string;
  readonly label: string;
  readonly number: number;
  readonly colour: WireColour;
  readonly locked: boolean;
  readonly end: WireEnd;
  /** Of a wire to another part, or to the supply that one gives: the module pin at the other end. */
  readonly endNumber?: number;
  /** `junction`: more wires go there than the board has positions, so they are joined and one wire leads to the board. `supply rail`:
   *  the supply pins of a bare chip and of its parts meet on a rail of the breadboard. */
  readonly joined?: 'junction' | 'supply rail';
  /** Where the wire goes on the board: the best position first, then others on the same conductor. */
  readonly at: readonly BoardPosition[];
  readonly through: string | undefined;
  /** The transistor and the resistor in the wire, and the divider at its end. */
  readonly components: readonly Component[];
  readonly ticked: boolean;
  /** The bench note on it; void once the wire ends elsewhere. */
  readonly note: WireNote | undefined;
  readonly noteHolds: boolean;
  /** The end this wire had when it was ticked, where it has moved since. */
  readonly wasAt: WireEnd | undefined;
  /** Its holes on the breadboard, as they are kept with its tick; empty where it has none. */
  readonly holes: string;
  /** The holes that it was marked done in, where they are others now. */
  readonly wasIn: string | undefined;
}

export interface BuildStrap {
  readonly placement: string;
  readonly strap: string;
  readonly words: string;
}

/** Pull-ups of a module to disconnect. */
export interface BuildCut {
  readonly placement: string;
  readonly how: 'jumper' | 'resistor';
  readonly ohms: number;
}

/** A terminal that the plan does not wire, with what its sheet says about that. */
export interface OtherTerminal {
  readonly label: string;
  readonly note: string | undefined;
}

/** A pin, rail or ground of the board, or a supply that a part gives, with more wires than positions. */
export interface Joint {
  readonly end: WireEnd;
  readonly wires: number;
  /** Of the supply that a part gives: its module pin. */
  readonly endNumber?: number;
  readonly at: readonly BoardPosition[];
}

/** The build list: joints, then grounds and supplies first, then jumpers, then signal wires part by part in printed order. */
export interface BuildList {
  readonly joints: readonly Joint[];
  readonly supplies: readonly BuildWire[];
  readonly straps: readonly BuildStrap[];
  readonly cuts: readonly BuildCut[];
  /** Resistors, trimmers, capacitors and transistors to add. */
  readonly components: readonly Component[];
  /** Inputs of logic buffers that nothing goes to: they go to ground. */
  readonly idle: readonly { readonly placement: string; readonly labels: readonly string[] }[];
  /** Terminals without a wire that are no mistake: left open, or connected to something outside of the plan. */
  readonly others: readonly { readonly placement: string; readonly terminals: readonly OtherTerminal[] }[];
  readonly signals: readonly BuildWire[];
  readonly open: readonly { readonly placement: string; readonly label: string }[];
}

function endNumberOf(plan: Plan, sheets: Sheets, end: WireEnd): Pick<BuildWire, 'endNumber'> {
  const at = endTerminal(end);
  const number = at && partOf(plan, at.placement, sheets)?.terminals.get(at.terminal)?.number;
  return number === undefined ? {} : { endNumber: number };
}

/** The board positions for an end: an analog ground is left to what needs it. */
function placesFor(board: IndexedBoard, end: WireEnd): readonly BoardPosition[] {
  const all = positionsOf(board, end);
  return end.to === 'ground' ? usualGround(all) : all;
}

function joinedAt(board: IndexedBoard, end: WireEnd, joints: readonly Joint[]): Pick<BuildWire, 'joined'> {
  if (board.sheet.chipCircuit && (end.to === 'rail' || end.to === 'ground') && !endTerminal(end)) return { joined: 'supply rail' };
  return joints.some((joint) => sameEnd(joint.end, end)) ? { joined: 'junction' } : {};
}

/** Whether a component is in the wire of its terminal, or at its end. */
const isInWire = (one: Component): boolean => one.role === 'series' || one.role === 'transistor' || isDivider(one);

/** The id of a wire's step, under which the holes are kept that it was marked done in. */
export const wireStepId = (key: TerminalKey): string => `wire:${key}`;

function buildWire(plan: Plan, sheets: Sheets, item: With<PlanTerminal, 'wire'>, joints: readonly Joint[]): BuildWire {
  const board = boardOrThrow(plan, sheets);
  const components = planComponents(plan, sheets);
  const { wire } = item;
  const done = plan.ticks[item.key];
  const isDone = sameEnd(done, wire.end);
  const inWire = components.filter((one) => one.key === item.key && isInWire(one));
  const holes = holesValue(plan.breadboard, holesOfWire(plan, sheets, { key: item.key, components: inWire }));
  const wasIn = plan.steps[wireStepId(item.key)];
  // Without a breadboard, or marked before there was one, the holes do not matter.
  const isMoved = holes !== '' && wasIn !== undefined && wasIn !== holes;
  return {
    key: item.key,
    placement: item.placement.id,
    label: item.terminal.label,
    number: item.terminal.number,
    colour: wire.colour,
    locked: wire.locked,
    end: wire.end,
    ...endNumberOf(plan, sheets, wire.end),
    ...joinedAt(board, wire.end, joints),
    at: placesFor(board, wire.end),
    // A driver limits and switches the current of what is on it.
    through: driverAt(plan, sheets, item.key) ? undefined : item.terminal.through,
    components: inWire,
    note: plan.wireNotes[item.key],
    noteHolds: sameEnd(plan.wireNotes[item.key]?.end, wire.end),
    holes,
    ticked: isDone && !isMoved,
    wasAt: done && !isDone ? done : undefined,
    wasIn: isDone && isMoved ? wasIn : undefined,
  };
}

function jumpers(plan: Plan, sheets: Sheets): readonly BuildStrap[] {
  return plan.placements.flatMap((placement) =>
    (placement.onBoard ? [] : (partSheet(sheets, placement.sheet)?.sheet.bus.straps ?? [])).flatMap((strap) => {
      if (strap.by !== 'jumper') return [];
      const state = placement.straps[strap.id] ?? strap.default;
      if (state === strap.default) return [];
      return [{ placement: placement.id, strap: strap.id, words: findOrThrow(strap.states, (s) => s.id === state).words }];
    }),
  );
}

function cuts(plan: Plan, sheets: Sheets): readonly BuildCut[] {
  return plan.placements.flatMap((placement): BuildCut[] => {
    const own = placement.pullUpsCut ? (partSheet(sheets, placement.sheet)?.sheet.module.pullUps ?? []) : [];
    return own.slice(0, 1).map(({ cut: how, ohms }) => ({ placement: placement.id, how, ohms }));
  });
}

/** The inputs of channels that nothing is wired to: an open input of such a chip swings. */
function idleInputs(plan: Plan, sheets: Sheets): BuildList['idle'] {
  const reached = new Set([
    ...Object.keys(plan.wires),
    ...Object.values(plan.wires).flatMap(({ end }) => (end.to === 'terminal' ? [terminalKey(end.placement, end.terminal)] : [])),
  ]);
  return plan.placements.flatMap(({ id, sheet }) => {
    const part = partSheet(sheets, sheet);
    const levelShifter = part?.sheet.levelShifter;
    if (!part || !levelShifter?.drives) return [];
    const inputs = levelShifter.channels
      .map((c) => (levelShifter.drives === 'up' ? c.low : c.high))
      .filter((t) => !reached.has(terminalKey(id, t)));
    return inputs.length > 0 ? [{ placement: id, labels: inputs.map((t) => part.terminals.get(t)?.label ?? t) }] : [];
  });
}

/** Terminals that nothing reaches and that need no wire, part by part; inputs that are tied to ground are among the idle ones. */
function otherTerminals(
  all: readonly PlanTerminal[],
  nets: Nets,
  { idle, components }: Pick<BuildList, 'idle' | 'components'>,
): BuildList['others'] {
  const atComponent = new Set(
    components.flatMap(({ ends }) => ends.flatMap(({ at }) => (at.to === 'terminal' ? terminalKey(at.placement, at.terminal) : []))),
  );
  const byPart = new Map<string, OtherTerminal[]>();
  for (const { key, placement, terminal, wire, carries } of all) {
    if (wire || carries || terminal.need === 'needed' || nets.byTerminal.has(key) || atComponent.has(key)) continue;
    if (idle.some((one) => one.placement === placement.id && one.labels.includes(terminal.label))) continue;
    const note = terminal.ifOpen?.note ?? terminal.note;
    byPart.set(placement.id, [...(byPart.get(placement.id) ?? []), { label: terminal.label, note }]);
  }
  return [...byPart].map(([placement, terminals]) => ({ placement, terminals }));
}

const isOnBoard = (end: WireEnd): boolean => end.to === 'pin' || end.to === 'rail' || end.to === 'ground';

/** Ends with more wires than board positions, at one wire per position. Rails without header positions are left out, pins with a
 *  conflict, which must be separated first, and the supplies of a bare chip, which are rails of the breadboard. Ground first, then rails,
 *  then pins in board order. */
function jointsOf(plan: Plan, sheets: Sheets, wired: readonly PlanTerminal[], components: readonly Component[]): readonly Joint[] {
  const nets = findNets(plan, sheets);
  const board = boardOrThrow(plan, sheets);
  const byEnd = new Map<string, { readonly end: WireEnd; wires: number }>();
  const ends = [
    ...wired.flatMap(({ wire }) => wire?.end ?? []),
    // Legs of components go to rails and ground by wires of their own; those at pins are in the wire of their terminal.
    ...components.flatMap((one) => one.ends.flatMap(({ at }) => (at.to === 'rail' || at.to === 'ground' ? at : []))),
  ];
  for (const end of ends) {
    if (!isOnBoard(end) || (board.sheet.chipCircuit && end.to !== 'pin' && !endTerminal(end))) continue;
    if (end.to === 'pin' && getOrThrow(nets.byPin, end.pin).signals.length > 1) continue;
    const key = endKey(end);
    const known = byEnd.get(key);
    if (known) known.wires += 1;
    else byEnd.set(key, { end, wires: 1 });
  }
  const order = new Map(board.sheet.pins.list.map(({ id }, at) => [id, at]));
  const rank = (end: WireEnd): number => (end.to === 'ground' ? -2 : end.to === 'pin' ? getOrThrow(order, end.pin) : -1);
  return [...byEnd.values()]
    .flatMap(({ end, wires }) => {
      const at = placesFor(board, end);
      // A module has one pin for the supply that it gives.
      const room = endTerminal(end) ? 1 : at.length;
      return room > 0 && wires > room ? [{ end, wires, at, ...endNumberOf(plan, sheets, end) }] : [];
    })
    .toSorted((a, b) => rank(a.end) - rank(b.end));
}

const isSupply = (item: PlanTerminal): boolean => item.wire?.end.to === 'ground' || item.wire?.end.to === 'rail';

/** What to wire, in the order to wire it. Undefined where the board's sheet is gone. */
export function buildList(plan: Plan, sheets: Sheets): BuildList | undefined {
  const board = boardOf(plan, sheets);
  if (!board) return undefined;
  const all = planTerminals(plan, sheets).filter((item) => !item.placement.onBoard);
  const wired = all.filter(has('wire'));
  const grounds = wired.filter((item) => item.wire.end.to === 'ground');
  const rails = wired.filter((item) => item.wire.end.to === 'rail');
  const nets = findNets(plan, sheets);
  const idle = idleInputs(plan, sheets);
  const components = planComponents(plan, sheets);
  const joints = jointsOf(plan, sheets, [...grounds, ...rails, ...wired.filter((item) => !isSupply(item))], components);
  return {
    joints,
    supplies: [...grounds, ...rails].map((item) => buildWire(plan, sheets, item, joints)),
    straps: jumpers(plan, sheets),
    cuts: cuts(plan, sheets),
    components,
    idle,
    others: otherTerminals(all, nets, { idle, components }),
    signals: wired.filter((item) => !isSupply(item)).map((item) => buildWire(plan, sheets, item, joints)),
    open: openTerminals(all, nets).map((item) => ({ placement: item.placement.id, label: item.terminal.label })),
  };
}
