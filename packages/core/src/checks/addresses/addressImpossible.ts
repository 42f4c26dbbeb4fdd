import { atOrThrow, findOrThrow, firstOrThrow } from '../../collections/orThrow';
import { possibleAddresses, type Setting } from '../../assign/addresses/addressOptions';
import { cheapestAddresses } from '../../assign/addresses/addressChoice';
import { addressesOf } from '../../nets/addresses';
import type { Bus } from '../../nets/buses';
import type { Member } from '../../assign/model/instance';
import { partSheet, partSheetOrThrow } from '../../sheets/sheetIndex';
import type { Check, CheckContext } from '../engine/check';
import { toBusOfItsOwn } from '../fixes/ownBus';

interface Claimant {
  readonly id: string;
  readonly options: readonly Setting[];
}

/** A bus's parts with every address that their straps can give them. */
function claimantsOf(context: CheckContext, bus: Bus): readonly Claimant[] {
  return bus.members.flatMap((placement): Claimant[] => {
    const part = partSheet(context.sheets, placement.sheet)?.sheet;
    const options = part ? possibleAddresses(context.plan, placement, part) : [];
    return options.length > 0 ? [{ id: placement.id, options }] : [];
  });
}

/** Whether straps can part them: every combination is tried where it must be. */
function canBeParted(claimants: readonly Claimant[]): boolean {
  if (partedAtOnce(claimants)) return true;
  const member = ({ id, options }: Claimant): Member => ({
    id,
    kind: 'i2c',
    placements: [id],
    lines: [],
    controllers: [],
    fixed: {},
    here: {},
    addresses: options.map((option) => ({ ...option, moved: 0 })),
    leave: { unwired: 1, moved: 0 },
  });
  return cheapestAddresses(claimants.map(member)) !== null;
}

/** How many addresses a part has whatever its straps say. */
const insists = ({ options }: Claimant): number =>
  (options[0]?.addresses ?? []).filter((address) => options.every((option) => option.addresses.includes(address))).length;

/** Whether each part finds a free address: first those with one option, then those with few. */
function partedAtOnce(claimants: readonly Claimant[]): boolean {
  const taken = new Set<number>();
  return claimants
    .toSorted((a, b) => insists(b) - insists(a) || a.options.length - b.options.length)
    .every(({ options }) => {
      const option = options.find((one) => one.addresses.every((address) => !taken.has(address)));
      for (const address of option?.addresses ?? []) taken.add(address);
      return option !== undefined;
    });
}

/** Parts of a bus for which no straps give each an address of its own: a minimal set, so that without any one of them the others have.
 *  Empty where straps can part all. */
export function inseparable(context: CheckContext, bus: Bus): readonly string[] {
  let ids = known.get(bus);
  if (!ids) known.set(bus, (ids = findInseparable(context, bus)));
  return ids;
}

/** Two checks ask for the same bus of the same plan. */
const known = new WeakMap<Bus, readonly string[]>();

function findInseparable(context: CheckContext, bus: Bus): readonly string[] {
  const now = bus.members.flatMap((m) => addressesOf(context.plan, m, context.sheets).map((a) => a.address));
  // Without a present conflict nothing needs to be tried; this runs after every edit.
  if (new Set(now).size === now.length) return [];
  let kept = claimantsOf(context, bus);
  if (canBeParted(kept)) return [];
  for (const one of kept) {
    const others = kept.filter((m) => m !== one);
    if (!canBeParted(others)) kept = others;
  }
  return kept.map((m) => m.id);
}

/** Whether two parts have the same fixed address; then the address conflict is reported alone. */
export function allFixed(context: CheckContext, ids: readonly string[]): boolean {
  const fixed = ids.map((id) => {
    const part = partSheetOrThrow(context.sheets, findOrThrow(context.plan.placements, (p) => p.id === id).sheet).sheet;
    return (part.bus.devices ?? []).flatMap((device) => (device.addresses.length === 1 ? [firstOrThrow(device.addresses).address] : []));
  });
  return ids.length === 2 && firstOrThrow(fixed).some((address) => atOrThrow(fixed, 1).includes(address));
}

export const addressImpossible: Check = {
  code: 'address-impossible',
  question: 'Can address straps separate all I2C devices on the bus?',
  messages: {
    none: {
      title: 'No combination of address straps separates {count} I2C devices',
      text: '{members} share {addresses}; one of them must move to another bus.',
      why: 'Every combination of address straps that locked wires allow was tried; in each, two devices respond to one address. Removing any one of them leaves a combination that works.',
    },
  },
  remedies: { 'own-bus': 'Move {placement} to {controller} ({pins})' },
  examine: (context) =>
    context.buses
      .filter((bus) => bus.kind === 'i2c')
      .flatMap((bus) => {
        const ids = inseparable(context, bus);
        if (ids.length === 0 || allFixed(context, ids)) return [];
        const claimants = claimantsOf(context, bus).filter((one) => ids.includes(one.id));
        const all = claimants.flatMap((one) => one.options.flatMap((option) => option.addresses));
        const addresses = [...new Set(all)].toSorted((a, b) => a - b);
        const part = partSheetOrThrow(context.sheets, findOrThrow(context.plan.placements, (p) => p.id === ids[0]).sheet).sheet;
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
            remedies: () =>
              ids
                .toReversed()
                .flatMap((id) => toBusOfItsOwn(context, id, 'i2c'))
                .slice(0, 1),
          },
        ];
      }),
};
