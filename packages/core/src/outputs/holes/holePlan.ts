import { has } from '../../collections/has';
import { atOrThrow, findOrThrow, firstOrThrow, orThrow } from '../../collections/orThrow';
import { alikeBut } from '../../memo/alikeBut';
import { memoizeByPair } from '../../memo/memoizeByPair';
import type { Breadboard, HolePlace, Plan, WireColour } from '../../plan/plan';
import type { Sheets } from '../../sheets/sheetIndex';
import type { Conductor, ConductorEnd } from '../wiring/conductors';
import { type Half, type Hole, laneOf, pitchesApart, pitchesBetween, type RailSign, rowsOf } from './breadboard';
import { REACH } from './footprint';
import {
  type Bridge,
  holeInstance,
  type HoleInstance,
  type HoleItem,
  type HoleNet,
  type LegPlace,
  type OffBoard,
  type Strip,
} from './holeItems';
import { joinStrips } from './joinStrips';
import { haveRoom, isOnBreadboard, type PlacedVariant } from './placeProblem';
import { Holes, type StripHole } from './takenHoles';
import { bodyAt, type SideOption, sideOptions, placeIn, problemOf, type Side, stripAt, variantAt } from './variants';

/** A leg in its hole. */
export interface PlacedLeg {
  readonly id: string;
  readonly hole: Hole;
}

export interface PlacedItem {
  readonly id: string;
  readonly side: Side;
  readonly row: number;
  readonly locked: boolean;
  readonly legs: readonly PlacedLeg[];
  /** The rows that the body lies over. */
  readonly body: readonly [number, number];
  /** It lies over two boards side by side: its body is between the outer ends of these rows of the first and those of the second. */
  readonly overTwo?: true;
  /** How else it can lie, itself included. */
  readonly sideOptions: readonly SideOption[];
}

/** What a wire is for: a leg of an item, or the end of a component beside one. Of rails, a link between two pieces. */
export type JumperFor = { readonly item: string; readonly leg?: string } | { readonly component: string } | { readonly link: true };

export interface Jumper {
  readonly net: string;
  readonly colour: WireColour;
  readonly from: Hole;
  readonly to: Hole;
  readonly for: JumperFor;
}

/** A component from hole to hole. */
export interface PlacedBridge {
  readonly id: string;
  readonly name: string;
  readonly holes: readonly [Hole, Hole];
}

/** The wire of something that is not on the breadboard: to a hole, or to another such thing. */
export interface Lead {
  readonly net: string;
  readonly colour: WireColour;
  readonly end: ConductorEnd;
  readonly to: { readonly at: 'hole'; readonly hole: Hole } | { readonly at: 'end'; readonly end: ConductorEnd };
}

export interface HolePlan {
  readonly breadboard: Breadboard;
  readonly items: readonly PlacedItem[];
  /** What has no place, or one that another takes. */
  readonly unplaced: readonly string[];
  readonly off: readonly OffBoard[];
  readonly bridges: readonly PlacedBridge[];
  readonly jumpers: readonly Jumper[];
  readonly leads: readonly Lead[];
  /** What the rails carry. */
  readonly rails: readonly { readonly half: Half; readonly sign: RailSign; readonly conductor: Conductor }[];
  /** By net: what it joins. */
  readonly conductors: ReadonlyMap<string, Conductor>;
  /** By item and leg, such as `display-1 SDA`: the net. */
  readonly nets: ReadonlyMap<string, string>;
  /** Of the wires between strips and to rails, in pitches of 2.54 mm. */
  readonly length: number;
  /** Wires and components for which no hole was left. */
  readonly lacking: number;
}

/** The places that hold: those on the breadboard that leave each other room, in the order of the items. */
export function placesThatHold(instance: HoleInstance, breadboard: Breadboard, places: Plan['places']): ReadonlyMap<string, HolePlace> {
  const problem = problemOf(instance, breadboard, () => undefined);
  const held = new Map<string, HolePlace>();
  const taken: PlacedVariant[] = [];
  // The board first, then what the user has put in its place.
  const rank = (id: string) => (id === 'board' ? 0 : places[id]?.locked ? 1 : 2);
  for (const [item, { id, variants }] of [...problem.items.entries()].toSorted(([, a], [, b]) => rank(a.id) - rank(b.id))) {
    const place = placeIn(places, id);
    const at = place && variantAt(breadboard, variants, place);
    if (!place || !at) continue;
    const { variant, row } = at;
    const fits =
      isOnBreadboard(problem, atOrThrow(variants, variant), row) &&
      atOrThrow(variants, variant).spans.every((span) =>
        taken.every((other) =>
          atOrThrow(atOrThrow(problem.items, other.item).variants, other.variant).spans.every((one) => haveRoom(span, row, one, other.row)),
        ),
      );
    if (!fits) continue;
    held.set(id, place);
    taken.push({ item, variant, row });
  }
  return held;
}

/** An item with everything that is known of its place. */
interface Standing {
  readonly item: HoleItem;
  readonly side: Side;
  readonly row: number;
}

/** The columns of a strip beside its leg, from the one that a wire should take first. */
function columnsOf({ item, side }: Standing, strip: Strip, half: Half): readonly number[] {
  const { across, overRails, overTwo } = item.footprint;
  const all = [0, 1, 2, 3, 4];
  // From the gap outwards: what lies nearer to the edge is under a module's body, or beside a leg.
  const outwards = half === 'fj' ? all : all.toReversed();
  if (strip.leg === undefined) return overRails ? outwards.slice(0, 4) : outwards;
  if (!across) return outwards.slice(0, 4);
  // Over two boards the body is on the other side of the legs.
  if (overTwo) return half === 'fj' ? all.filter((one) => one < across.fj) : all.filter((one) => one > across.ae);
  const column = side === 'turned' ? (half === 'ae' ? 4 - across.fj : 4 - across.ae) : across[half];
  return half === 'fj' ? all.filter((one) => one > column) : all.filter((one) => one < column).toReversed();
}

const legColumn = ({ item, side }: Standing, half: Half): number => {
  const { across, overTwo } = item.footprint;
  if (!across) return half === 'fj' ? 4 : 0;
  if (overTwo) return across[half];
  return side === 'turned' ? 4 - across[half === 'ae' ? 'fj' : 'ae'] : across[half];
};

class Router {
  readonly #standing: ReadonlyMap<string, Standing>;
  readonly holes: Holes;
  readonly jumpers: Jumper[] = [];
  readonly leads: Lead[] = [];
  readonly bridges: PlacedBridge[] = [];
  readonly #runs: { readonly lane: number; readonly column: number; readonly from: number; readonly to: number }[] = [];

  constructor(
    private readonly instance: HoleInstance,
    private readonly breadboard: Breadboard,
    standing: readonly Standing[],
  ) {
    this.#standing = new Map(standing.map((one) => [one.item.id, one]));
    this.holes = new Holes(breadboard);
    for (const { item, side, row } of standing)
      if (item.footprint.overRails || item.footprint.overTwo)
        this.holes.coverRails(side === 'ae' ? 'ae' : 'fj', [bodyAt(item, side)[0] + row, bodyAt(item, side)[1] + row]);
    this.holes.findRails();
  }

  at(strip: Strip): { readonly row: number; readonly half: Half } | undefined {
    const standing = this.#standing.get(strip.item);
    if (!standing) return undefined;
    const { row, half, isNext } = stripAt(standing.item, strip, standing.side);
    return { row: row + standing.row + (isNext ? this.breadboard.rows : 0), half };
  }

  /** Legs first: they have only one hole each. */
  legs(): readonly Omit<PlacedItem, 'locked'>[] {
    return [...this.#standing.values()].map((standing) => {
      const { item, side, row } = standing;
      const legs = item.strips.flatMap((strip): PlacedLeg[] => {
        if (strip.leg === undefined) return [];
        const { row: own, half } = orThrow(this.at(strip), 'place of the strip');
        return [{ id: strip.leg, hole: this.holes.take({ at: 'strip', half, row: own, column: legColumn(standing, half) }) }];
      });
      const [from, to] = bodyAt(item, side);
      const overTwo = item.footprint.overTwo ? { overTwo: true as const } : {};
      return { id: item.id, side, row, legs, body: [from + row, to + row], ...overTwo, sideOptions: sideOptions(item, this.breadboard) };
    });
  }

  #free(strip: Strip): readonly StripHole[] {
    const standing = this.#standing.get(strip.item);
    const at = this.at(strip);
    if (!standing || !at) return [];
    return columnsOf(standing, strip, at.half)
      .map((column): StripHole => ({ at: 'strip', ...at, column }))
      .filter((hole) => this.holes.isFree(hole));
  }

  /** A hole of each of two strips: in one column if they can, where the fewest wires and components lie already. */
  #pair(a: Strip, b: Strip): readonly [Hole, Hole] | undefined {
    const choices = this.#free(a).flatMap((from) =>
      this.#free(b).map((to) => {
        const bend = this.#lane(from) === this.#lane(to) && from.column === to.column ? 0 : 0.5;
        return { from, to, cost: this.#runsAt(from, this.#along(to)) + bend };
      }),
    );
    const best = choices.toSorted((one, other) => one.cost - other.cost)[0];
    if (!best) return undefined;
    const { from, to } = best;
    const rows = [this.#along(from), this.#along(to)];
    this.#runs.push({ lane: this.#lane(from), column: from.column, from: Math.min(...rows), to: Math.max(...rows) });
    return [this.holes.take(from), this.holes.take(to)];
  }

  #lane(hole: StripHole): number {
    return laneOf(this.breadboard, hole).lane;
  }

  #along(hole: StripHole): number {
    return laneOf(this.breadboard, hole).along;
  }

  /** How many wires lie along the column of a hole, between it and a row. */
  #runsAt(hole: StripHole, other: number): number {
    const [row, lane] = [this.#along(hole), this.#lane(hole)];
    const [from, to] = [Math.min(row, other), Math.max(row, other)];
    return this.#runs.filter((run) => run.lane === lane && run.column === hole.column && run.from < to && run.to > from).length;
  }

  #railHole(net: HoleNet, half: Half, row: number): Hole | undefined {
    const [hole] = this.holes.railHoles(net, half, row);
    return hole && this.holes.take(hole);
  }

  #jumper(net: string, colour: WireColour, from: Hole, to: Hole, reason: JumperFor): void {
    this.jumpers.push({ net, colour, from, to, for: reason });
  }

  #lack(): void {
    this.holes.lacking += 1;
  }

  bridge({ id, name, legs }: Bridge): void {
    const [first, second] = legs;
    const netOf = (net: string) => findOrThrow(this.instance.nets, (one) => one.id === net);
    const strips = legs.flatMap((leg) => (leg.to === 'strip' ? [leg.strip] : []));
    if (strips.some((strip) => !this.at(strip))) return;
    if (strips.length === 2) {
      // Both legs at an item of its own are the item.
      const own = strips.every((strip) => strip.item === id);
      const pair = own ? undefined : this.#pair(firstOrThrow(strips), atOrThrow(strips, 1));
      if (pair) this.bridges.push({ id, name, holes: pair });
      else if (!own) this.#lack();
      return;
    }
    const rail = firstOrThrow(legs.flatMap((leg) => (leg.to === 'rail' ? [netOf(leg.net)] : [])));
    const near = strips[0] && this.#nearRail(strips[0], rail);
    const at = near ?? { half: 'fj' as const, row: 1 };
    const hole = (leg: LegPlace) => (leg.to === 'rail' ? this.#railHole(netOf(leg.net), at.half, at.row) : near && this.holes.take(near));
    const [a, b] = [hole(first), hole(second)];
    if (a && b) this.bridges.push({ id, name, holes: [a, b] });
    else this.#lack();
  }

  /** A free hole of a strip from which a leg reaches the rail; where bodies cover the rail beside it, one of another strip of its net. */
  #nearRail(strip: Strip, rail: HoleNet): Hole | undefined {
    const net = this.instance.nets.find(({ strips }) => strips.includes(strip));
    const others = (net?.strips ?? []).filter((other) => other !== strip && this.#free(other).length > 1);
    const choices = [strip, ...others].flatMap((one) => {
      const [hole] = this.#free(one);
      const [to] = hole ? this.holes.railHoles(rail, hole.half, hole.row) : [];
      return hole && to ? [{ hole, far: pitchesBetween(this.breadboard, hole, to) }] : [];
    });
    const [own] = choices;
    return own && own.far <= REACH ? own.hole : choices.toSorted((a, b) => a.far - b.far)[0]?.hole;
  }

  #forStrip(strip: Strip): JumperFor {
    if (strip.leg !== undefined) return { item: strip.item, leg: strip.leg };
    const bridge = this.instance.bridges.find(({ legs }) => legs.some((leg) => leg.to === 'strip' && leg.strip === strip));
    return bridge ? { component: bridge.id } : { item: strip.item };
  }

  #colourOf({ conductor }: HoleNet, strip: Strip | undefined): WireColour {
    const end = conductor.ends.find(({ module, terminal }) => module === strip?.item && terminal === strip.leg);
    return conductor.kind === 'signal' ? (end?.colour ?? conductor.colour) : conductor.colour;
  }

  join(net: HoleNet): void {
    const strips = net.strips.filter((strip) => this.at(strip));
    if (net.rail) for (const strip of strips) this.#toRail(net, strip);
    else this.#toEachOther(net, strips);
    for (const lead of net.leads) this.#lead(net, strips, lead);
  }

  #toRail(net: HoleNet, strip: Strip): void {
    const [from] = this.#free(strip);
    const to = from && this.#railHole(net, from.half, from.row);
    if (!to) return this.#lack();
    this.#jumper(net.id, net.conductor.colour, this.holes.take(from), to, this.#forStrip(strip));
  }

  /** The tree is walked from the board outwards, so that each wire belongs to what it brings the net to. */
  #toEachOther(net: HoleNet, strips: readonly Strip[]): void {
    const points = strips.map((strip) => ({ at: orThrow(this.at(strip), 'place of the strip'), free: this.#free(strip).length }));
    const holes = points.reduce((sum, { free }) => sum + free, 0);
    if (points.some(({ free }) => free === 0 && points.length > 1) || holes < 2 * (points.length - 1)) return this.#lack();
    const { edges } = joinStrips(points, (a, b) => pitchesApart(this.breadboard, a.at, b.at));
    const root = Math.max(
      0,
      strips.findIndex(({ item }) => item === 'board'),
    );
    const reached = new Set([root]);
    const open = [...edges];
    while (open.length > 0) {
      const at = open.findIndex(([a, b]) => reached.has(a) !== reached.has(b));
      const [[a, b]] = open.splice(at, 1) as [readonly [number, number]];
      const [parent, child] = reached.has(a) ? [a, b] : [b, a];
      reached.add(child);
      const pair = this.#pair(atOrThrow(strips, parent), atOrThrow(strips, child));
      if (!pair) this.#lack();
      else this.#jumper(net.id, this.#colourOf(net, strips[child]), pair[0], pair[1], this.#forStrip(atOrThrow(strips, child)));
    }
  }

  #lead(net: HoleNet, strips: readonly Strip[], end: ConductorEnd): void {
    const colour = net.conductor.kind === 'signal' ? (end.colour ?? net.conductor.colour) : net.conductor.colour;
    if (net.rail) {
      const hole = this.#railHole(net, 'fj', rowsOf(this.breadboard));
      if (hole) this.leads.push({ net: net.id, colour, end, to: { at: 'hole', hole } });
      else this.#lack();
      return;
    }
    const hole = strips.flatMap((strip) => this.#free(strip))[0];
    if (hole) this.leads.push({ net: net.id, colour, end, to: { at: 'hole', hole: this.holes.take(hole) } });
    else if (strips.length > 0) this.#lack();
    else {
      // The first of two ends that meet off the breadboard leads to the other.
      const [first] = net.leads;
      if (first && first !== end) this.leads.push({ net: net.id, colour, end, to: { at: 'end', end: first } });
    }
  }

  /** Joins the pieces of the rails of a net by links as short as possible, each from end to end: the first and the last hole of a piece are
   *  kept for them. */
  linkRails({ id, rail, conductor }: HoleNet): void {
    if (!rail) return;
    const pieces = rail.halves.flatMap((half) => this.holes.usedPieces(half, rail.sign));
    const ends = pieces.flatMap(({ first, last }, piece) => [
      { piece, hole: first },
      { piece, hole: last },
    ]);
    const pairs = ends
      .flatMap((from, at) => ends.slice(at + 1).map((to) => ({ from, to, length: pitchesBetween(this.breadboard, from.hole, to.hole) })))
      .toSorted((a, b) => a.length - b.length);
    const joined = pieces.map((_, piece) => piece);
    for (const { from, to } of pairs) {
      const [a, b] = [atOrThrow(joined, from.piece), atOrThrow(joined, to.piece)];
      if (a === b || !this.holes.isFree(from.hole) || !this.holes.isFree(to.hole)) continue;
      for (const [piece, group] of joined.entries()) if (group === b) joined[piece] = a;
      this.#jumper(id, conductor.colour, this.holes.take(from.hole), this.holes.take(to.hole), { link: true });
    }
  }
}

/** What is done on the bench leaves every hole as it is. */
const butProgress = alikeBut<Plan>(['name', 'ticks', 'steps', 'built', 'accepted', 'wireNotes', 'layout']);

/** The holes of everything that a plan has on its breadboard: legs, components, and the jumpers between them. Undefined if the plan has no
 *  breadboard or its board's sheet is missing. */
export const holePlan = (plan: Plan, sheets: Sheets): HolePlan | undefined => makeHolePlan(butProgress(plan), sheets);

const makeHolePlan = memoizeByPair((plan: Plan, sheets: Sheets): HolePlan | undefined => {
  const { breadboard, places } = plan;
  const instance = breadboard ? holeInstance(plan, sheets, (item) => places[item]?.side === 'off') : undefined;
  if (!breadboard || !instance) return undefined;
  const held = placesThatHold(instance, breadboard, places);
  const standing = instance.items.flatMap((item): Standing[] => {
    const place = held.get(item.id);
    return place && place.side !== 'off' && place.row !== undefined ? [{ item, side: place.side, row: place.row }] : [];
  });
  const router = new Router(instance, breadboard, standing);
  const items = router.legs().map((item) => ({ ...item, locked: places[item.id]?.locked === true }));
  for (const bridge of instance.bridges) router.bridge(bridge);
  for (const net of instance.nets) router.join(net);
  for (const net of instance.nets) router.linkRails(net);
  return {
    breadboard,
    items,
    unplaced: instance.items.flatMap(({ id }) => (held.has(id) ? [] : [id])),
    off: instance.off.map((one) => (one.why === 'chosen' && !places[one.id]?.locked ? { ...one, why: 'no room' } : one)),
    bridges: router.bridges,
    jumpers: router.jumpers,
    leads: router.leads,
    rails: instance.nets
      .filter(has('rail'))
      .flatMap(({ rail, conductor }) => rail.halves.map((half) => ({ half, sign: rail.sign, conductor }))),
    conductors: new Map(instance.nets.map(({ id, conductor }) => [id, conductor])),
    nets: new Map(instance.nets.flatMap(({ id, strips }) => strips.map(({ item, leg }) => [`${item} ${leg ?? ''}`, id] as const))),
    length: router.jumpers.reduce((sum, { from, to }) => sum + pitchesBetween(breadboard, from, to), 0),
    lacking: router.holes.lacking,
  };
});
