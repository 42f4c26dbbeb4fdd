import { endTerminal } from './planRails';
import type { PartSheet } from '../sheets/partSheet';
import type { Edit } from './edit';
import { nothingDone } from './ofPart';
import { type Placement, type Plan, splitKey } from './plan';
import { mapEntries } from './planMaps';

/** The edits that replace a part by another one: ID, name and list position are kept, and common jumpers, wires, colours, locks and
 *  preferences of terminals with the same ID and role.
 *  @param from the sheet of the replaced part */
export function swapPart(plan: Plan, placement: Placement, from: PartSheet, to: PartSheet): readonly Edit[] {
  const at = plan.placements.findIndex((p) => p.id === placement.id);
  const role = (part: PartSheet, id: string) => part.terminals.list.find((t) => t.id === id)?.role;
  const stays = (terminal: string) => role(to, terminal) !== undefined && role(to, terminal) === role(from, terminal);
  const gives = (terminal: string) => to.supplies?.list.some(({ output }) => output === terminal) === true;
  const straps = Object.entries(placement.straps).filter(([id, state]) =>
    to.bus.straps?.some((s) => s.id === id && s.by === 'jumper' && s.default !== state && s.states.some((one) => one.id === state)),
  );
  const wires = Object.entries(plan.wires).filter(([key, { end }]) => {
    const own = splitKey(key);
    if (own.placement === placement.id) return stays(own.terminal);
    const other = endTerminal(end);
    return other?.placement === placement.id && stays(other.terminal) && (end.to !== 'rail' || gives(other.terminal));
  });
  const own = mapEntries(plan).filter(({ owner, terminal }) => owner === placement.id && (terminal === undefined || stays(terminal)));
  const next: Placement = {
    id: placement.id,
    name: placement.name,
    sheet: { id: to.id, version: to.version },
    straps: Object.fromEntries(straps),
  };
  return [
    ...nothingDone(plan, placement.id),
    { kind: 'remove-placement', placement: placement.id },
    { kind: 'add-placement', placement: next, at },
    ...wires.map(([key, { end, colour }]): Edit => ({ kind: 'wire', ...splitKey(key), end, colour })),
    ...wires.filter(([, { locked }]) => locked).map(([key]): Edit => ({ kind: 'lock', ...splitKey(key), locked: true })),
    ...own.map((entry) => entry.set),
  ];
}
