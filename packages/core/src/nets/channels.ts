import { remembered } from '../quantity/remembered';
import type { PartSheet } from '../sheets/partSheet';
import { partSheet, type Sheets } from '../sheets/sheetIndex';
import { type Placement, type Plan, splitKey } from '../plan/plan';

/** Whether a part is a multiplexer. Remembered: it is asked of every member of every bus at every edit. */
const hasChannels = remembered((part: PartSheet): boolean => part.terminals.list.some((t) => t.channel !== undefined));

/** The parts whose data line hangs on a channel of a multiplexer, by channel. Empty for parts that have no channels. */
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
