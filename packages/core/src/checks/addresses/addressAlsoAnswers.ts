import { findOrThrow } from '../../collections/orThrow';
import { addressesOf } from '../../nets/addresses';
import type { Bus } from '../../nets/buses';
import { openChannels, reachedFrom } from '../../nets/channels';
import type { Placement } from '../../plan/plan';
import { partSheetOrThrow } from '../../sheets/sheetIndex';
import type { Check, CheckContext, FindingDraft } from '../engine/check';
import { alsoAnswersOf, moveStrap, takenBy } from './moveStrap';

/** Parts that hear each other. */
interface Hearers {
  readonly members: readonly Placement[];
  /** At least one of two is one of these. */
  readonly among: (placement: string) => boolean;
  /** Addresses to which a part must not be strapped. */
  readonly taken: (placement: string) => ReadonlySet<number>;
}

/** Parts that also respond to the address of another part on the same segment. */
function meetings(context: CheckContext, bus: Bus, { members, among, taken }: Hearers): readonly FindingDraft[] {
  const also = alsoAnswersOf(context, members);
  if (also.length === 0) return [];
  const claims = members.flatMap((m) => addressesOf(context.plan, m, context.sheets));
  return also.flatMap(({ claim, address, note }) =>
    claims
      .filter((other) => other.address === address && other.placement !== claim.placement)
      .filter((other) => among(other.placement) || among(claim.placement))
      .map((other): FindingDraft => ({
        level: 'risk',
        message: 'meets',
        place: { placements: [claim.placement, other.placement], pins: Object.values(bus.pins) },
        data: {
          placement: { is: 'placement', id: claim.placement },
          other: { is: 'placement', id: other.placement },
          address: { is: 'address', value: address },
          note: { is: 'words', text: note },
        },
        source: partSheetOrThrow(context.sheets, findOrThrow(context.plan.placements, (p) => p.id === claim.placement).sheet).sheet.bus
          .source,
        remedies: () => moveStrap(context, other, taken(other.placement)),
      })),
  );
}

/** Parts of a bus, then those behind each channel with what is before it: while it is open they are one bus. */
function examineBus(context: CheckContext, bus: Bus): readonly FindingDraft[] {
  const { plan, sheets } = context;
  const anywhere = () => takenBy(context, [...bus.members, ...reachedFrom(plan, sheets, bus.members)]);
  return [
    ...meetings(context, bus, { members: bus.members, among: () => true, taken: anywhere }),
    ...openChannels(plan, sheets, bus.members).flatMap(({ before, behind }) => {
      const members = [...before, ...behind];
      const isBehind = (id: string) => behind.some((p) => p.id === id);
      const taken = (id: string) => (isBehind(id) ? takenBy(context, members) : anywhere());
      return meetings(context, bus, { members, among: isBehind, taken });
    }),
  ];
}

export const addressAlsoAnswers: Check = {
  code: 'address-also-answers',
  question: 'Does any device respond to a second address that another device uses?',
  messages: {
    meets: {
      title: '{placement} also responds to {address}, the address of {other}',
      text: '{note} Both devices receive what is sent to {other}.',
      why: 'Some devices respond to additional addresses (all-call, sub-addresses, broadcast) until the program disables them.',
    },
  },
  remedies: {
    'strap-wire': 'Tie {placement} {how} to {to} (address {address})',
    'strap-jumper': 'Set {placement} {how} (address {address})',
  },
  examine: (context) => context.buses.filter((bus) => bus.kind === 'i2c').flatMap((bus) => examineBus(context, bus)),
};
