import type { PartSheet } from '../../sheets/partSheet';
import { partSheet, type Sheets } from '../../sheets/sheetIndex';
import { isReserved, strapStates } from '../../nets/addresses';
import type { Placement, Plan } from '../../plan/plan';
import type { PlacedPart, PlanOnBoard } from '../../plan/planContext';
import { terminalKey } from '../../plan/plan';
import type { AddressOption } from '../model/instance';
import { strapEdits } from './strapEdits';

/** More combinations than any strap table that is sold; beyond it only the present one is looked at. */
const MOST = 512;

/** Every setting of straps under which all devices of the part have an address. */
function settings(part: PartSheet): readonly { readonly [strap: string]: string }[] {
  const used = new Set((part.bus.devices ?? []).flatMap((d) => d.addresses.flatMap((a) => Object.keys(a.straps))));
  const straps = (part.bus.straps ?? []).filter((s) => used.has(s.id));
  if (straps.reduce((n, s) => n * s.states.length, 1) > MOST) return [];
  return straps.reduce<readonly { readonly [strap: string]: string }[]>(
    (list, strap) => list.flatMap((one) => strap.states.map((state) => ({ ...one, [strap.id]: state.id }))),
    [{}],
  );
}

/** The addresses of each device under these straps, those it answers on besides among them; null where one has none.
 *  @param free only addresses that are not reserved, unless the device has no other */
function addressesUnder(part: PartSheet, straps: { readonly [strap: string]: string }, free = false): readonly number[] | null {
  const all: number[] = [];
  for (const device of part.bus.devices ?? []) {
    const row = device.addresses.find((a) => Object.entries(a.straps).every(([id, state]) => straps[id] === state));
    if (!row || (free && isReserved(row) && device.addresses.length > 1)) return null;
    all.push(row.address, ...(device.alsoAnswers ?? []).map((also) => also.address));
  }
  return [...new Set(all)];
}

/** A setting of straps under which every device of the part has an address. */
export interface Setting {
  readonly straps: { readonly [strap: string]: string };
  readonly addresses: readonly number[];
}

const tables = new WeakMap<PartSheet, readonly Setting[]>();

/** Every setting of a part's straps that may be chosen, with its addresses; memoised, because it depends on the sheet alone. */
function settingsOf(part: PartSheet): readonly Setting[] {
  let table = tables.get(part);
  if (!table) {
    table = settings(part).flatMap((straps): Setting[] => {
      const addresses = addressesUnder(part, straps, true);
      return addresses ? [{ straps, addresses }] : [];
    });
    tables.set(part, table);
  }
  return table;
}

const selectable = new WeakMap<PartSheet, readonly Setting[]>();

/** The settings of a part with the addresses that they select, without those on which it answers besides: these a program
 *  can often switch off. */
function selectableOf(part: PartSheet): readonly Setting[] {
  let table = selectable.get(part);
  if (!table) {
    const besides = new Set((part.bus.devices ?? []).flatMap((d) => (d.alsoAnswers ?? []).map((also) => also.address)));
    table = settingsOf(part)
      .map(({ straps, addresses }) => ({ straps, addresses: addresses.filter((a) => !besides.has(a)) }))
      .filter(({ addresses }) => addresses.length > 0);
    selectable.set(part, table);
  }
  return table;
}

/** The addresses that can be selected for a part, whatever its straps would have to be wired to: only locked ones, and those
 *  of a part on the board, stay as they are. At least as many as any plan can give it. */
export function possibleAddresses(plan: Plan, placement: Placement, part: PartSheet): readonly Setting[] {
  const stays = (part.bus.straps ?? []).filter(
    (s) => placement.onBoard || (s.by === 'terminal' && plan.wires[terminalKey(placement.id, s.terminal ?? s.id)]?.locked),
  );
  if (stays.length === 0) return selectableOf(part);
  const now = strapStates(plan, placement, part);
  return selectableOf(part).filter(({ straps }) => stays.every((s) => straps[s.id] === undefined || straps[s.id] === now[s.id]));
}

/** All addresses to which these parts respond with their present straps, further addresses included. None for a part whose straps are
 *  not in its table. */
export function presentAddresses(plan: Plan, sheets: Sheets, placements: readonly Placement[]): readonly number[] {
  const all = placements.flatMap((placement) => {
    const part = partSheet(sheets, placement.sheet)?.sheet;
    return part ? (addressesUnder(part, strapStates(plan, placement, part)) ?? []) : [];
  });
  return [...new Set(all)];
}

/** The addresses that a part can be given in this plan, the present one first, then those with the fewest changes. Settings prevented by
 *  a locked wire or a missing rail are left out. */
export function addressOptions({ plan, board }: PlanOnBoard, { placement, part }: PlacedPart): readonly AddressOption[] {
  const now = strapStates(plan, placement, part);
  const present = addressesUnder(part, now);
  const here: readonly (AddressOption & { readonly edits: number })[] = present
    ? [{ addresses: present, straps: {}, moved: 0, edits: 0 }]
    : [];
  // To solder a jumper on a part that is not wired yet moves nothing; on one that is, it is work done again.
  const inUse = part.terminals.list.some((t) => plan.wires[terminalKey(placement.id, t.id)] !== undefined);
  const other = settingsOf(part).flatMap(({ straps, addresses }) => {
    const edits = strapEdits({ plan, board }, { placement, part }, straps);
    if (!edits || edits.length === 0) return [];
    const again = (e: (typeof edits)[number]): boolean =>
      e.kind === 'strap'
        ? inUse
        : e.kind === 'unwire' || (e.kind === 'wire' && plan.wires[terminalKey(e.placement, e.terminal)] !== undefined);
    const moved = edits.filter(again).length;
    return [{ addresses, straps, moved, edits: edits.length }];
  });
  const options = [...here, ...other.toSorted((a, b) => a.moved - b.moved || a.edits - b.edits)];
  // One setting an address: the first is the one with the fewest changes.
  const known = new Map<string, AddressOption>();
  for (const { addresses, straps, moved } of options) {
    const key = addresses.toSorted((a, b) => a - b).join();
    if (!known.has(key)) known.set(key, { addresses, straps, moved });
  }
  return [...known.values()];
}
