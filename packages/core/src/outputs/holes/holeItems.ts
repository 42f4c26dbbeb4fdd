import { atOrThrow, firstOrThrow, getOrThrow } from '../../collections/orThrow';
import { type Component, planComponents } from '../../electrics/reports/components';
import type { Plan } from '../../plan/plan';
import { type IndexedBoard, partSheet, type Sheets } from '../../sheets/sheetIndex';
import { pinAtPosition } from '../boardPosition';
import { chipCircuitOf } from '../chipCircuit';
import { usualGround } from '../usualGround';
import { type Conductor, type ConductorEnd, type Wiring, wiringOf } from '../wiring/conductors';
import { type Half, HALVES, isSideBySide } from './breadboard';
import { boardFootprint, type Footprint, inRow, partFootprint, type Plugged, type Unpluggable } from './footprint';
import { placeLegs } from './placeLegs';

/** A strip of five holes that something is plugged into, relative to the first leg of its item. */
export interface Strip {
  readonly item: string;
  readonly row: number;
  readonly half: Half;
  /** The leg in it; of a strip beside an item, which holds only the end of a component, there is none. */
  readonly leg?: string;
  /** Holes that are left for wires. */
  free: number;
}

/** What is plugged in as one: a board, a part, a component, or a strip where wires meet. */
export interface HoleItem {
  readonly id: string;
  readonly footprint: Footprint;
  /** From the first to the last leg. */
  readonly length: number;
  readonly strips: Strip[];
}

/** The end of a component with two legs: in a strip, or in a rail. */
export type LegPlace = { readonly to: 'strip'; readonly strip: Strip } | { readonly to: 'rail'; readonly net: string };

/** A resistor, capacitor or diode that goes from one conductor to another. */
export interface Bridge {
  readonly id: string;
  readonly name: string;
  readonly legs: readonly [LegPlace, LegPlace];
}

/** What is not on the breadboard, and why. */
export interface OffBoard {
  readonly id: string;
  readonly why: Unpluggable | 'needs two boards' | 'chosen' | 'no room';
}

/** Where a supply or ground is led along the breadboard. */
export interface RailUse {
  readonly sign: '+' | '−';
  readonly halves: readonly Half[];
}

/** Everything that is to be joined: strips by jumpers, and leads of what is not on the breadboard. */
export interface HoleNet {
  readonly id: string;
  readonly conductor: Conductor;
  readonly strips: Strip[];
  /** Terminals that are not on the breadboard; of the board its positions. */
  readonly leads: readonly ConductorEnd[];
  readonly rail: RailUse | undefined;
}

/** What a breadboard is to hold, wherever it is placed. */
export interface HoleInstance {
  readonly items: readonly HoleItem[];
  readonly bridges: readonly Bridge[];
  readonly nets: readonly HoleNet[];
  readonly off: readonly OffBoard[];
}

/** Holes of a strip beside its leg. */
const HOLES = 5;
/** From leg to leg of a component that lies on its own: 10.16 mm. */
const OWN_SPAN = 4;

function itemOf(id: string, footprint: Footprint): HoleItem {
  const { across, legs, overTwo } = footprint;
  const free = (half: Half) => {
    if (!across) return HOLES - 1;
    // Over two boards the legs that would be in a–e are in f–j of the first one, and the other way round.
    if (overTwo) return half === 'ae' ? across.fj : HOLES - 1 - across.ae;
    return half === 'ae' ? across.ae : HOLES - 1 - across.fj;
  };
  return {
    id,
    footprint,
    length: Math.max(...legs.map(({ row }) => row)) + 1,
    strips: legs.map(({ id: leg, row, half }) => ({ item: id, row, half, leg, free: free(half) })),
  };
}

/** A strip without a leg, where wires meet. */
function junctionOf(id: string): HoleItem {
  return { id, footprint: inRow([id]), length: 1, strips: [{ item: id, row: 0, half: 'fj', free: HOLES }] };
}

/** The legs of a transistor or trimmer from left to right, as numbers of its ends. */
function legOrder({ kind, ends, transistor }: Component): readonly string[] {
  if (kind === 'trimmer') {
    const wiper = ends.findIndex(({ leg }) => leg === 'wiper');
    const others = ends.flatMap((_, at) => (at === wiper ? [] : [String(at)]));
    return [firstOrThrow(others), String(wiper), ...others.slice(1)];
  }
  const initial = (at: number) => atOrThrow(ends, at).leg?.slice(0, 1).toUpperCase();
  const order = transistor?.legs ?? (transistor?.kind.endsWith('mos') ? 'GDS' : 'EBC');
  return [...order].map((letter) => String(ends.findIndex((_, at) => initial(at) === letter)));
}

/** Whether a component has a footprint of its own; those with two legs go from strip to strip. */
const isThreeLegged = ({ kind }: Component): boolean => kind === 'transistor' || kind === 'trimmer';

/** The board positions of a conductor that are wired: one for each place, of a bare chip every supply pin. */
function positionsOf(board: IndexedBoard, conductor: Conductor, legs: ReadonlySet<string>): readonly string[] {
  return conductor.pins.flatMap((all) => {
    if (board.sheet.chipCircuit && conductor.kind !== 'signal') return all;
    const usual = conductor.kind === 'ground' ? usualGround(all.map((id) => getOrThrow(board.pins, id))).map(({ id }) => id) : all;
    return usual.find((id) => legs.has(id)) ?? usual[0] ?? [];
  });
}

/** Which conductors the rails carry: ground, and the supplies with most ends, at least two. Each supply pin of a bare chip is one. */
function railUses(board: IndexedBoard, conductors: readonly Conductor[]): ReadonlyMap<string, RailUse> {
  const count = ({ ends, pins }: Conductor) => ends.length + (board.sheet.chipCircuit ? pins.flat().length : 0);
  const large = conductors.filter((one) => one.kind !== 'signal' && count(one) > 1).toSorted((a, b) => count(b) - count(a));
  const grounds = large.filter(({ kind }) => kind === 'ground').slice(0, 1);
  const supplies = large.filter(({ kind }) => kind === 'supply').slice(0, 2);
  return new Map<string, RailUse>([
    ...grounds.map(({ id }) => [id, { sign: '−', halves: HALVES }] as const),
    ...supplies.map(({ id }, at) => [id, { sign: '+', halves: supplies.length === 1 ? HALVES : [atOrThrow(HALVES, at)] }] as const),
  ]);
}

/** The components that a bare chip needs around it, as those of the plan. */
function chipComponents(
  plan: Plan,
  board: IndexedBoard,
): readonly { readonly id: string; readonly name: string; readonly pins: readonly string[] }[] {
  const circuit = chipCircuitOf(plan, board);
  return (circuit?.components ?? []).flatMap(({ name, ends }) => {
    const pins = ends.flatMap(({ at }) => (at && pinAtPosition(board, at)) ?? []);
    return pins.length === 2 ? [{ id: `chip:circuit.${name}`, name, pins }] : [];
  });
}

/** With the conductors that a bare chip has although no part is on them: its supplies and ground, and the pins that its components lead to. */
function withChipPins(board: IndexedBoard, conductors: readonly Conductor[], pins: readonly string[]): readonly Conductor[] {
  if (!board.sheet.chipCircuit) return conductors;
  const known = new Set(conductors.flatMap((one) => one.pins.flat()));
  const byId = new Map<string, Conductor>();
  for (const pin of board.sheet.pins.list) {
    if (!pin.header || known.has(pin.id)) continue;
    const [id, kind, colour] =
      pin.kind === 'ground'
        ? (['ground', 'ground', 'black'] as const)
        : pin.kind === 'supply'
          ? ([`rail:${pin.rail ?? pin.id}`, 'supply', 'red'] as const)
          : ([`pin:${pin.sameAs ?? pin.id}`, 'signal', 'grey'] as const);
    if (kind === 'signal' && !pins.includes(pin.id)) continue;
    const [positions = []] = byId.get(id)?.pins ?? [];
    byId.set(id, { id, kind, colour, ends: [], pins: [[...positions, pin.id]] });
  }
  return [...conductors, ...byId.values()];
}

/** What is plugged in, and what is not: the board, modules, transistors and trimmers. */
function pluggedIn(plan: Plan, sheets: Sheets, { board, modules }: Wiring, isOff: (item: string) => boolean) {
  const off: OffBoard[] = [];
  const items: HoleItem[] = [];
  const hasTwo = plan.breadboard !== null && isSideBySide(plan.breadboard);
  const take = (id: string, plugged: Plugged) => {
    if (isOff(id)) off.push({ id, why: 'chosen' });
    else if (hasTwo && plugged.overTwo) items.push(itemOf(id, plugged.overTwo));
    else if (plugged.ok) items.push(itemOf(id, plugged.footprint));
    else off.push({ id, why: plugged.overTwo ? 'needs two boards' : plugged.why });
  };
  take('board', boardFootprint(board.sheet));
  for (const { id, component } of modules) {
    const sheet = plan.placements.find((placement) => placement.id === id)?.sheet;
    const part = sheet && partSheet(sheets, sheet)?.sheet;
    if (component && isThreeLegged(component)) take(id, { ok: true, footprint: inRow(legOrder(component)) });
    else if (part) take(id, partFootprint(part));
  }
  return { items, off };
}

/** What is to be joined: of each conductor the strips of what is plugged in, and the leads of what is not.
 *  @param bridging components that lie from strip to strip: they take their ends themselves */
function netsOf(
  board: IndexedBoard,
  conductors: readonly Conductor[],
  items: readonly HoleItem[],
  bridging: ReadonlySet<string>,
): readonly HoleNet[] {
  const stripOf = new Map(items.flatMap((item) => item.strips.map((strip) => [`${item.id} ${strip.leg}`, strip] as const)));
  const boardLegs = new Set(items.find(({ id }) => id === 'board')?.footprint.legs.map(({ id }) => id));
  const rails = railUses(board, conductors);
  return conductors.map((conductor): HoleNet => {
    const ends = [
      ...positionsOf(board, conductor, boardLegs).map((terminal) => ({ module: 'board', terminal })),
      ...conductor.ends.filter(({ module }) => !bridging.has(module)),
    ];
    return {
      id: conductor.id,
      conductor,
      strips: ends.flatMap(({ module, terminal }) => stripOf.get(`${module} ${terminal}`) ?? []),
      leads: ends.filter(({ module, terminal }) => !stripOf.has(`${module} ${terminal}`)),
      rail: rails.get(conductor.id),
    };
  });
}

/** A component with two legs that lies on its own. */
const lyingAlone = (id: string): HoleItem =>
  itemOf(id, {
    legs: [
      { id: '0', row: 0, half: 'fj' },
      { id: '1', row: OWN_SPAN, half: 'fj' },
    ],
    body: [0, OWN_SPAN],
  });

/** What of a plan goes on a breadboard: the board and parts whose pins fit its holes, transistors and trimmers; what is joined; and between
 *  which strips or rails each resistor, capacitor and diode lies. Undefined if the board's sheet is missing.
 *  @param isOff whether something is left off the breadboard by choice */
export function holeInstance(plan: Plan, sheets: Sheets, isOff: (item: string) => boolean): HoleInstance | undefined {
  const wiring = wiringOf(plan, sheets, 'as modules');
  if (!wiring) return undefined;
  const { board } = wiring;
  const { items, off } = pluggedIn(plan, sheets, wiring, isOff);
  const chip = items[0]?.id === 'board' ? chipComponents(plan, board) : [];
  const conductors = withChipPins(
    board,
    wiring.conductors,
    chip.flatMap(({ pins }) => pins),
  );
  const twoLegged = planComponents(plan, sheets).filter((one) => !isThreeLegged(one));
  const bridging = new Set(twoLegged.flatMap(({ id }) => (isOff(id) ? [] : [id])));
  // What has no room even for its two legs is soldered to leads.
  for (const { id } of twoLegged) if (isOff(id)) off.push({ id, why: 'chosen' });
  const nets = netsOf(board, conductors, items, bridging);
  const bridges = placeLegs({
    components: twoLegged.filter(({ id }) => bridging.has(id)),
    chip,
    items,
    nets,
    ownItem: (id) => {
      const item = lyingAlone(id);
      items.push(item);
      return item;
    },
  });
  for (const net of nets) addJunctions(net, items, isOff);
  return { items, bridges, nets, off };
}

/** Strips more where a net has too few holes for its wires: a tree of n strips takes two holes for each of n - 1 jumpers, a lead takes one. */
function addJunctions(net: HoleNet, items: HoleItem[], isOff: (item: string) => boolean): void {
  if (net.rail) return;
  const isShort = () => {
    const holes = net.strips.reduce((sum, { free }) => sum + free, 0);
    if (net.strips.length === 0) return net.leads.length > 2;
    return holes < 2 * (net.strips.length - 1) + net.leads.length;
  };
  const [first] = net.conductor.ends;
  const name = `${first?.module ?? net.id}.${first?.terminal ?? ''}`.replace(/[^A-Za-z0-9+_.-]/g, '-').slice(0, 36);
  for (let n = 1; isShort(); n += 1) {
    const id = `net:junction.${name}.${n}`;
    // Without room for it, wires lack a hole, which the plan says.
    if (isOff(id)) return;
    const item = junctionOf(id);
    items.push(item);
    net.strips.push(firstOrThrow(item.strips));
  }
}
