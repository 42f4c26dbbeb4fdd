import { findOrThrow } from '../collections/orThrow';
import { PIN_ROLES } from '../sheets/roles';
import { partSheet, type Sheets } from '../sheets/sheetIndex';
import type { Placement, Plan } from '../plan/plan';
import type { Bus } from './buses';
import { behindChannels } from './channels';
import { throughPart } from './passThrough';
import { terminalsOf } from './terminals';

/** The segment of an I2C bus on one side of a level shifter or behind one multiplexer channel. */
export interface Segment {
  /** What its settings are kept under: the controller, else the placement (and channel) that it lies behind. */
  readonly id: string;
  /** The segment that it joins, and through what; absent for the one at the board's pins. */
  readonly via?: {
    readonly parent: string;
    readonly by: 'shifter' | 'buffer' | 'channel';
    readonly placement: Placement;
    readonly channel?: number;
  };
  readonly members: readonly Placement[];
}

/** The level shifter that an I2C member's data line goes through. */
function shifterOf(plan: Plan, sheets: Sheets, member: Placement): string | undefined {
  const data = terminalsOf(plan, member, sheets).find((t) => PIN_ROLES[t.terminal.role]?.line?.line === 'sda');
  return data && throughPart(plan, sheets, data.key);
}

/** The segments of an I2C bus: first the one at the pins, then those that join it, each after the one it joins. A part in a loop is
 *  listed where it was found first. */
export function segmentsOf(plan: Plan, sheets: Sheets, bus: Bus): readonly [Segment, ...Segment[]] {
  const before = latest.get(bus);
  if (before?.wires === plan.wires && before.placements === plan.placements && before.sheets === sheets) return before.segments;
  const segments = makeSegments(plan, sheets, bus);
  latest.set(bus, { wires: plan.wires, placements: plan.placements, sheets, segments });
  return segments;
}

/** What was last found of a bus: checks, sheets and ledgers ask for it one after another. */
const latest = new WeakMap<
  Bus,
  Pick<Plan, 'wires' | 'placements'> & { readonly sheets: Sheets; readonly segments: readonly [Segment, ...Segment[]] }
>();

function makeSegments(plan: Plan, sheets: Sheets, bus: Bus): readonly [Segment, ...Segment[]] {
  const seen = new Set(bus.members.map((m) => m.id));
  const behind = new Map<string, Placement[]>();
  const direct: Placement[] = [];
  for (const member of bus.members) {
    const shifter = shifterOf(plan, sheets, member);
    if (shifter === undefined) direct.push(member);
    else behind.set(shifter, [...(behind.get(shifter) ?? []), member]);
  }
  const root: Segment = { id: bus.controller ?? '', members: direct };
  const found: [Segment, ...Segment[]] = [root];
  for (const [shifter, members] of behind) {
    const placement = findOrThrow(plan.placements, (p) => p.id === shifter);
    const by = partSheet(sheets, placement.sheet)?.sheet.levelShifter?.kind === 'buffer' ? 'buffer' : 'shifter';
    found.push({ id: shifter, via: { parent: root.id, by, placement }, members });
  }
  // Channels of multiplexers, and of multiplexers behind those: the list grows while it is gone through.
  for (const segment of found)
    for (const placement of segment.members)
      for (const [channel, parts] of behindChannels(plan, sheets, placement)) {
        const members = parts.filter((p) => !seen.has(p.id));
        for (const member of members) seen.add(member.id);
        if (members.length > 0)
          found.push({
            id: `${placement.id}.${channel}`,
            via: { parent: segment.id, by: 'channel', placement, channel },
            members,
          });
      }
  return found;
}

/** The segments that are one with a segment while it is in use: those it lies behind (up to a buffer), and every one that a level shifter
 *  joins to any of these. Of channels only those on the way: a program opens one at a time. */
export function joinedWith(segments: readonly Segment[], target: Segment): readonly Segment[] {
  const way = new Set<string>();
  for (let at: Segment | undefined = target; at && !way.has(at.id);) {
    way.add(at.id);
    // A buffer keeps its two sides apart.
    const parent: string | undefined = at.via?.by === 'buffer' ? undefined : at.via?.parent;
    at = segments.find((s) => s.id === parent);
  }
  return segments.filter((s) => way.has(s.id) || (s.via?.by === 'shifter' && way.has(s.via.parent)));
}
