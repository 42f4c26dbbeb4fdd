import type { IndexedBoard, Sheets } from '../sheets/sheetIndex';
import { boardOf } from '../plan/edit';
import { type Plan, terminalKey, type WireEnd } from '../plan/plan';
import { derived } from './derived';
import { planTerminals, type PlanTerminal, signalOf } from './terminals';

/** Everything one wire system joins. */
export interface Net {
  readonly id: string;
  readonly terminals: readonly PlanTerminal[];
  readonly pins: readonly string[];
  readonly rails: readonly string[];
  readonly ground: boolean;
  /** The signals that meet here; more than one on a pin is a clash. */
  readonly signals: readonly { readonly id: string; readonly terminals: readonly PlanTerminal[] }[];
}

export interface Nets {
  readonly list: readonly Net[];
  readonly byTerminal: ReadonlyMap<string, Net>;
  readonly byPin: ReadonlyMap<string, Net>;
}

/** The conductor a wire end lies on, as a node name. */
function nodeOf(end: WireEnd, board: IndexedBoard | undefined): string {
  if (end.to === 'pin') return `pin:${board?.pins.get(end.pin)?.sameAs ?? end.pin}`;
  if (end.to === 'rail') return `rail:${end.rail}`;
  return end.to === 'ground' ? 'ground' : `terminal:${terminalKey(end.placement, end.terminal)}`;
}

class Joined {
  readonly #parent = new Map<string, string>();

  find(node: string): string {
    let root = node;
    for (let up = this.#parent.get(root); up !== undefined; up = this.#parent.get(root)) root = up;
    if (root !== node) this.#parent.set(node, root);
    return root;
  }

  join(a: string, b: string): void {
    const [rootA, rootB] = [this.find(a), this.find(b)];
    if (rootA !== rootB) this.#parent.set(rootB, rootA);
  }
}

function groupBy<T>(items: readonly T[], keyOf: (item: T) => string): Map<string, T[]> {
  const groups = new Map<string, T[]>();
  for (const item of items) {
    const key = keyOf(item);
    const group = groups.get(key);
    if (group) group.push(item);
    else groups.set(key, [item]);
  }
  return groups;
}

function makeNet(terminals: readonly PlanTerminal[], nodes: ReadonlySet<string>): Net {
  const named = (prefix: string) => [...nodes].filter((n) => n.startsWith(prefix)).map((n) => n.slice(prefix.length));
  const signals = groupBy(terminals, signalOf);
  return {
    id: terminals[0]!.key,
    terminals,
    pins: named('pin:'),
    rails: named('rail:'),
    ground: nodes.has('ground'),
    signals: [...signals].map(([id, members]) => ({ id, terminals: members })),
  };
}

/** The nets of a plan, in the order of their first terminal. Unwired terminals are in none. */
export const findNets = derived((plan: Plan, sheets: Sheets): Nets => {
  const before = latest.get(plan.wires);
  if (before && before.sheets === sheets && isGrownFrom(plan, before.plan)) return before.nets;
  const nets = makeNets(plan, sheets);
  latest.set(plan.wires, { plan, sheets, nets });
  return nets;
});

/** The nets of the plan that last had these very wires. */
const latest = new WeakMap<Plan['wires'], { readonly plan: Plan; readonly sheets: Sheets; readonly nets: Nets }>();

/** Whether a plan is another with parts added that have no wire yet: its nets are the same. */
function isGrownFrom(plan: Plan, before: Plan): boolean {
  return plan.board === before.board && before.placements.every((placement, at) => plan.placements[at] === placement);
}

function makeNets(plan: Plan, sheets: Sheets): Nets {
  const board = boardOf(plan, sheets);
  const all = planTerminals(plan, sheets);
  // Wires between parts are few; only their ends need to be joined up, all else lies on the node of its wire.
  const joined = new Joined();
  const between = new Set<string>();
  for (const { key, wire } of all) {
    if (wire?.end.to !== 'terminal') continue;
    const target = terminalKey(wire.end.placement, wire.end.terminal);
    joined.join(`terminal:${target}`, `terminal:${key}`);
    between.add(key).add(target);
  }
  for (const { key, wire } of all)
    if (wire && wire.end.to !== 'terminal' && between.has(key)) joined.join(nodeOf(wire.end, board), `terminal:${key}`);
  const groups = new Map<string, { readonly terminals: PlanTerminal[]; readonly nodes: Set<string> }>();
  for (const item of all) {
    const node = item.wire && item.wire.end.to !== 'terminal' ? nodeOf(item.wire.end, board) : undefined;
    if (node === undefined && !between.has(item.key)) continue;
    const root = joined.find(between.has(item.key) ? `terminal:${item.key}` : node!);
    const group = groups.get(root) ?? { terminals: [], nodes: new Set() };
    group.terminals.push(item);
    if (node !== undefined) group.nodes.add(node);
    groups.set(root, group);
  }
  const list = [...groups.values()].map(({ terminals, nodes }) => makeNet(terminals, nodes));
  return {
    list,
    byTerminal: new Map(list.flatMap((net) => net.terminals.map((t) => [t.key, net] as const))),
    byPin: new Map(list.flatMap((net) => net.pins.map((pin) => [pin, net] as const))),
  };
}
