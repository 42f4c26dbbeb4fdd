import type { BoardPin } from '../sheets/boardSheet';
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

/** A position on the board, counted the ways a finger counts. */
export interface BoardPosition {
  readonly header: string;
  readonly headerTitle: string;
  readonly side: 'left' | 'right' | 'inside';
  /** The number on the header, from pin 1. */
  readonly position: number;
  /** Of a header with two rows, the row that it is in. */
  readonly row: 'odd' | 'even' | undefined;
  /** Counted from the nearer end of the header, or of its row, from 1. */
  readonly fromEnd: number;
  readonly end: string;
  readonly label: string;
  readonly port: string | undefined;
}

export interface BuildWire {
  readonly key: TerminalKey;
  readonly placement: string;
  readonly label: string;
  readonly number: number;
  readonly colour: WireColour;
  readonly locked: boolean;
  readonly end: WireEnd;
  /** More wires go there than the board has positions: they are joined, and one wire leads from the joint to the board. */
  readonly joined: boolean;
  /** Where the wire goes on the board: the best position first, then others on the same conductor. */
  readonly at: readonly BoardPosition[];
  readonly through: string | undefined;
  /** A resistor in the wire, in ohms. */
  readonly series: number | undefined;
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

function positionOf(board: IndexedBoard, pin: BoardPin): BoardPosition {
  const header = board.sheet.headers.list.find((h) => h.id === pin.header)!;
  const all = board.sheet.pins.list.filter((p) => p.header === pin.header);
  // In two rows a finger counts along one of them: pin 5 is the third of the odd ones.
  const row = header.rows === 2 ? all.filter((p) => p.position! % 2 === pin.position! % 2) : all;
  const fromFirst = row.indexOf(pin) + 1;
  const fromLast = row.length - fromFirst + 1;
  const nearFirst = fromFirst <= fromLast;
  return {
    header: header.id,
    headerTitle: header.title,
    side: header.side,
    position: pin.position!,
    row: header.rows === 2 ? (pin.position! % 2 === 1 ? 'odd' : 'even') : undefined,
    fromEnd: nearFirst ? fromFirst : fromLast,
    end: header.ends[nearFirst ? 0 : 1],
    label: pin.label,
    port: pin.port,
  };
}

/** Every position on the board where a wire end can be plugged in, in sheet order. */
export function positionsOf(board: IndexedBoard, end: WireEnd): readonly BoardPosition[] {
  const pins = board.sheet.pins.list.filter((pin) => {
    if (!pin.header) return false;
    if (end.to === 'pin') return (pin.sameAs ?? pin.id) === end.pin;
    if (end.to === 'rail') return pin.kind === 'supply' && pin.rail === end.rail;
    return end.to === 'ground' && pin.kind === 'ground';
  });
  return pins.map((pin) => positionOf(board, pin));
}

function buildWire(plan: Plan, board: IndexedBoard, item: PlanTerminal, joints: readonly Joint[]): BuildWire {
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
    joined: joints.some(({ end }) => sameEnd(end, wire.end)),
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

/** Ends with more wires than board positions, at one wire per position. Rails without header positions are left out, and pins with a
 *  conflict, which must be separated first. Ground first, then rails, then pins in board order. */
function jointsOf(board: IndexedBoard, nets: Nets, wired: readonly PlanTerminal[]): readonly Joint[] {
  const byEnd = new Map<string, { readonly end: WireEnd; wires: number }>();
  for (const { wire } of wired) {
    if (!wire || wire.end.to === 'terminal') continue;
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
    supplies: [...grounds, ...rails].map((item) => buildWire(plan, board, item, joints)),
    straps: jumpers(plan, sheets),
    resistors: resistors(plan, sheets),
    capacitors: wantedCapacitors(plan, sheets).flatMap(({ placement, list, there }) =>
      there ? list.map((one) => ({ placement, ...one })) : [],
    ),
    idle,
    others: otherTerminals(all, nets, idle),
    signals: wired.filter((item) => !isSupply(item)).map((item) => buildWire(plan, board, item, joints)),
    open: openTerminals(all, nets).map((item) => ({ placement: item.placement.id, label: item.terminal.label })),
  };
}
