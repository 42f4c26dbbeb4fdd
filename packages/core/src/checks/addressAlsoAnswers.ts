import { addressesOf } from '../nets/addresses';
import type { Bus } from '../nets/buses';
import { partSheet } from '../sheets/sheetIndex';
import type { Check, CheckContext, FindingDraft } from './check';
import { alsoAnswersOn, strapAway } from './strapAway';

function examineBus(context: CheckContext, bus: Bus): readonly FindingDraft[] {
  const claims = bus.members.flatMap((m) => addressesOf(context.plan, m, context.sheets));
  const also = alsoAnswersOn(context, bus);
  const taken = new Set([...claims.map((c) => c.address), ...also.map((a) => a.address)]);
  return also.flatMap(({ claim, address, note }) =>
    claims
      .filter((other) => other.address === address && other.placement !== claim.placement)
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
        source: partSheet(context.sheets, context.plan.placements.find((p) => p.id === claim.placement)!.sheet)!.sheet.bus.source,
        remedies: () => strapAway(context, other, taken),
      })),
  );
}

export const addressAlsoAnswers: Check = {
  code: 'address-also-answers',
  question: 'Does any part answer on a further address that another part has?',
  messages: {
    meets: {
      title: '{placement} also answers on {address}, where {other} is',
      text: '{note} What is sent to {other} reaches both.',
      why: 'Some parts answer on more than the address that is set, often until the program forbids it.',
    },
  },
  remedies: {
    'strap-wire': 'Strap {placement} {how} to {to}: {address}',
    'strap-jumper': 'Set {placement} {how}: {address}',
  },
  examine: (context) => context.buses.filter((bus) => bus.kind === 'i2c').flatMap((bus) => examineBus(context, bus)),
};
