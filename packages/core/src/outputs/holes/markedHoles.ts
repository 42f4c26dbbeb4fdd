import { type Plan, splitKey } from '../../plan/plan';
import type { Sheets } from '../../sheets/sheetIndex';
import type { Hole } from './breadboard';
import { holePlan, type HolePlan } from './holePlan';

/** What of a hole plan stands out. */
export interface MarkedHoles {
  readonly items: ReadonlySet<string>;
  readonly nets: ReadonlySet<string>;
  /** Strips, as `fj 28`. */
  readonly strips: ReadonlySet<string>;
}

const stripOf = (hole: Hole): readonly string[] => (hole.at === 'strip' ? [`${hole.half} ${hole.row}`] : []);

/** The strips that a net joins. */
function stripsOfNet(holes: HolePlan, net: string): readonly string[] {
  return [
    ...holes.items.flatMap(({ id, legs }) => legs.flatMap((leg) => (holes.nets.get(`${id} ${leg.id}`) === net ? stripOf(leg.hole) : []))),
    ...holes.jumpers.flatMap((jumper) => (jumper.net === net ? [jumper.from, jumper.to].flatMap(stripOf) : [])),
    ...holes.leads.flatMap((lead) => (lead.net === net && lead.to.at === 'hole' ? stripOf(lead.to.hole) : [])),
  ];
}

/** The strips of one wire: those at both ends of its jumper, or at its leg. */
function stripsOfWire(holes: HolePlan, item: string, leg: string): readonly string[] {
  const jumpers = holes.jumpers.filter(({ for: one }) => 'item' in one && one.item === item && one.leg === leg);
  const own = holes.items.find(({ id }) => id === item)?.legs.find(({ id }) => id === leg);
  return [...(own ? stripOf(own.hole) : []), ...jumpers.flatMap(({ from, to }) => [from, to].flatMap(stripOf))];
}

/** The net of a leg, if no rail carries it. */
function signalOf(holes: HolePlan, item: string, leg: string): string | undefined {
  const net = holes.nets.get(`${item} ${leg}`);
  return net !== undefined && holes.rails.some(({ conductor }) => conductor.id === net) ? undefined : net;
}

/** What a mark shows: `part ID` its legs and their nets, `net ID` everything joined, `wire KEY` both ends of one wire. Undefined without a
 *  breadboard, and for a mark that means nothing here. */
export function markedHoles(plan: Plan, sheets: Sheets, mark: string | null): MarkedHoles | undefined {
  const holes = holePlan(plan, sheets);
  if (!holes || mark === null) return undefined;
  const [kind, id] = [mark.slice(0, mark.indexOf(' ')), mark.slice(mark.indexOf(' ') + 1)];
  if (kind === 'part') {
    const item = holes.items.find((one) => one.id === id);
    if (!item) return undefined;
    // Of ground and supplies only its own wires: everything else on them would stand out with it.
    const nets = new Set(item.legs.flatMap((leg) => signalOf(holes, id, leg.id) ?? []));
    return { items: new Set([id]), nets, strips: new Set(item.legs.flatMap(({ hole }) => stripOf(hole))) };
  }
  if (kind === 'net') return { items: new Set(), nets: new Set([id]), strips: new Set(stripsOfNet(holes, id)) };
  if (kind !== 'wire' || !id.includes(':')) return undefined;
  const { placement, terminal } = splitKey(id);
  if (!holes.nets.has(`${placement} ${terminal}`)) return undefined;
  return {
    items: new Set(),
    nets: new Set([signalOf(holes, placement, terminal)].filter((net) => net !== undefined)),
    strips: new Set(stripsOfWire(holes, placement, terminal)),
  };
}
