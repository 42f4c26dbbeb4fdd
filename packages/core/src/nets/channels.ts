import { memoizeByObject } from '../memo/memoizeByObject';
import type { PartSheet } from '../sheets/partSheet';
import { partSheet, type Sheets } from '../sheets/sheetIndex';
import { type Placement, type Plan, splitKey } from '../plan/plan';

/** Whether a part is a multiplexer. Memoised, because it is needed for every member of every bus at every edit. */
const hasChannels = memoizeByObject((part: PartSheet): boolean => part.terminals.list.some((t) => t.channel !== undefined));

/** The parts on each channel of a multiplexer. Empty for parts that have no channels. */
export function behindChannels(plan: Plan, sheets: Sheets, multiplexer: Placement): ReadonlyMap<number, readonly Placement[]> {
  const part = partSheet(sheets, multiplexer.sheet);
  const behind = new Map<number, Placement[]>();
  if (!part || !hasChannels(part.sheet)) return behind;
  for (const [key, { end }] of Object.entries(plan.wires)) {
    if (end.to !== 'terminal' || end.placement !== multiplexer.id) continue;
    const channel = part.terminals.get(end.terminal)?.channel;
    const member = channel?.line === 'sda' ? plan.placements.find((p) => p.id === splitKey(key).placement) : undefined;
    if (channel && member) behind.set(channel.number, [...(behind.get(channel.number) ?? []), member]);
  }
  return behind;
}

/** What one open channel of a multiplexer brings onto a bus. */
export interface OpenChannel {
  /** Those that hear the bus before the channel is opened: at its pins, and on the channels on the way. */
  readonly before: readonly Placement[];
  readonly behind: readonly Placement[];
}

/** Every channel that can be opened from these parts of a bus, those of multiplexers behind multiplexers among them. A part in a loop is
 *  listed where it was found first. */
export function openChannels(plan: Plan, sheets: Sheets, members: readonly Placement[]): readonly OpenChannel[] {
  const seen = new Set(members.map((m) => m.id));
  const found: OpenChannel[] = [];
  const open = (from: readonly Placement[], before: readonly Placement[]): void => {
    for (const multiplexer of from)
      for (const parts of behindChannels(plan, sheets, multiplexer).values()) {
        const behind = parts.filter((p) => !seen.has(p.id));
        if (behind.length === 0) continue;
        for (const one of behind) seen.add(one.id);
        found.push({ before, behind });
        open(behind, [...before, ...behind]);
      }
  };
  open(members, members);
  return found;
}

/** Every part behind some channel of these: what answers here, too, while the channel is open. */
export const reachedFrom = (plan: Plan, sheets: Sheets, members: readonly Placement[]): readonly Placement[] =>
  openChannels(plan, sheets, members).flatMap(({ behind }) => behind);
