import { has, type With } from '../collections/has';
import type { PlanContext } from '../plan/planContext';
import { atOrThrow, findOrThrow, firstOrThrow } from '../collections/orThrow';
import { encloses, point, typical } from '../quantity/range';
import type { Rail } from '../sheets/boardSheet';
import type { PartSheet } from '../sheets/partSheet';
import { partSheet, type Sheets } from '../sheets/sheetIndex';
import { findNets } from '../nets/nets';
import { isSecondGround } from '../nets/grounds';
import { terminalsOf } from '../nets/terminals';
import { applyEdits } from '../plan/applyEdits';
import type { Edit } from '../plan/edit';
import { newPlacement } from '../plan/newPlacement';
import { type Placement, type Plan, sameEnd, splitKey, type TerminalKey, terminalKey, type WireEnd } from '../plan/plan';
import { supplyRange } from './fit/railFit';

/** One line that is to go through a level shifter: the terminals on its far side, which are at one pin now. */
export interface LineToTranslate {
  readonly keys: readonly TerminalKey[];
  readonly pin: WireEnd & { readonly to: 'pin' };
  readonly way: 'to-part' | 'to-board' | 'both';
  /** What it must carry, in hertz. */
  readonly hz: number;
  /** Others drive the line at the pin, too: an output that never lets go would be in their way. */
  readonly sharesLine: boolean;
}

type Shifter = With<PartSheet, 'levelShifter'>;

export interface PackedModule {
  readonly part: Shifter;
  readonly placement: string;
  readonly added: boolean;
  /** Channels that the packing uses, of those that the module has. */
  readonly used: number;
}

export interface PackedShifters {
  readonly modules: readonly PackedModule[];
  readonly edits: readonly Edit[];
}

/** The two supply rails of a module, and which side faces the board. */
interface Between {
  readonly low: Rail;
  readonly high: Rail;
  readonly nearIsLow: boolean;
}

/** Whether its channels are given to lines one by one. */
const isPacked = ({ levelShifter }: Shifter): boolean => levelShifter.kind === 'mosfet' || levelShifter.kind === 'drive';

interface Module {
  readonly part: Shifter;
  /** Absent for one that would be added. */
  readonly placement: Placement | undefined;
  readonly channels: readonly { readonly near: string; readonly far: string; readonly carries?: WireEnd }[];
}

/** More modules than this for one packing are no help to anybody. */
const MOST_ADDED = 6;

/** The rails of a module's supply terminals between these rails: for a logic buffer the side it drives to. */
function feedsOf(part: Shifter, { low, high }: Between): ReadonlyMap<string, Rail> {
  const levelShifter = part.levelShifter;
  if (levelShifter.kind === 'drive') return new Map([[levelShifter.low, levelShifter.drives === 'up' ? high : low]]);
  return new Map([
    [levelShifter.low, low],
    [levelShifter.high, high],
  ]);
}

/** Whether every supply range of a module includes its rail, and its inputs tolerate the higher one. */
function isWithinRatings(part: Shifter, between: Between): boolean {
  const feeds = feedsOf(part, between);
  const terminal = (id: string) => findOrThrow(part.terminals.list, (t) => t.id === id);
  const fed = [...feeds].every(([id, rail]) => {
    const range = supplyRange(part, terminal(id));
    return range !== undefined && (encloses(range, rail.volts) || encloses(range, point(typical(rail.volts))));
  });
  const takes = part.levelShifter.drives !== 'down' || (part.levels?.tolerantVolts ?? 0) >= between.high.volts.max;
  return fed && takes;
}

/** Whether a module's channel is one for a line: the way it drives, how fast, and whether it lets go. */
function carries(part: Shifter, between: Between, crossing: LineToTranslate): boolean {
  const { kind, drives } = part.levelShifter;
  if (crossing.hz > (part.bus.maxWriteHz ?? part.bus.maxReadHz ?? Infinity)) return false;
  if (kind === 'mosfet') return true;
  if (kind !== 'drive' || crossing.way === 'both') return false;
  const up = (crossing.way === 'to-part') === between.nearIsLow;
  if (up !== (drives === 'up')) return false;
  return crossing.way === 'to-part' || !crossing.sharesLine;
}

const channelsOf = (part: Shifter, nearIsLow: boolean): Module['channels'] =>
  part.levelShifter.channels.map(({ low, high }) => (nearIsLow ? { near: low, far: high } : { near: high, far: low }));

/** The modules of the plan between these rails in the same direction, with their free channels and those that carry a line already. */
function present(plan: Plan, sheets: Sheets, between: Between): readonly (Module & { readonly placement: Placement })[] {
  const nets = findNets(plan, sheets);
  const ends = Object.values(plan.wires).map((wire) => wire.end);
  const taken = (key: string) => ends.some((end) => end.to === 'terminal' && terminalKey(end.placement, end.terminal) === key);
  return plan.placements.flatMap((placement) => {
    const part = partSheet(sheets, placement.sheet)?.sheet;
    if (!part || !has('levelShifter')(part) || !isPacked(part)) return [];
    const fed = [...feedsOf(part, between)].every(([id, rail]) => nets.byTerminal.get(terminalKey(placement.id, id))?.rails[0] === rail.id);
    const carrier = terminalsOf(plan, placement, sheets).find((t) => t.carries);
    const nearIsLow = carrier ? part.levelShifter.channels.some((c) => c.low === carrier.terminal.id) : between.nearIsLow;
    if (!fed || nearIsLow !== between.nearIsLow) return [];
    const channels = channelsOf(part, nearIsLow).flatMap((channel): Module['channels'] => {
      const [near, far] = [terminalKey(placement.id, channel.near), terminalKey(placement.id, channel.far)];
      const wire = plan.wires[near];
      if (taken(far)) return wire ? [{ ...channel, carries: wire.end }] : [];
      return wire || taken(near) || plan.wires[far] ? [] : [channel];
    });
    return [{ part, placement, channels }];
  });
}

/** Every choice of so many out of a list, with repetition. */
function* multisets<T>(list: readonly T[], count: number, from = 0): Generator<readonly T[]> {
  if (count === 0) yield [];
  else
    for (let at = from; at < list.length; at += 1) for (const more of multisets(list, count - 1, at)) yield [atOrThrow(list, at), ...more];
}

/** A channel for every line, as the place of its module, or none if not all fit: an augmenting-path matching of lines and channels. */
function assign(modules: readonly Module[], between: Between, crossings: readonly LineToTranslate[]): readonly number[] | undefined {
  const free = modules.map((m) => m.channels.filter((c) => !c.carries).length);
  const holders: number[][] = modules.map(() => []);
  const assignLine = (line: number, tried: Set<number>): boolean => {
    for (const [at, module] of modules.entries()) {
      if (tried.has(at) || free[at] === 0 || !carries(module.part, between, atOrThrow(crossings, line))) continue;
      tried.add(at);
      const own = atOrThrow(holders, at);
      if (own.length < atOrThrow(free, at)) {
        own.push(line);
        return true;
      }
      const moved = own.findIndex((other) => assignLine(other, tried));
      if (moved < 0) continue;
      own[moved] = line;
      return true;
    }
    return false;
  };
  if (!crossings.every((_, line) => assignLine(line, new Set()))) return undefined;
  return crossings.map((_, line) => holders.findIndex((own) => own.includes(line)));
}

/** The fewest modules that carry every line, and of those the ones with the fewest channels. */
function choose(plan: Plan, sheets: Sheets, between: Between, crossings: readonly LineToTranslate[]) {
  const there = present(plan, sheets, between);
  const kinds = [...sheets.parts.values()]
    .map((p) => p.sheet)
    .filter(has('levelShifter'))
    .filter((p) => isPacked(p) && isWithinRatings(p, between))
    .filter((p) => crossings.some((one) => carries(p, between, one)))
    .toSorted((a, b) => a.levelShifter.channels.length - b.levelShifter.channels.length || (a.id < b.id ? -1 : 1));
  const fresh = (part: Shifter): Module => ({ part, placement: undefined, channels: channelsOf(part, between.nearIsLow) });
  for (let count = 0; count <= MOST_ADDED; count += 1) {
    let best: { readonly modules: readonly Module[]; readonly moduleOf: readonly number[]; readonly size: number } | undefined;
    for (const added of multisets(kinds, count)) {
      const size = added.reduce((sum, part) => sum + part.levelShifter.channels.length, 0);
      if (best && size >= best.size) continue;
      const modules = [...there, ...added.map(fresh)];
      const moduleOf = assign(modules, between, crossings);
      if (moduleOf) best = { modules, moduleOf, size };
    }
    if (best) return best;
  }
  return undefined;
}

const wire = (placement: string, terminal: string, end: WireEnd): Edit => ({ kind: 'wire', placement, terminal, end });

/** A module added to the plan with supplies, grounds and enable inputs connected as its sheet requires. */
function setUp(part: Shifter, placement: Placement, between: Between): readonly Edit[] {
  const feeds = feedsOf(part, between);
  const supply = firstOrThrow([...feeds.values()]);
  return [
    { kind: 'add-placement', placement },
    ...(part.supply?.capacitors ? [{ kind: 'capacitors' as const, placement: placement.id, there: true }] : []),
    ...part.terminals.list.flatMap((t): Edit[] => {
      const rail = feeds.get(t.id);
      if (rail) return [wire(placement.id, t.id, { to: 'rail', rail: rail.id })];
      if (t.need !== 'needed' && !isSecondGround(t)) return [];
      if (t.role === 'ground' || t.ties?.[0] === 'ground') return [wire(placement.id, t.id, { to: 'ground' })];
      return t.ties?.[0] === 'supply' ? [wire(placement.id, t.id, { to: 'rail', rail: supply.id })] : [];
    }),
  ];
}

/** Connects lines through level shifters between the board's logic supply and the rail of the parts: using free channels in the plan and
 *  as few new modules as possible. A line that is already shifted is joined. Undefined if both supplies are the same, or no shifter
 *  suits a line.
 *  @param feed the rail that supplies every part of these lines */
export function packShifterChannels(
  { plan, sheets, board }: PlanContext,
  feed: string,
  crossings: readonly LineToTranslate[],
): PackedShifters | undefined {
  const railOf = (id: string) => board.sheet.rails.list.find((rail) => rail.id === id);
  const [logic, other] = [railOf(board.sheet.logicRail), railOf(feed)];
  if (!logic || !other || logic.id === other.id || crossings.length === 0) return undefined;
  const nearIsLow = typical(logic.volts) < typical(other.volts);
  const between: Between = nearIsLow ? { low: logic, high: other, nearIsLow } : { low: other, high: logic, nearIsLow };
  const edits: Edit[] = [];
  const modules = new Map<string, PackedModule>();
  const uses = (part: Shifter, placement: string, added: boolean, lines: number) =>
    modules.set(placement, { part, placement, added, used: (modules.get(placement)?.used ?? 0) + lines });
  const joined = crossings.filter((crossing) => {
    for (const { part, placement, channels } of present(plan, sheets, between)) {
      const there = channels.find((c) => sameEnd(c.carries, crossing.pin));
      if (!there || !carries(part, between, crossing)) continue;
      const far: WireEnd = { to: 'terminal', placement: placement.id, terminal: there.far };
      edits.push(...crossing.keys.map((key): Edit => ({ kind: 'wire', ...splitKey(key), end: far })));
      uses(part, placement.id, false, 1);
      return true;
    }
    return false;
  });
  const rest = crossings.filter((crossing) => !joined.includes(crossing));
  if (rest.length === 0) return { modules: [...modules.values()], edits };
  const chosen = choose(plan, sheets, between, rest);
  if (!chosen) return undefined;
  let after = plan;
  for (const [at, module] of chosen.modules.entries()) {
    const lines = rest.filter((_, line) => chosen.moduleOf[line] === at);
    if (lines.length === 0) continue;
    const placement = module.placement ?? newPlacement(after, module.part);
    if (!module.placement) {
      edits.push(...setUp(module.part, placement, between));
      const next = applyEdits(after, [{ kind: 'add-placement', placement }], sheets);
      if (next.ok) after = next.plan;
    }
    const free = module.channels.filter((c) => !c.carries);
    for (const [n, crossing] of lines.entries()) {
      const far: WireEnd = { to: 'terminal', placement: placement.id, terminal: atOrThrow(free, n).far };
      edits.push(...crossing.keys.map((key): Edit => ({ kind: 'wire', ...splitKey(key), end: far })));
      edits.push(wire(placement.id, atOrThrow(free, n).near, crossing.pin));
    }
    uses(module.part, placement.id, !module.placement, lines.length);
  }
  return { modules: [...modules.values()], edits };
}
