import { addressesOf, isOfTheBus } from '../nets/addresses';
import type { Bus } from '../nets/buses';
import { reachedFrom } from '../nets/channels';
import { partSheet } from '../sheets/sheetIndex';
import type { Check, CheckContext, FindingDraft } from './check';
import { strapAway, takenBy } from './strapAway';

/** What UM10204 keeps the addresses at either end for. */
function purposeOf(address: number): string {
  if (address <= 0x07) return 'general call, START byte, CBUS and high-speed mode';
  return address <= 0x7b ? 'the first byte of 10-bit addresses' : 'the device ID';
}

function examineBus(context: CheckContext, bus: Bus): readonly FindingDraft[] {
  const { plan, sheets } = context;
  const everybody = [...bus.members, ...reachedFrom(plan, sheets, bus.members)];
  return everybody.flatMap((placement) =>
    addressesOf(plan, placement, sheets).flatMap((claim): FindingDraft[] => {
      if (!claim.reserved && !isOfTheBus(claim.address)) return [];
      return [
        {
          level: 'risk',
          message: claim.reserved ? 'sheet' : 'standard',
          place: { placements: [placement.id], pins: Object.values(bus.pins) },
          data: {
            placement: { is: 'placement', id: placement.id },
            address: { is: 'address', value: claim.address },
            ...(claim.reserved
              ? { note: { is: 'words', text: claim.reserved } }
              : { purpose: { is: 'words', text: purposeOf(claim.address) } }),
          },
          source: partSheet(sheets, placement.sheet)!.sheet.bus.source,
          remedies: () => strapAway(context, claim, takenBy(context, everybody)),
        },
      ];
    }),
  );
}

export const addressReserved: Check = {
  code: 'address-reserved',
  question: 'Is every I2C part at an address that is free to choose?',
  messages: {
    standard: {
      title: '{placement} is at {address}, which the bus standard reserves',
      text: 'It stands for {purpose}. Scanners skip it, and some libraries refuse it.',
      why: 'UM10204 reserves 0x00 to 0x07 and 0x78 to 0x7F. A part there works as long as nobody on the bus uses them for their purpose.',
    },
    sheet: {
      title: '{placement} is at {address}, which its datasheet reserves',
      text: '{note}',
      why: 'The straps can select every number, but the chip uses some of them itself.',
    },
  },
  remedies: {
    'strap-wire': 'Strap {placement} {how} to {to}: {address}',
    'strap-jumper': 'Set {placement} {how}: {address}',
  },
  otherwise: 'Set its straps to another address; where none is free, give another part of the bus a different one first.',
  examine: (context) => context.buses.filter((bus) => bus.kind === 'i2c').flatMap((bus) => examineBus(context, bus)),
};
