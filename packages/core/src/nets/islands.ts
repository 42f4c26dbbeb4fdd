import { endPlacement } from '../plan/planRails';
import { type Bus, controllersInWhole, findBuses } from './buses';
import { derived } from './derived';
import { type GrownApart, grownApart } from './grownApart';
import { findNets } from './nets';
import { terminalsOf } from './terminals';
import { setGrowth } from '../plan/grown';
import { type Placement, type Plan, splitKey } from '../plan/plan';
import { cutBy, mapsCut } from '../plan/planMaps';
import type { Sheets } from '../sheets/sheetIndex';

/** Which parts have to do with each other by their signals: those that meet on a net that is no supply, and those wired to one another.
 *  @returns by placement, the first placement of its island */
function banks(plan: Plan, sheets: Sheets): ReadonlyMap<string, string> {
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
    if (order.get(x)! < order.get(y)!) parent.set(y, x);
    else parent.set(x, y);
  };
  for (const { ground, rails, terminals } of findNets(plan, sheets).list) {
    if (ground || rails.length > 0) continue;
    for (const { placement } of terminals) join(terminals[0]!.placement.id, placement.id);
  }
  for (const [key, { end }] of Object.entries(plan.wires)) {
    const other = endPlacement(end);
    if (other !== undefined && order.has(other)) join(splitKey(key).placement, other);
  }
  return new Map(plan.placements.map((p) => [p.id, find(p.id)]));
}

/** What an island is made of, in a fixed order: the same values are the same island. */
type Makings = readonly unknown[];

interface Kept {
  readonly makings: Makings;
  readonly plan: Plan;
}

/** Plans that are islands: there is nothing to cut. */
const islands = new WeakSet<Plan>();

/** Islands seen last, by their first part: an edit changes few, and an undone edit restores the previous one. */
const seen = new WeakMap<Placement, Kept[]>();
const REMEMBERED = 4;

const same = (a: Makings, b: Makings): boolean => a.length === b.length && a.every((one, at) => one === b[at]);

function keptAs(first: Placement, makings: Makings, make: () => Plan): Plan {
  const known = seen.get(first) ?? [];
  const found = known.find((one) => same(one.makings, makings));
  if (found) {
    // Trials of what could be done make islands that are seen once: the one that is there must outlast them.
    if (known[0] !== found) seen.set(first, [found, ...known.filter((one) => one !== found)]);
    return found.plan;
  }
  const plan = make();
  islands.add(plan);
  seen.set(first, [{ makings, plan }, ...known].slice(0, REMEMBERED));
  return plan;
}

/** A plan divided into its connected components, each a plan on the same board, without notes and marks. An unchanged component is the
 *  same object as before, so memoised results remain valid. */
export const islandsOf = derived((plan: Plan, sheets: Sheets): readonly Plan[] => {
  if (islands.has(plan)) return [plan];
  const grown = grownApart(plan, sheets);
  return (grown && grownIslands(plan, sheets, grown)) ?? islandsCut(plan, sheets);
});

function islandsCut(plan: Plan, sheets: Sheets): readonly Plan[] {
  const bank = banks(plan, sheets);
  const members = new Map<string, Placement[]>();
  for (const placement of plan.placements) {
    const list = members.get(bank.get(placement.id)!);
    if (list) list.push(placement);
    else members.set(placement.id, [placement]);
  }
  const cut = cutInto(plan, (id) => bank.get(id));
  const buses = findBuses(plan, sheets);
  return [...members].map(([id, placements]) =>
    islandMade(
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

function islandMade(
  plan: Plan,
  buses: readonly Bus[],
  placements: readonly Placement[],
  own: readonly (readonly [string, Entries])[],
): Plan {
  const { board, busSettings, drawer, radio, softwareBuses } = plan;
  const there = new Set(placements);
  const controllers = buses.flatMap(({ id, members, controller }) =>
    members.some((m) => there.has(m)) ? [[id, controller] as const] : [],
  );
  const makings = [
    board.id,
    board.version,
    busSettings,
    drawer,
    radio,
    softwareBuses,
    ...controllers.flat(),
    ...placements,
    ...own.flatMap(([field, entries]) => [field, ...entries.flat()]),
  ];
  const island = keptAs(placements[0]!, makings, () => ({
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
  controllersInWhole.set(island, new Map(controllers));
  return island;
}

/** The islands of a plan that has grown by a part: those it had, with the part on one of them or on one of its own. Undefined where the part
 *  brings several together. */
function grownIslands(plan: Plan, sheets: Sheets, { base, placement }: GrownApart): readonly Plan[] | undefined {
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
  const before = islandsOf(base, sheets);
  const met = near.size === 0 ? [] : before.filter((island) => island.placements.some((p) => near.has(p.id)));
  if (met.length > 1) return undefined;
  const own = cutInto(plan, (id) => (id === placement.id ? id : undefined)).map(
    ([field, entries]) => [field, entries.get(placement.id) ?? []] as const,
  );
  const [home] = met;
  if (!home) return [...before, islandMade(plan, buses, [placement], own)];
  const grown = islandMade(
    plan,
    buses,
    [...home.placements, placement],
    own.map(([field, entries]) => [field, [...Object.entries(home[field]), ...entries]] as const),
  );
  // What is known of the island holds in the grown one as what is known of the plan does.
  setGrowth(grown, { base: home, placement: placement.id });
  return before.map((island) => (island === home ? grown : island));
}

/** The component of a part: results about the part or its bus can be computed there and stay memoised while it is unchanged. The plan
 *  itself if it is one component or does not contain the part. */
export function homeOf(plan: Plan, sheets: Sheets, placement: string): Plan {
  const islands = islandsOf(plan, sheets);
  return (islands.length > 1 && islands.find((island) => island.placements.some((p) => p.id === placement))) || plan;
}

/** A list about the parts of a plan, worked out island by island, in the order of the parts. */
export function listedByIsland<T extends { readonly key: string }>(
  make: (plan: Plan, sheets: Sheets) => readonly T[],
): (plan: Plan, sheets: Sheets) => readonly T[] {
  const own = derived(make);
  return derived((plan, sheets) => {
    const islands = islandsOf(plan, sheets);
    if (islands.length < 2) return own(plan, sheets);
    const order = new Map(plan.placements.map((p, at) => [p.id, at]));
    const at = ({ key }: T) => order.get(splitKey(key).placement)!;
    return islands.flatMap((island) => own(island, sheets)).toSorted((a, b) => at(a) - at(b));
  });
}

/** What is known by the buses of a plan, worked out island by island. */
export function mappedByIsland<T>(
  make: (plan: Plan, sheets: Sheets) => ReadonlyMap<string, T>,
): (plan: Plan, sheets: Sheets) => ReadonlyMap<string, T> {
  const own = derived(make);
  return derived((plan, sheets) => {
    const islands = islandsOf(plan, sheets);
    return islands.length < 2 ? own(plan, sheets) : new Map(islands.flatMap((island) => [...own(island, sheets)]));
  });
}
