import type { Member } from './instance';

/** Wires of a line's members that change when the line is at a pin. */
export function movedWires(members: readonly Member[], line: string, pin: string): number {
  let moved = 0;
  for (const member of members) for (const [here, count] of Object.entries(member.here[line] ?? {})) if (here !== pin) moved += count;
  return moved;
}
