import type { Bus } from '../nets/buses';
import { terminalsOf, type PlanTerminal } from '../nets/terminals';
import type { CheckContext } from './check';

/** What is selected together on an SPI bus: a part, or the head of a chain. */
export interface SpiGroup {
  readonly head: string;
  readonly members: readonly string[];
  /** The select of the head, wired or not; undefined where the part has none. */
  readonly select: PlanTerminal | undefined;
}

/** The groups of an SPI bus in the order of its members. */
export function spiGroups(context: CheckContext, bus: Bus): readonly SpiGroup[] {
  const groups = new Map<string, string[]>();
  for (const member of bus.members) {
    const head = terminalsOf(context.plan, member, context.sheets)[0]?.head ?? member.id;
    groups.set(head, [...(groups.get(head) ?? []), member.id]);
  }
  return [...groups].map(([head, members]) => {
    const terminals = members.flatMap((id) => terminalsOf(context.plan, { id }, context.sheets));
    return {
      head,
      members,
      select: terminals.find((t) => t.placement.id === head && t.terminal.role === 'spi.cs'),
    };
  });
}
