import { addressesOf, isOfTheBus } from '../../nets/addresses';
import type { Bus } from '../../nets/buses';
import { reachedFrom } from '../../nets/channels';
import { partSheetOrThrow } from '../../sheets/sheetIndex';
import type { Check, CheckContext, FindingDraft } from '../engine/check';
import { moveStrap, takenBy } from './moveStrap';

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
          source: partSheetOrThrow(sheets, placement.sheet).sheet.bus.source,
          remedies: () => moveStrap(context, claim, takenBy(context, everybody)),
        },
      ];
    }),
  );
}

export const addressReserved: Check = {
  code: 'address-reserved',
  question: 'Is every I2C device at an address outside the reserved ranges?',
  messages: {
    standard: {
      title: '{placement}: {address} is reserved by the I2C specification',
      text: 'Reserved for {purpose}. Bus scanners skip it and some libraries reject it.',
      why: 'UM10204 reserves 0x00 to 0x07 and 0x78 to 0x7F. A device at one of them works only while no device on the bus uses the reserved function.',
    },
    sheet: {
      title: '{placement}: {address} is reserved by its datasheet',
      text: '{note}',
      why: 'The address pins can select this value, but the chip uses it internally.',
    },
  },
  remedies: {
    'strap-wire': 'Tie {placement} {how} to {to} (address {address})',
    'strap-jumper': 'Set {placement} {how} (address {address})',
  },
  otherwise: 'Select another address with the straps. If none is free, change the address of another device on the bus first.',
  examine: (context) => context.buses.filter((bus) => bus.kind === 'i2c').flatMap((bus) => examineBus(context, bus)),
};
