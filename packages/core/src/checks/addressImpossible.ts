import { addressOptions } from '../allocate/addressOptions';
import { cheapestAddresses } from '../allocate/addressChoice';
import { addressesOf } from '../nets/addresses';
import type { Bus } from '../nets/buses';
import type { Member } from '../allocate/instance';
import { partSheet } from '../sheets/sheetIndex';
import type { Check, CheckContext } from './check';
import { toBusOfItsOwn } from './ownBus';

/** A bus's parts with every address that their straps can give them. */
function membersOf(context: CheckContext, bus: Bus): readonly Member[] {
  return bus.members.flatMap((placement): Member[] => {
    const part = partSheet(context.sheets, placement.sheet)?.sheet;
    // Where a part answers besides is a risk of its own, which a program can often switch off.
    const besides = new Set((part?.bus.devices ?? []).flatMap((d) => (d.alsoAnswers ?? []).map((also) => also.address)));
    const all = part ? addressOptions(context.plan, context.board, placement, part) : [];
    const addresses = all.map((option) => ({ ...option, addresses: option.addresses.filter((a) => !besides.has(a)) }));
    if (addresses.every((option) => option.addresses.length === 0)) return [];
    const id = placement.id;
    return [
      { id, kind: 'i2c', placements: [id], lines: [], controllers: [], fixed: {}, here: {}, addresses, leave: { unwired: 1, moved: 0 } },
    ];
  });
}

/** Parts of a bus for which no straps give each an address of its own: as few as can be, so that without any one of them
 *  the others have. Empty where straps can part all. */
export function inseparable(context: CheckContext, bus: Bus): readonly string[] {
  const now = bus.members.flatMap((m) => addressesOf(context.plan, m, context.sheets).map((a) => a.address));
  // As they stand they are apart: no need to try anything, and this is asked after every edit.
  if (new Set(now).size === now.length) return [];
  let kept = membersOf(context, bus);
  if (cheapestAddresses(kept)) return [];
  for (const member of kept) {
    const others = kept.filter((m) => m !== member);
    if (!cheapestAddresses(others)) kept = others;
  }
  return kept.map((m) => m.id);
}

/** Whether two parts have one fixed address in common: then that they share it says it all. */
export function allFixed(context: CheckContext, ids: readonly string[]): boolean {
  const fixed = ids.map((id) => {
    const part = partSheet(context.sheets, context.plan.placements.find((p) => p.id === id)!.sheet)!.sheet;
    return (part.bus.devices ?? []).flatMap((device) => (device.addresses.length === 1 ? [device.addresses[0]!.address] : []));
  });
  return ids.length === 2 && fixed[0]!.some((address) => fixed[1]!.includes(address));
}

export const addressImpossible: Check = {
  code: 'address-impossible',
  question: 'Can straps give every I2C part of a bus an address of its own?',
  messages: {
    none: {
      title: 'No straps part {count} I2C parts',
      text: '{members} share {addresses}: one of them needs another bus.',
      why: 'Every combination of straps of these parts was tried, as far as locked wires leave them free: in each, two parts answer on one address. Without any one of them the others can be parted.',
    },
  },
  remedies: { 'own-bus': 'Put {placement} on {controller} ({pins})' },
  examine: (context) =>
    context.buses
      .filter((bus) => bus.kind === 'i2c')
      .flatMap((bus) => {
        const ids = inseparable(context, bus);
        if (ids.length === 0 || allFixed(context, ids)) return [];
        const options = membersOf(context, bus).filter((m) => ids.includes(m.id));
        const addresses = [...new Set(options.flatMap((m) => m.addresses.flatMap((o) => o.addresses)))].toSorted((a, b) => a - b);
        const part = partSheet(context.sheets, context.plan.placements.find((p) => p.id === ids[0])!.sheet)!.sheet;
        return [
          {
            level: 'clash' as const,
            message: 'none',
            place: { placements: ids },
            data: {
              count: { is: 'count' as const, value: ids.length },
              members: { is: 'placements' as const, ids },
              addresses: { is: 'addresses' as const, values: addresses },
            },
            source: part.bus.source,
            remedies: ids
              .toReversed()
              .flatMap((id) => toBusOfItsOwn(context, id, 'i2c'))
              .slice(0, 1),
          },
        ];
      }),
};
