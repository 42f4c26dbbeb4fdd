import { type Plan, sameEnd } from '../../plan/plan';

export interface WireCounts {
  readonly added: number;
  readonly moved: number;
  readonly removed: number;
}

/** How many wires differ between two plans, and how. */
export function wireCounts(before: Plan, after: Plan): WireCounts {
  const keys = new Set([...Object.keys(before.wires), ...Object.keys(after.wires)]);
  let [added, moved, removed] = [0, 0, 0];
  for (const key of keys) {
    const [from, to] = [before.wires[key]?.end, after.wires[key]?.end];
    if (sameEnd(from, to)) continue;
    if (!from) added += 1;
    else if (!to) removed += 1;
    else moved += 1;
  }
  return { added, moved, removed };
}

/** "12 wires added, 1 moved". */
export function countText({ added, moved, removed }: WireCounts): string {
  const words = [added > 0 ? `${added} added` : '', moved > 0 ? `${moved} moved` : '', removed > 0 ? `${removed} removed` : ''].filter(
    Boolean,
  );
  return words.length > 0 ? `Wires: ${words.join(', ')}` : 'No wires change';
}
