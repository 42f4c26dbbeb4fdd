import { findOrThrow } from '../collections/orThrow';
import { addressOptions } from '../assign/addresses/addressOptions';
import { strapEdits } from '../assign/addresses/strapEdits';
import { addressesOf, type DeviceAddress } from '../nets/addresses';
import { type Bus, findBuses } from '../nets/buses';
import { segmentsOf } from '../nets/segments';
import { boardOf, type Edit } from '../plan/edit';
import { applyEdits } from '../plan/applyEdits';
import { type Placement, type Plan, splitKey } from '../plan/plan';
import type { PlacedPart } from '../plan/planContext';
import { swapPart } from '../plan/swapPart';
import type { PartSheet } from '../sheets/partSheet';
import { partSheet, type Sheets } from '../sheets/sheetIndex';
import type { Scan } from './scan';

/** An edit that matches the plan to the bench result. */
export interface BenchRemedy {
  readonly placement: string;
  readonly address: number;
  /** The part that the module turns out to be, where another one has this address. */
  readonly part?: string;
  readonly edits: readonly Edit[];
}

/** One line of a comparison of a scan with the plan. */
export type Compared =
  | { readonly is: 'as-planned'; readonly address: number; readonly who: readonly DeviceAddress[] }
  /** Several parts of the plan respond at one address and cannot be distinguished. */
  | { readonly is: 'as-one'; readonly address: number; readonly who: readonly DeviceAddress[] }
  | { readonly is: 'missing'; readonly address: number; readonly who: readonly DeviceAddress[] }
  /** Behind a channel that must be selected first: not tested. */
  | { readonly is: 'behind'; readonly address: number; readonly who: readonly DeviceAddress[] }
  | {
      readonly is: 'extra';
      readonly address: number;
      /** Twice an address that the plan has and that was not found: the 8-bit form of it. */
      readonly twice: number | undefined;
      /** Parts of the plan that are missing where they should be, and can be set to it, or may be another part that responds there. */
      readonly remedies: readonly BenchRemedy[];
      /** Parts of the catalogue that can have it, by their ids. */
      readonly parts: readonly string[];
    };

/** The I2C buses that a scan can be of. */
export const scannedBuses = (plan: Plan, sheets: Sheets): readonly (Bus & { readonly controller: string })[] =>
  findBuses(plan, sheets).flatMap((bus) =>
    bus.kind === 'i2c' && bus.controller !== undefined ? [{ ...bus, controller: bus.controller }] : [],
  );

/** What answers at once, and what only once a channel is open. */
function membersOf(plan: Plan, sheets: Sheets, bus: Bus): { readonly open: readonly Placement[]; readonly behind: readonly Placement[] } {
  const segments = segmentsOf(plan, sheets, bus);
  const isBehind = (id: string | undefined): boolean => {
    const via = segments.find((s) => s.id === id)?.via;
    return via !== undefined && (via.by === 'channel' || isBehind(via.parent));
  };
  return {
    open: segments.filter((s) => !isBehind(s.id)).flatMap((s) => s.members),
    behind: segments.filter((s) => isBehind(s.id)).flatMap((s) => s.members),
  };
}

/** The edits that set a part to an address, where its straps can. */
function toAddress(plan: Plan, sheets: Sheets, placement: Placement, address: number): readonly BenchRemedy[] {
  const board = boardOf(plan, sheets);
  const part = partSheet(sheets, placement.sheet)?.sheet;
  if (!board || !part) return [];
  const option = addressOptions({ plan, board }, { placement, part }).find((one) => one.addresses.includes(address));
  const edits = option && strapEdits({ plan, board }, { placement, part }, option.straps);
  return edits && edits.length > 0 ? [{ placement: placement.id, address, edits }] : [];
}

/** Whether two parts are versions of one thing. */
const areVersions = (a: PartSheet, b: PartSheet): boolean => a.variantOf !== undefined && a.variantOf === b.variantOf;

/** Whether the modules of two parts look alike: the same labels, in the same family. */
function lookAlike(a: PartSheet, b: PartSheet): boolean {
  const labels = (part: PartSheet) => part.terminals.list.map((t) => `${t.label} ${t.role}`).join();
  return a.family === b.family && labels(a) === labels(b);
}

/** The edits that make a placement another part with all its wires, and the addresses at which it responds then; undefined where that does
 *  not work. */
function toPart(plan: Plan, sheets: Sheets, { placement, part }: PlacedPart, to: PartSheet) {
  const edits = swapPart(plan, placement, part, to);
  const result = applyEdits(plan, edits, sheets);
  if (!result.ok) return undefined;
  const wiresOf = (one: Plan) => Object.keys(one.wires).filter((key) => splitKey(key).placement === placement.id).length;
  const after = findOrThrow(result.plan.placements, (p) => p.id === placement.id);
  const addresses = addressesOf(result.plan, after, sheets).map((one) => one.address);
  return wiresOf(result.plan) === wiresOf(plan) ? { edits, addresses } : undefined;
}

/** Parts that a module may be instead, because they respond at the address that was found: its other versions, else its look-alikes. */
function asOther(plan: Plan, sheets: Sheets, placement: Placement, address: number): readonly BenchRemedy[] {
  const from = partSheet(sheets, placement.sheet)?.sheet;
  if (!from) return [];
  const among = (isOne: (a: PartSheet, b: PartSheet) => boolean): readonly BenchRemedy[] =>
    [...sheets.parts.values()].flatMap(({ sheet }): BenchRemedy[] => {
      if (sheet.id === from.id || !isOne(from, sheet)) return [];
      const other = toPart(plan, sheets, { placement, part: from }, sheet);
      return other?.addresses.includes(address) ? [{ placement: placement.id, address, part: sheet.id, edits: other.edits }] : [];
    });
  const versions = among(areVersions);
  return versions.length > 0 ? versions : among(lookAlike);
}

/** Every part in the library that can respond at an address. */
const partsAt = (sheets: Sheets, address: number): readonly string[] =>
  [...sheets.parts.values()].flatMap(({ sheet }) =>
    (sheet.bus.devices ?? []).some(
      (d) => d.addresses.some((a) => a.address === address) || (d.movable && address >= d.movable.min && address <= d.movable.max),
    )
      ? [sheet.id]
      : [],
  );

/** A bus scan compared with the plan, by address. */
export function compareScan(plan: Plan, sheets: Sheets, bus: Bus, scan: Pick<Scan, 'addresses' | 'held'>): readonly Compared[] {
  const { open, behind } = membersOf(plan, sheets, bus);
  const group = (members: readonly Placement[]) => {
    const map = new Map<number, DeviceAddress[]>();
    for (const one of members.flatMap((member) => addressesOf(plan, member, sheets)))
      map.set(one.address, [...(map.get(one.address) ?? []), one]);
    return map;
  };
  const [planned, hidden] = [group(open), group(behind)];
  const found = new Set([...scan.addresses, ...scan.held]);
  const also = new Set(
    open.flatMap((m) => (partSheet(sheets, m.sheet)?.sheet.bus.devices ?? []).flatMap((d) => (d.alsoAnswers ?? []).map((a) => a.address))),
  );
  const missing = [...planned].filter(([address]) => !found.has(address));
  const lines: Compared[] = [...planned].map(([address, who]) => ({
    is: !found.has(address) ? 'missing' : who.length > 1 ? 'as-one' : 'as-planned',
    address,
    who,
  }));
  for (const [address, who] of hidden)
    lines.push({ is: found.has(address) && !planned.has(address) ? 'as-planned' : 'behind', address, who });
  for (const address of found) {
    if (planned.has(address) || hidden.has(address) || also.has(address)) continue;
    // Who is missing, or hidden behind another at one address, may be the one that answers here.
    const lost = [...missing, ...[...planned].filter(([, who]) => who.length > 1)].flatMap(([, who]) => who.map((one) => one.placement));
    lines.push({
      is: 'extra',
      address,
      twice: address % 2 === 0 ? missing.find(([wanted]) => wanted * 2 === address)?.[0] : undefined,
      remedies: open
        .filter((m) => lost.includes(m.id))
        .flatMap((member) => {
          const strapped = toAddress(plan, sheets, member, address);
          return strapped.length > 0 ? strapped : asOther(plan, sheets, member, address);
        }),
      parts: partsAt(sheets, address),
    });
  }
  return lines.toSorted((a, b) => a.address - b.address);
}

/** What a scan as a whole says about the wires: no planned device responds, or nearly every address does. */
export type ScanConclusion = 'none-responds' | 'all-respond';

/** Of the 112 addresses, so many are never devices: the data line is held low, which every address takes for an acknowledge. */
const STUCK = 100;

/** The conclusion from a scan as a whole; undefined where its single lines say it all.
 *  @param addresses found by the scan */
export function scanConclusion(lines: readonly Compared[], addresses: readonly number[]): ScanConclusion | undefined {
  if (addresses.length >= STUCK) return 'all-respond';
  const planned = lines.filter(({ is }) => is !== 'extra' && is !== 'behind');
  return addresses.length === 0 && planned.length > 0 && planned.every(({ is }) => is === 'missing') ? 'none-responds' : undefined;
}

/** The bus whose addresses a scan is most like; the first where none is. */
export function likeliestBus(plan: Plan, sheets: Sheets, scan: Scan): string | undefined {
  const scored = scannedBuses(plan, sheets).map((bus) => {
    const lines = compareScan(plan, sheets, bus, scan);
    const score = lines.reduce(
      (sum, { is }) => sum + (is === 'as-planned' || is === 'as-one' ? 2 : is === 'missing' || is === 'extra' ? -1 : 0),
      0,
    );
    return { controller: bus.controller, score };
  });
  return scored.toSorted((a, b) => b.score - a.score)[0]?.controller;
}
