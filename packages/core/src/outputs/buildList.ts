import { partSheet, type IndexedBoard, type Sheets } from '../sheets/sheetIndex';
import { pullFeed } from '../electrics/busInputs';
import { findBuses } from '../nets/buses';
import { findNets, type Nets } from '../nets/nets';
import { segmentsOf } from '../nets/segments';
import { openTerminals } from '../nets/openTerminals';
import { planTerminals, type PlanTerminal } from '../nets/terminals';
import { boardOf, partOf } from '../plan/edit';
import {
  type Driver,
  endKey,
  type LadderValues,
  type Plan,
  sameEnd,
  splitKey,
  type TerminalKey,
  terminalKey,
  type WireColour,
  type WireEnd,
  type WireNote,
} from '../plan/plan';
import { wantedCapacitors } from '../electrics/supplySheet';
import { type BoardPosition, positionsOf } from './boardPosition';

export interface BuildWire {
  readonly key: TerminalKey;
  readonly placement: string;
  readonly label: string;
  readonly number: number;
  readonly colour: WireColour;
  readonly locked: boolean;
  readonly end: WireEnd;
  /** Of a wire between parts: the module pin at the other end. */
  readonly endNumber?: number;
  /** `junction`: more wires go there than the board has positions, so they are joined and one wire leads to the board. `supply rail`:
   *  the supply pins of a bare chip and of its parts meet on a rail of the breadboard. */
  readonly joined?: 'junction' | 'supply rail';
  /** Where the wire goes on the board: the best position first, then others on the same conductor. */
  readonly at: readonly BoardPosition[];
  readonly through: string | undefined;
  /** A resistor in the wire, in ohms. */
  readonly series: number | undefined;
  /** A transistor between the terminal and the pin. */
  readonly driver?: Driver;
  readonly ticked: boolean;
  /** The bench note on it; void once the wire ends elsewhere. */
  readonly note: WireNote | undefined;
  readonly noteHolds: boolean;
  /** The end this wire had when it was ticked, where it has moved since. */
  readonly wasAt: WireEnd | undefined;
}

export interface BuildStrap {
  readonly placement: string;
  readonly strap: string;
  readonly words: string;
}

/** A resistor to add or remove. */
export type BuildResistor =
  | { readonly do: 'cut'; readonly placement: string; readonly how: 'jumper' | 'resistor'; readonly ohms: number }
  /** `from`: where its other end goes, for one that is in no wire: the supply terminal of its own part. */
  | { readonly do: 'series'; readonly key: TerminalKey; readonly ohms: number; readonly from?: string }
  | { readonly do: 'driver'; readonly key: TerminalKey; readonly driver: Driver }
  /** Keys on one analog pin: the resistor that holds the pin, then the row. */
  | { readonly do: 'ladder'; readonly placement: string; readonly ladder: LadderValues }
  /** `rail`: the rail that a pull-up goes to. */
  | { readonly do: 'pull'; readonly key: TerminalKey; readonly ohms: number; readonly to: 'supply' | 'ground'; readonly rail?: string }
  /** One from each line of a segment to its supply. */
  | {
      readonly do: 'add';
      readonly segment: string;
      readonly controller: string;
      readonly behind: string | undefined;
      readonly ohms: number;
    };

/** A terminal that the plan does not wire, with what its sheet says about that. */
export interface OtherTerminal {
  readonly label: string;
  readonly note: string | undefined;
}

/** A pin, rail or ground of the board with more wires than positions. */
export interface Joint {
  readonly end: WireEnd;
  readonly wires: number;
  readonly at: readonly BoardPosition[];
}

/** The build list: joints, then grounds and supplies first, then jumpers, then signal wires part by part in printed order. */
export interface BuildList {
  readonly joints: readonly Joint[];
  readonly supplies: readonly BuildWire[];
  readonly straps: readonly BuildStrap[];
  readonly resistors: readonly BuildResistor[];
  /** Capacitors beside parts, as far as the plan has them. */
  readonly capacitors: readonly { readonly placement: string; readonly farads: number; readonly at: string }[];
  /** Inputs of logic buffers that nothing goes to: they go to ground. */
  readonly idle: readonly { readonly placement: string; readonly labels: readonly string[] }[];
  /** Terminals without a wire that are no mistake: left open, or connected to something outside of the plan. */
  readonly others: readonly { readonly placement: string; readonly terminals: readonly OtherTerminal[] }[];
  readonly signals: readonly BuildWire[];
  readonly open: readonly { readonly placement: string; readonly label: string }[];
}

function endNumberOf(plan: Plan, sheets: Sheets, end: WireEnd): Pick<BuildWire, 'endNumber'> {
  const number = end.to === 'terminal' ? partOf(plan, end.placement, sheets)?.terminals.get(end.terminal)?.number : undefined;
  return number === undefined ? {} : { endNumber: number };
}

function joinedAt(board: IndexedBoard, end: WireEnd, joints: readonly Joint[]): Pick<BuildWire, 'joined'> {
  if (board.sheet.chipCircuit && (end.to === 'rail' || end.to === 'ground')) return { joined: 'supply rail' };
  return joints.some((joint) => sameEnd(joint.end, end)) ? { joined: 'junction' } : {};
}

function buildWire(plan: Plan, sheets: Sheets, board: IndexedBoard, item: PlanTerminal, joints: readonly Joint[]): BuildWire {
  const wire = item.wire!;
  const done = plan.ticks[item.key];
  return {
    key: item.key,
    placement: item.placement.id,
    label: item.terminal.label,
    number: item.terminal.number,
    colour: wire.colour,
    locked: wire.locked,
    end: wire.end,
    ...(plan.drivers[item.key] ? { driver: plan.drivers[item.key]! } : {}),
    ...endNumberOf(plan, sheets, wire.end),
    ...joinedAt(board, wire.end, joints),
    at: positionsOf(board, wire.end),
    through: item.terminal.through,
    series: plan.series[item.key],
    note: plan.wireNotes[item.key],
    noteHolds: sameEnd(plan.wireNotes[item.key]?.end, wire.end),
    ticked: sameEnd(done, wire.end),
    wasAt: done && !sameEnd(done, wire.end) ? done : undefined,
  };
}

function jumpers(plan: Plan, sheets: Sheets): readonly BuildStrap[] {
  return plan.placements.flatMap((placement) =>
    (placement.onBoard ? [] : (partSheet(sheets, placement.sheet)?.sheet.bus.straps ?? [])).flatMap((strap) => {
      if (strap.by !== 'jumper') return [];
      const state = placement.straps[strap.id] ?? strap.default;
      if (state === strap.default) return [];
      return [{ placement: placement.id, strap: strap.id, words: strap.states.find((s) => s.id === state)!.words }];
    }),
  );
}

/** The supply terminal that the current-setting resistor of a driver comes from. */
function setFrom(plan: Plan, sheets: Sheets, key: TerminalKey): string | undefined {
  const { placement, terminal } = splitKey(key);
  const part = partOf(plan, placement, sheets)?.sheet;
  return part?.currentSet?.terminal === terminal ? part.terminals.list.find((t) => t.role === 'supply.vcc')?.label : undefined;
}

function resistors(plan: Plan, sheets: Sheets): readonly BuildResistor[] {
  const cut = plan.placements.flatMap((placement): BuildResistor[] => {
    const own = placement.pullUpsCut ? (partSheet(sheets, placement.sheet)?.sheet.module.pullUps ?? []) : [];
    return own.slice(0, 1).map(({ cut: how, ohms }) => ({ do: 'cut', placement: placement.id, how, ohms }));
  });
  const added = findBuses(plan, sheets)
    .filter((bus) => bus.kind === 'i2c' && bus.controller !== undefined)
    .flatMap((bus) =>
      segmentsOf(plan, sheets, bus).flatMap(({ id, via }): BuildResistor[] => {
        const ohms = plan.busSettings[id]?.addedOhms;
        return ohms === undefined ? [] : [{ do: 'add', segment: id, controller: bus.controller!, behind: via?.placement.id, ohms }];
      }),
    );
  const pulls = Object.entries(plan.pulls).map(([key, pull]): BuildResistor => {
    const rail = pull.to === 'supply' ? pullFeed(plan, sheets, key)?.rail : undefined;
    return { do: 'pull', key, ...pull, ...(rail === undefined ? {} : { rail }) };
  });
  const inWires = Object.entries(plan.series).map(([key, ohms]): BuildResistor => {
    const from = setFrom(plan, sheets, key);
    return { do: 'series', key, ohms, ...(from === undefined ? {} : { from }) };
  });
  const drivers = Object.entries(plan.drivers).map(([key, driver]): BuildResistor => ({ do: 'driver', key, driver }));
  const ladders = Object.entries(plan.ladders).map(([placement, ladder]): BuildResistor => ({ do: 'ladder', placement, ladder }));
  return [...cut, ...inWires, ...drivers, ...added, ...pulls, ...ladders];
}

/** The inputs of channels that nothing is wired to: an open input of such a chip swings. */
function idleInputs(plan: Plan, sheets: Sheets): BuildList['idle'] {
  const reached = new Set([
    ...Object.keys(plan.wires),
    ...Object.values(plan.wires).flatMap(({ end }) => (end.to === 'terminal' ? [terminalKey(end.placement, end.terminal)] : [])),
  ]);
  return plan.placements.flatMap(({ id, sheet }) => {
    const part = partSheet(sheets, sheet);
    const { drives, channels } = part?.sheet.passage ?? {};
    if (!drives) return [];
    const inputs = channels!.map((c) => (drives === 'up' ? c.low : c.high)).filter((t) => !reached.has(terminalKey(id, t)));
    return inputs.length > 0 ? [{ placement: id, labels: inputs.map((t) => part!.terminals.get(t)?.label ?? t) }] : [];
  });
}

/** Terminals that nothing reaches and that need no wire, part by part; inputs that are tied to ground are among the idle ones. */
function otherTerminals(all: readonly PlanTerminal[], nets: Nets, idle: BuildList['idle']): BuildList['others'] {
  const byPart = new Map<string, OtherTerminal[]>();
  for (const { key, placement, terminal, wire, carries } of all) {
    if (wire || carries || terminal.need === 'needed' || nets.byTerminal.has(key)) continue;
    if (idle.some((one) => one.placement === placement.id && one.labels.includes(terminal.label))) continue;
    const note = terminal.ifOpen?.note ?? terminal.note;
    byPart.set(placement.id, [...(byPart.get(placement.id) ?? []), { label: terminal.label, note }]);
  }
  return [...byPart].map(([placement, terminals]) => ({ placement, terminals }));
}

/** Ends with more wires than board positions, at one wire per position. Rails without header positions are left out, pins with a
 *  conflict, which must be separated first, and the supplies of a bare chip, which are rails of the breadboard. Ground first, then rails,
 *  then pins in board order. */
function jointsOf(board: IndexedBoard, nets: Nets, wired: readonly PlanTerminal[]): readonly Joint[] {
  const byEnd = new Map<string, { readonly end: WireEnd; wires: number }>();
  for (const { wire } of wired) {
    if (!wire || wire.end.to === 'terminal' || (board.sheet.chipCircuit && wire.end.to !== 'pin')) continue;
    if (wire.end.to === 'pin' && nets.byPin.get(wire.end.pin)!.signals.length > 1) continue;
    const key = endKey(wire.end);
    const known = byEnd.get(key);
    if (known) known.wires += 1;
    else byEnd.set(key, { end: wire.end, wires: 1 });
  }
  const order = new Map(board.sheet.pins.list.map(({ id }, at) => [id, at]));
  const rank = (end: WireEnd): number => (end.to === 'ground' ? -2 : end.to === 'pin' ? order.get(end.pin)! : -1);
  return [...byEnd.values()]
    .flatMap(({ end, wires }) => {
      const at = positionsOf(board, end);
      return at.length > 0 && wires > at.length ? [{ end, wires, at }] : [];
    })
    .toSorted((a, b) => rank(a.end) - rank(b.end));
}

const isSupply = (item: PlanTerminal): boolean => item.wire?.end.to === 'ground' || item.wire?.end.to === 'rail';

/** What to wire, in the order to wire it. Undefined where the board's sheet is gone. */
export function buildList(plan: Plan, sheets: Sheets): BuildList | undefined {
  const board = boardOf(plan, sheets);
  if (!board) return undefined;
  const all = planTerminals(plan, sheets).filter((item) => !item.placement.onBoard);
  const wired = all.filter((item) => item.wire);
  const grounds = wired.filter((item) => item.wire!.end.to === 'ground');
  const rails = wired.filter((item) => item.wire!.end.to === 'rail');
  const nets = findNets(plan, sheets);
  const idle = idleInputs(plan, sheets);
  const joints = jointsOf(board, nets, [...grounds, ...rails, ...wired.filter((item) => !isSupply(item))]);
  return {
    joints,
    supplies: [...grounds, ...rails].map((item) => buildWire(plan, sheets, board, item, joints)),
    straps: jumpers(plan, sheets),
    resistors: resistors(plan, sheets),
    capacitors: wantedCapacitors(plan, sheets).flatMap(({ placement, list, there }) =>
      there ? list.map((one) => ({ placement, ...one })) : [],
    ),
    idle,
    others: otherTerminals(all, nets, idle),
    signals: wired.filter((item) => !isSupply(item)).map((item) => buildWire(plan, sheets, board, item, joints)),
    open: openTerminals(all, nets).map((item) => ({ placement: item.placement.id, label: item.terminal.label })),
  };
}
