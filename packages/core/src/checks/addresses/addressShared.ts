import { findOrThrow, firstOrThrow } from '../../collections/orThrow';
import { partSheetOrThrow } from '../../sheets/sheetIndex';
import { editsOnto, editsOntoFree, linesOfItsOwn, lineTerminals } from '../../assign/moveBus';
import { pinSetsOf } from '../../assign/fit/pinSets';
import { addressesOf, type DeviceAddress } from '../../nets/addresses';
import type { Bus } from '../../nets/buses';
import { openChannels, reachedFrom } from '../../nets/channels';
import type { Placement } from '../../plan/plan';
import { allFixed, inseparable } from './addressImpossible';
import type { Check, CheckContext, FindingDraft, Remedy } from '../engine/check';
import { moveStrap, takenBy } from './moveStrap';

type Claim = DeviceAddress;

/** The claimant's lines on another controller's free pin set, or on another bus that has room. */
function ownBus(context: CheckContext, bus: Bus, claim: Claim): readonly Remedy[] {
  const placement = findOrThrow(context.plan.placements, (p) => p.id === claim.placement);
  const items = linesOfItsOwn(context.plan, context.sheets, placement, 'i2c');
  if (!items) return [];
  const { plan, sheets } = context;
  const addresses = (parts: readonly Placement[]) =>
    [...parts, ...reachedFrom(plan, sheets, parts)].flatMap((p) => addressesOf(plan, p, sheets).map((a) => a.address));
  const mine = new Set(addresses([placement]));
  const busAt = (pins: { readonly [line: string]: string }) =>
    context.buses.find((b) => b.pins.sda === pins.sda && b.pins.scl === pins.scl);
  const inUse = new Set(context.buses.map((b) => b.controller));
  for (const set of pinSetsOf(context.board, 'i2c')) {
    const there = busAt(set.pins);
    const crowded = there && addresses(there.members).some((address) => mine.has(address));
    if (set.controller === bus.controller || crowded || (!there && inUse.has(set.controller))) continue;
    const edits = (there ? editsOnto : editsOntoFree)(context.board, context.nets, items, set);
    if (!edits || edits.length === 0) continue;
    return [
      {
        label: 'other-bus',
        data: {
          placement: { is: 'placement', id: placement.id },
          controller: { is: 'controller', id: set.controller },
          pins: { is: 'pins', pins: Object.values(set.pins) },
        },
        grade: 'offered',
        edits,
      },
    ];
  }
  return [];
}

/** @param taken addresses to which a claimant must not be strapped */
function finding(context: CheckContext, bus: Bus, claims: readonly Claim[], taken: (claim: Claim) => ReadonlySet<number>): FindingDraft {
  const members = claims.map((c) => c.placement);
  const lines = lineTerminals(
    context.plan,
    context.sheets,
    bus.members.filter((m) => members.includes(m.id)),
    'i2c',
  );
  const stuck = claims.filter((c) => c.device.addresses.length === 1).map((c) => c.placement);
  return {
    level: 'clash',
    message: stuck.length === claims.length ? 'all-fixed' : 'claimed',
    place: { placements: members, terminals: lines.map((t) => t.key), pins: Object.values(bus.pins) },
    data: {
      address: { is: 'address', value: firstOrThrow(claims).address },
      count: { is: 'count', value: claims.length },
      bus: bus.controller === undefined ? { is: 'words', text: 'one bus' } : { is: 'segment', controller: bus.controller },
      members: { is: 'placements', ids: members },
      devices: { is: 'words', text: claims.map((c) => c.device.chip).join(' and ') },
    },
    source: partSheetOrThrow(context.sheets, findOrThrow(context.plan.placements, (p) => p.id === members[0]).sheet).sheet.bus.source,
    remedies: () => [
      ...claims.toReversed().flatMap((c) => moveStrap(context, c, taken(c))),
      ...claims
        .toReversed()
        .flatMap((c) => ownBus(context, bus, c))
        .slice(0, 1),
    ],
  };
}

/** Claims by address, of these parts. */
function claimsOf(context: CheckContext, members: readonly Placement[]): ReadonlyMap<number, readonly Claim[]> {
  const claims = new Map<number, Claim[]>();
  for (const claim of members.flatMap((m) => addressesOf(context.plan, m, context.sheets)))
    claims.set(claim.address, [...(claims.get(claim.address) ?? []), claim]);
  return claims;
}

/** A part behind an open channel is also on the main bus: its address must be free there and on its channel.
 *  @param anywhere every address on the bus and behind it */
function examineChannels(context: CheckContext, bus: Bus, anywhere: ReadonlySet<number>): readonly FindingDraft[] {
  return openChannels(context.plan, context.sheets, bus.members).flatMap(({ before, behind }) => {
    const ids = new Set(behind.map((p) => p.id));
    const claims = claimsOf(context, [...before, ...behind]);
    const here = takenBy(context, [...before, ...behind]);
    const met = [...claims.values()].filter((list) => list.length > 1 && list.some((c) => ids.has(c.placement)));
    // Who is before the channel is heard on all others, too.
    return met.map((list) => finding(context, bus, list, (claim) => (ids.has(claim.placement) ? here : anywhere)));
  });
}

function examineBus(context: CheckContext, bus: Bus): readonly FindingDraft[] {
  const claims = claimsOf(context, bus.members);
  const everybody = [...bus.members, ...reachedFrom(context.plan, context.sheets, bus.members)];
  // A fix must not lead to a further address of another part, or one behind a channel.
  const taken = takenBy(context, everybody);
  const ids = inseparable(context, bus);
  // If no straps can separate them, this is reported once, not for each address.
  const said = (list: readonly Claim[]) => ids.length > 0 && !allFixed(context, ids) && list.every((c) => ids.includes(c.placement));
  return [
    ...[...claims.values()].filter((list) => list.length > 1 && !said(list)).map((list) => finding(context, bus, list, () => taken)),
    ...examineChannels(context, bus, taken),
  ];
}

export const addressShared: Check = {
  code: 'address-shared',
  question: 'Does every I2C device on a bus have a unique address?',
  messages: {
    claimed: {
      title: 'Address conflict: {address} on {bus} ({count} devices)',
      text: '{members} ({devices}) respond to the same address.',
      why: 'A 7-bit address must select one device. Two devices that acknowledge together drive SDA at the same time, and every reading is the wired-AND of both.',
    },
    'all-fixed': {
      title: 'Address conflict: {address} on {bus} ({count} devices)',
      text: '{members} ({devices}) have this address fixed and cannot share a bus.',
      why: 'A 7-bit address must select one device. None of these devices has an address strap that helps; one of them must move to another bus or behind a multiplexer.',
    },
  },
  remedies: {
    'strap-wire': 'Tie {placement} {how} to {to} (address {address})',
    'strap-jumper': 'Set {placement} {how} (address {address})',
    'other-bus': 'Move {placement} to {controller} ({pins})',
  },
  examine: (context) => context.buses.filter((bus) => bus.kind === 'i2c').flatMap((bus) => examineBus(context, bus)),
};
