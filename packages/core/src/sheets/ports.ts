import type { PartSheet, PartTerminal, Service } from './partSheet';

/** The terminals of a helper that can do something for others, in the order of its sheet. */
export function portsOf(part: PartSheet, does: Service): readonly PartTerminal[] {
  return part.terminals.list.filter((t) => t.serves?.includes(does));
}
