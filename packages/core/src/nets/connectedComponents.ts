import { firstOrThrow, getOrThrow } from '../collections/orThrow';
import { endPlacement } from '../plan/planRails';
import { type Bus, controllersInWhole, findBuses } from './buses';
import { memoizeByPair } from '../memo/memoizeByPair';
import { type IncrementalSplit, incrementalSplit } from './incrementalSplit';
import { findNets } from './nets';
import { terminalsOf } from './terminals';
import { setIncrement } from '../plan/increment';
import { type Placement, type Plan, splitKey } from '../plan/plan';
import { cutBy, mapsCut } from '../plan/planMaps';
import type { Sheets } from '../sheets/sheetIndex';

/** Which parts have to do with each other by their signals: those that meet on a net that is no supply, and those wired to one another.
 *  @returns by placement, the first placement of its component */
function roots(plan: Plan, sheets: Sheets): ReadonlyMap<string, string> {
  const parent = new Map<string, string>();
  const find = (id: string): string => {
    let root = id;
    for (let up = parent.get(root); up !== undefined; up = parent.get(root)) root = up;
    return root;
  };
  const order = new Map(plan.placements.map((p, at) => [p.id, at]));
  const join = (a: string, b: string) => {
    const [x, y] = [find(a), find(b)];
    if (x === y) return;
    if (getOrThrow(order, x) < getOrThrow(order, y)) parent.set(y, x);
    else parent.set(x, y);
  };
  for (const { ground, rails, terminals } of findNets(plan, sheets).list) {
    if (ground || rails.length > 0) continue;
    for (const { placement } of terminals) join(firstOrThrow(terminals).placement.id, placement.id);
  }
  for (const [key, { end }] of Object.entries(plan.wires)) {
    const other = endPlacement(end);
    if (other !== undefined && order.has(other)) join(splitKey(key).placement, other);
  }
  return new Map(plan.placements.map((p) => [p.id, find(p.id)]));
}

/** What a component is made of, in a fixed order: the same values are the same component. */
type Signature = readonly unknown[];

interface Kept {
  readonly signature: Signature;
  readonly plan: Plan;
}

/** Plans that are components: there is nothing to cut. */
const components = new WeakSet<Plan>();

/** Components seen last, by their first part: an edit changes few, and an undone edit restores the previous one. */
const seen = new WeakMap<Placement, Kept[]>();
const REMEMBERED = 4;

const same = (a: Signature, b: Signature): boolean => a.length === b.length && a.every((one, at) => one === b[at]);

function keptAs(first: Placement, signature: Signature, make: () => Plan): Plan {
  const known = seen.get(first) ?? [];
  const found = known.find((one) => same(one.signature, signature));
  if (found) {
    // Trials of what could be done make components that are seen once: the one that is there must outlast them.
    if (known[0] !== found) seen.set(first, [found, ...known.filter((one) => one !== found)]);
    return found.plan;
  }
  const plan = make();
  components.add(plan);
  seen.set(first, [{ signature, plan }, ...known].slice(0, REMEMBERED));
  return plan;
}

/** A plan divided into its connected components, each a plan on the same board, without notes and marks. An unchanged component is the
 *  same object as before, so memoised results remain valid. */
export const connectedComponents = memoizeByPair((plan: Plan, sheets: Sheets): readonly Plan[] => {
  if (components.has(plan)) return [plan];
  const split = incrementalSplit(plan, sheets);
  return (split && incrementalComponents(plan, sheets, split)) ?? componentsCut(plan, sheets);
});

function componentsCut(plan: Plan, sheets: Sheets): readonly Plan[] {
  const bank = roots(plan, sheets);
  const members = new Map<string, Placement[]>();
  for (const placement of plan.placements) {
    const list = members.get(getOrThrow(bank, placement.id));
    if (list) list.push(placement);
    else members.set(placement.id, [placement]);
  }
  const cut = cutInto(plan, (id) => bank.get(id));
  const buses = findBuses(plan, sheets);
  return [...members].map(([id, placements]) =>
    componentMade(
      plan,
      buses,
      placements,
      cut.map(([field, entries]) => [field, entries.get(id) ?? []] as const),
    ),
  );
}

type Entries = readonly (readonly [string, unknown])[];

/** The entries of wires and of every map in pieces. Notes on wires do not matter. */
const cutInto = (plan: Plan, pieceOf: (placement: string) => string | undefined) => [
  ['wires', cutBy<unknown>(plan.wires, (key) => pieceOf(splitKey(key).placement))] as const,
  ...mapsCut({ ...plan, wireNotes: {} }, pieceOf),
];

function componentMade(
  plan: Plan,
  buses: readonly Bus[],
  placements: readonly Placement[],
  own: readonly (readonly [string, Entries])[],
): Plan {
  const { board, busSettings, valuesOnHand, radio, softwareBuses } = plan;
  const there = new Set(placements);
  const controllers = buses.flatMap(({ id, members, controller }) =>
    members.some((m) => there.has(m)) ? [[id, controller] as const] : [],
  );
  const signature = [
    board.id,
    board.version,
    busSettings,
    valuesOnHand,
    radio,
    softwareBuses,
    ...controllers.flat(),
    ...placements,
    ...own.flatMap(([field, entries]) => [field, ...entries.flat()]),
  ];
  const component = keptAs(firstOrThrow(placements), signature, () => ({
    ...plan,
    placements,
    ...Object.fromEntries(own.map(([field, entries]) => [field, Object.fromEntries(entries)])),
    name: '',
    ticks: {},
    steps: {},
    built: null,
    accepted: {},
    benchNotes: {},
  }));
  controllersInWhole.set(component, new Map(controllers));
  return component;
}

/** The components of a plan that has grown by a part: those it had, with the part on one of them or on one of its own. Undefined where the part
 *  brings several together. */
function incrementalComponents(plan: Plan, sheets: Sheets, { base, placement }: IncrementalSplit): readonly Plan[] | undefined {
  const { byTerminal } = findNets(plan, sheets);
  const near = new Set<string>();
  for (const { key } of terminalsOf(plan, placement, sheets)) {
    const net = byTerminal.get(key);
    if (!net || net.ground || net.rails.length > 0) continue;
    for (const other of net.terminals) near.add(other.placement.id);
  }
  near.delete(placement.id);
  const [was, buses] = [findBuses(base, sheets), findBuses(plan, sheets)];
  // The new part's bus may have taken the controller of another.
  const isMoved = was.some(({ id, controller }) => buses.find((bus) => bus.id === id)?.controller !== controller);
  if (isMoved) return undefined;
  const before = connectedComponents(base, sheets);
  const met = near.size === 0 ? [] : before.filter((component) => component.placements.some((p) => near.has(p.id)));
  if (met.length > 1) return undefined;
  const own = cutInto(plan, (id) => (id === placement.id ? id : undefined)).map(
    ([field, entries]) => [field, entries.get(placement.id) ?? []] as const,
  );
  const [home] = met;
  if (!home) return [...before, componentMade(plan, buses, [placement], own)];
  const grown = componentMade(
    plan,
    buses,
    [...home.placements, placement],
    own.map(([field, entries]) => [field, [...Object.entries(home[field]), ...entries]] as const),
  );
  // What is known of the component holds in the grown one as what is known of the plan does.
  setIncrement(grown, { base: home, placement: placement.id });
  return before.map((component) => (component === home ? grown : component));
}

/** The component of a part: results about the part or its bus can be computed there and stay memoised while it is unchanged. The plan
 *  itself if it is one component or does not contain the part. */
export function connectedComponentOf(plan: Plan, sheets: Sheets, placement: string): Plan {
  const components = connectedComponents(plan, sheets);
  return (components.length > 1 && components.find((component) => component.placements.some((p) => p.id === placement))) || plan;
}

/** A list about the parts of a plan, worked out component by component, in the order of the parts. */
export function listPerComponent<T extends { readonly key: string }>(
  make: (plan: Plan, sheets: Sheets) => readonly T[],
): (plan: Plan, sheets: Sheets) => readonly T[] {
  const own = memoizeByPair(make);
  return memoizeByPair((plan, sheets) => {
    const components = connectedComponents(plan, sheets);
    if (components.length < 2) return own(plan, sheets);
    const order = new Map(plan.placements.map((p, at) => [p.id, at]));
    const at = ({ key }: T) => getOrThrow(order, splitKey(key).placement);
    return components.flatMap((component) => own(component, sheets)).toSorted((a, b) => at(a) - at(b));
  });
}

/** What is known by the buses of a plan, worked out component by component. */
export function mapPerComponent<T>(
  make: (plan: Plan, sheets: Sheets) => ReadonlyMap<string, T>,
): (plan: Plan, sheets: Sheets) => ReadonlyMap<string, T> {
  const own = memoizeByPair(make);
  return memoizeByPair((plan, sheets) => {
    const components = connectedComponents(plan, sheets);
    return components.length < 2 ? own(plan, sheets) : new Map(components.flatMap((component) => [...own(component, sheets)]));
  });
}
