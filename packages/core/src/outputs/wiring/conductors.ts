import { atOrThrow } from '../../collections/orThrow';
import { type Component, type ComponentEnd, type ComponentPoint, isDivider, planComponents } from '../../electrics/reports/components';
import { Joined } from '../../nets/joined';
import { nodeOf } from '../../nets/nets';
import { planTerminals } from '../../nets/terminals';
import { boardOf } from '../../plan/edit';
import { type Plan, type TerminalKey, terminalKey, type WireColour } from '../../plan/plan';
import type { BoardPin } from '../../sheets/boardSheet';
import { type IndexedBoard, partSheet, type Sheets } from '../../sheets/sheetIndex';

/** A part or a component as a box with terminals. */
export interface WiringModule {
  /** Placement, or the component's id. */
  readonly id: string;
  readonly component?: Component;
  /** The part that a component belongs to: it is drawn below that one. */
  readonly owner?: string;
  readonly terminals: readonly { readonly id: string; readonly label: string }[];
}

export interface ConductorEnd {
  readonly module: string;
  readonly terminal: string;
  /** Of the wire that belongs to the terminal. */
  readonly colour?: WireColour;
  /** The resistor in that wire. */
  readonly series?: Component;
}

/** Everything that one wire system joins, with what it ends at. */
export interface Conductor {
  readonly id: string;
  readonly kind: 'ground' | 'supply' | 'signal';
  readonly colour: WireColour;
  readonly ends: readonly ConductorEnd[];
  /** Board pins, each with the positions that lie on it. Of a rail or of ground one of them is enough. */
  readonly pins: readonly (readonly string[])[];
}

const terminalNode = (key: TerminalKey): string => `terminal:${key}`;
const legNode = (component: string, end: number): string => `leg:${end} ${component}`;

/** The end of a component that another one is soldered to: by its leg, else the one that leads back, else its last. */
function meetingEnd({ ends }: Component, leg: ComponentEnd['leg'], from: string): number {
  const byLeg = ends.findIndex((end) => leg !== undefined && end.leg === leg);
  const back = ends.findIndex(({ at }) => at.to === 'component' && at.id === from);
  return byLeg >= 0 ? byLeg : back >= 0 ? back : ends.length - 1;
}

function pointNode(board: IndexedBoard, byId: ReadonlyMap<string, Component>, from: string, at: ComponentPoint): string | undefined {
  if (at.to === 'key') return `key:${at.key} ${at.placement}`;
  if (at.to !== 'component') return nodeOf(at, board, from);
  const other = byId.get(at.id);
  return other && legNode(other.id, meetingEnd(other, at.leg, from));
}

const SYMBOL_LEGS: Partial<Record<NonNullable<ComponentEnd['leg']>, string>> = {
  base: 'B',
  emitter: 'E',
  collector: 'C',
  gate: 'G',
  source: 'S',
  drain: 'D',
  anode: 'A',
  cathode: 'K',
};

/** What a leg is marked with: its letter, the plus of an electrolytic capacitor, its key, or its number. */
export function legLabel({ ends, polar }: Pick<Component, 'ends' | 'polar'>, n: number): string {
  const { leg, at } = atOrThrow(ends, n);
  return leg ? (SYMBOL_LEGS[leg] ?? leg) : polar ? (n === 0 ? '+' : '−') : at.to === 'key' ? `key ${at.key}` : String(n + 1);
}

function componentModule(component: Component): WiringModule {
  const { id, ends, key, placement } = component;
  const owner = placement ?? key?.slice(0, key.indexOf(':'));
  return {
    id,
    component,
    ...(owner === undefined ? {} : { owner }),
    terminals: ends.map((_, n) => ({ id: String(n), label: legLabel(component, n) })),
  };
}

/** Positions of the board that lie on a node; of a rail first those that are named as it is: 5V before IOREF. */
function positionsOn(board: IndexedBoard, node: string): readonly string[] {
  const rail = board.sheet.rails.list.find(({ id }) => node === `rail:${id}`);
  const isOther = ({ label }: BoardPin) => Number(rail !== undefined && label !== (rail.terminal ?? rail.label));
  return board.sheet.pins.list
    .filter((pin) => {
      if (!pin.header) return false;
      const own = pin.kind === 'ground' ? 'ground' : pin.kind === 'supply' ? `rail:${pin.rail ?? pin.id}` : `pin:${pin.sameAs ?? pin.id}`;
      return own === node;
    })
    .toSorted((a, b) => isOther(a) - isOther(b))
    .map(({ id }) => id);
}

/** Modules and the conductors between them and the board. */
export interface Wiring {
  readonly board: IndexedBoard;
  readonly modules: readonly WiringModule[];
  readonly conductors: readonly Conductor[];
}

/** What a wiring picture shows: parts and components as modules, and the conductors between them and the board. Conductors that end in one
 *  place alone are left out. Undefined if the board's sheet is missing.
 *  @param resistors whether a resistor in a wire sits in the line, or is a module with two terminals of its own */
export function wiringOf(plan: Plan, sheets: Sheets, resistors: 'in line' | 'as modules' = 'in line'): Wiring | undefined {
  const board = boardOf(plan, sheets);
  if (!board) return undefined;
  const items = planTerminals(plan, sheets).filter(({ placement }) => !placement.onBoard);
  const components = planComponents(plan, sheets);
  const byId = new Map(components.map((one) => [one.id, one]));
  const isInLine = (one: Component) => one.role === 'series' && resistors === 'in line';
  const series = new Map(components.flatMap((one) => (isInLine(one) && one.key !== undefined ? [[one.key, one]] : [])));
  /** Wires that go through a transistor or a divider, or through a resistor that is a module: its legs make the connection. */
  const isBetween = (one: Component) =>
    one.role === 'transistor' || isDivider(one) || (one.role === 'series' && !isInLine(one) && one.ends.length > 1);
  const interrupted = new Set(components.flatMap((one) => (one.key !== undefined && isBetween(one) ? [one.key] : [])));
  const joined = new Joined();
  const ends: [string, ConductorEnd][] = [];
  for (const { key, placement, terminal, wire } of items) {
    const node = terminalNode(key);
    const resistor = series.get(key);
    ends.push([
      node,
      { module: placement.id, terminal: terminal.id, ...(wire ? { colour: wire.colour } : {}), ...(resistor ? { series: resistor } : {}) },
    ]);
    if (wire && !interrupted.has(key)) joined.join(nodeOf(wire.end, board, key), node);
  }
  for (const { id, sheet } of plan.placements)
    for (const { output } of partSheet(sheets, sheet)?.sheet.supplies?.list ?? [])
      joined.join(`rail:${terminalKey(id, output)}`, terminalNode(terminalKey(id, output)));
  for (const component of components) {
    const nodes = component.ends.map(({ at }, n) => [legNode(component.id, n), pointNode(board, byId, component.id, at)] as const);
    for (const [leg, point] of nodes) if (point !== undefined) joined.join(point, leg);
    if (isInLine(component)) joined.join(legNode(component.id, 0), legNode(component.id, component.ends.length - 1));
    else component.ends.forEach((_, n) => ends.push([legNode(component.id, n), { module: component.id, terminal: String(n) }]));
  }
  const modules: readonly WiringModule[] = [
    ...plan.placements.flatMap(({ id, sheet, onBoard }): WiringModule[] => {
      const part = onBoard ? undefined : partSheet(sheets, sheet)?.sheet;
      return part ? [{ id, terminals: part.terminals.list.map((one) => ({ id: one.id, label: one.label })) }] : [];
    }),
    ...components.filter((one) => !isInLine(one)).map(componentModule),
  ];
  return { board, modules, conductors: conductorsOf(board, joined, ends, plan) };
}

function conductorsOf(board: IndexedBoard, joined: Joined, ends: readonly [string, ConductorEnd][], plan: Plan): readonly Conductor[] {
  const byRoot = new Map<string, ConductorEnd[]>();
  for (const [node, end] of ends) byRoot.set(joined.find(node), [...(byRoot.get(joined.find(node)) ?? []), end]);
  const given = plan.placements.map(({ id }) => `${id}:`);
  const rails = new Set(Object.values(plan.wires).flatMap(({ end }) => (end.to === 'rail' ? [`rail:${end.rail}`] : [])));
  const places = [
    'ground',
    ...new Set([...board.sheet.rails.list.map((rail) => `rail:${rail.id}`), ...rails]),
    ...new Set(board.sheet.pins.list.map((pin) => `pin:${pin.sameAs ?? pin.id}`)),
  ];
  const nodesOf = new Map<string, string[]>();
  for (const place of places) nodesOf.set(joined.find(place), [...(nodesOf.get(joined.find(place)) ?? []), place]);
  return [...byRoot].flatMap(([root, own]): Conductor[] => {
    const nodes = nodesOf.get(root) ?? [];
    const pins = nodes.map((node) => positionsOn(board, node)).filter((positions) => positions.length > 0);
    if (own.length + pins.length < 2) return [];
    const kind = nodes.includes('ground')
      ? 'ground'
      : nodes.some((node) => node.startsWith('rail:') && (pins.length > 0 || given.some((id) => node.startsWith(`rail:${id}`))))
        ? 'supply'
        : 'signal';
    const colour = kind === 'ground' ? 'black' : kind === 'supply' ? 'red' : (own.find((end) => end.colour)?.colour ?? 'grey');
    return [{ id: nodes[0] ?? root, kind, colour, ends: own, pins }];
  });
}
