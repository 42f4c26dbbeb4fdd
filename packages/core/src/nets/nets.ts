import { has } from '../collections/has';
import { firstOrThrow } from '../collections/orThrow';
import type { IndexedBoard, Sheets } from '../sheets/sheetIndex';
import { boardOf } from '../plan/edit';
import { type Plan, terminalKey, type WireEnd } from '../plan/plan';
import { memoizeByPair } from '../memo/memoizeByPair';
import { incrementalSplit } from './incrementalSplit';
import { Joined } from './joined';
import { planTerminals, type PlanTerminal, signalOf, terminalsOf } from './terminals';

/** Everything one wire system joins. */
export interface Net {
  readonly id: string;
  readonly terminals: readonly PlanTerminal[];
  readonly pins: readonly string[];
  readonly rails: readonly string[];
  readonly ground: boolean;
  /** The signals that meet here; more than one on a pin is a pin conflict. */
  readonly signals: readonly { readonly id: string; readonly terminals: readonly PlanTerminal[] }[];
}

export interface Nets {
  readonly list: readonly Net[];
  readonly byTerminal: ReadonlyMap<string, Net>;
  readonly byPin: ReadonlyMap<string, Net>;
}

/** The conductor a wire end lies on, as a node name. */
export function nodeOf(end: WireEnd, board: IndexedBoard | undefined, key: string): string {
  if (end.to === 'pin') return `pin:${board?.pins.get(end.pin)?.sameAs ?? end.pin}`;
  if (end.to === 'rail') return `rail:${end.rail}`;
  if (end.to === 'ground') return 'ground';
  // The middle of a divider belongs to its own terminal alone.
  return end.to === 'terminal' ? `terminal:${terminalKey(end.placement, end.terminal)}` : `divider:${key}`;
}

function groupBy<T, K>(items: readonly T[], keyOf: (item: T) => K): Map<K, T[]> {
  const groups = new Map<K, T[]>();
  for (const item of items) {
    const key = keyOf(item);
    const group = groups.get(key);
    if (group) group.push(item);
    else groups.set(key, [item]);
  }
  return groups;
}

/** The signal of a terminal of a net: an LED whose wire ends at another LED's anode shares that one's. */
function signalAmong(terminals: readonly PlanTerminal[], item: PlanTerminal, passed: ReadonlySet<string> = new Set()): string {
  const end = item.wire?.end;
  if (!item.terminal.led || end?.to !== 'terminal' || passed.has(item.key)) return signalOf(item);
  const key = terminalKey(end.placement, end.terminal);
  const target = terminals.find((other) => other.key === key);
  return target?.terminal.led ? signalAmong(terminals, target, new Set([...passed, item.key])) : signalOf(item);
}

function makeNet(terminals: readonly PlanTerminal[], nodes: ReadonlySet<string>): Net {
  const named = (prefix: string) => [...nodes].filter((n) => n.startsWith(prefix)).map((n) => n.slice(prefix.length));
  const signals = groupBy(terminals, (item) => signalAmong(terminals, item));
  return {
    id: firstOrThrow(terminals).key,
    terminals,
    pins: named('pin:'),
    rails: named('rail:'),
    ground: nodes.has('ground'),
    signals: [...signals].map(([id, members]) => ({ id, terminals: members })),
  };
}

/** The nets of a plan, in the order of their first terminal. Unwired terminals are in none. */
export const findNets = memoizeByPair((plan: Plan, sheets: Sheets): Nets => {
  const split = incrementalSplit(plan, sheets);
  return split
    ? incrementalNets(findNets(split.base, sheets), terminalsOf(plan, split.placement, sheets), boardOf(plan, sheets))
    : makeNets(plan, sheets);
});

/** The net of a plan that lies on a node. */
function netAt({ list, byPin }: Nets, node: string): Net | undefined {
  if (node.startsWith('pin:')) return byPin.get(node.slice('pin:'.length));
  return list.find((net) => (node === 'ground' ? net.ground : net.rails.some((rail) => node === `rail:${rail}`)));
}

/** Nets with those terminals of a new last part added that have a wire, none of which ends at another part. The very same nets where there
 *  is no such terminal. */
function incrementalNets(before: Nets, terminals: readonly PlanTerminal[], board: IndexedBoard | undefined): Nets {
  const come = groupBy(terminals.filter(has('wire')), (item) => {
    const node = nodeOf(item.wire.end, board, item.key);
    return netAt(before, node) ?? node;
  });
  if (come.size === 0) return before;
  const further: Net[] = [];
  const joined = new Map<Net, Net>();
  for (const [met, items] of come) {
    if (typeof met === 'string') further.push(makeNet(items, new Set([met])));
    else joined.set(met, makeNet([...met.terminals, ...items], new Set(nodesOf(met))));
  }
  return indexed([...(joined.size > 0 ? before.list.map((net) => joined.get(net) ?? net) : before.list), ...further], before, [
    ...joined.values(),
    ...further,
  ]);
}

const nodesOf = ({ pins, rails, ground }: Net): readonly string[] => [
  ...pins.map((pin) => `pin:${pin}`),
  ...rails.map((rail) => `rail:${rail}`),
  ...(ground ? ['ground'] : []),
];

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
  // What gives a supply lies on the rail that it gives, with whatever is wired there.
  const given = all.filter(({ part, terminal }) => part.supplies?.list.some(({ output }) => output === terminal.id));
  for (const { key } of given) {
    joined.join(`rail:${key}`, `terminal:${key}`);
    between.add(key);
  }
  for (const { key, wire } of all)
    if (wire && wire.end.to !== 'terminal' && between.has(key)) joined.join(nodeOf(wire.end, board, key), `terminal:${key}`);
  const groups = new Map<string, { readonly terminals: PlanTerminal[]; readonly nodes: Set<string> }>();
  for (const item of all) {
    const node = item.wire && item.wire.end.to !== 'terminal' ? nodeOf(item.wire.end, board, item.key) : undefined;
    const member = between.has(item.key) ? `terminal:${item.key}` : node;
    if (member === undefined) continue;
    const root = joined.find(member);
    const group = groups.get(root) ?? { terminals: [], nodes: new Set() };
    group.terminals.push(item);
    if (node !== undefined) group.nodes.add(node);
    if (given.includes(item)) group.nodes.add(`rail:${item.key}`);
    groups.set(root, group);
  }
  // An output that nothing is wired to is in no net.
  const list = [...groups.values()].flatMap(({ terminals, nodes }) =>
    terminals.length === 1 && given.includes(firstOrThrow(terminals)) && !firstOrThrow(terminals).wire ? [] : [makeNet(terminals, nodes)],
  );
  return indexed(list);
}

/** Nets with their indexes.
 *  @param before nets whose indexes hold but for those of `changed` */
function indexed(list: readonly Net[], before?: Nets, changed: readonly Net[] = list): Nets {
  const [byTerminal, byPin] = [new Map(before?.byTerminal), new Map(before?.byPin)];
  for (const net of changed) {
    for (const { key } of net.terminals) byTerminal.set(key, net);
    for (const pin of net.pins) byPin.set(pin, net);
  }
  return { list, byTerminal, byPin };
}
