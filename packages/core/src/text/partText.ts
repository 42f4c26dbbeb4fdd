import { firstOrThrow, lastOrThrow } from '../collections/orThrow';
import { formatAddress, formatSi } from '../quantity/format';
import type { Family, I2cDevice, PartSheet } from '../sheets/partSheet';

export const FAMILY_TEXT: { readonly [F in Family]: string } = {
  display: 'Displays',
  sensor: 'Sensors',
  input: 'Inputs',
  light: 'Lights',
  output: 'Outputs',
  storage: 'Storage',
  clock: 'Clocks',
  power: 'Power supplies',
  helper: 'Interface chips',
};

export const BUS_TEXT = { i2c: 'I2C', spi: 'SPI', uart: 'serial', private: 'dedicated lines', none: 'individual wires' } as const;

/** The supply range of a part.
 *  @example supplyText(oled) // '3 V to 5 V' */
export function supplyText(part: PartSheet): string {
  return part.supply ? `${part.supply.volts.min} V to ${part.supply.volts.max} V` : 'no supply';
}

/** What is on the module that matters to the plan: pull-ups, level shifter, regulator.
 *  @example moduleWords(oled) // '4.7 kΩ pull-ups to its regulator; 3.3 V regulator' */
export function moduleText(part: PartSheet): string {
  const pullUps = (part.module.pullUps ?? []).map(
    (p) => `${formatSi(p.ohms, 'Ω')} pull-ups to ${p.to === 'regulated' ? 'the module’s regulator' : 'the supply'}`,
  );
  const shift = part.module.levelShift ? ['level shifter'] : [];
  const regulator = part.supply?.regulator ? ['regulator'] : [];
  const resistors = part.module.passives.filter((words) => /resistor/.test(words)).slice(0, 2);
  return [...new Set([...pullUps, ...shift, ...regulator, ...resistors])].join(', ');
}

/** "0x3C, 0x3D" or "0x20 to 0x27": what one device can be set to. */
export function deviceAddresses(device: I2cDevice): string {
  const own = device.addresses.map((a) => a.address).sort((a, b) => a - b);
  return own.length > 2 ? `${formatAddress(firstOrThrow(own))} to ${formatAddress(lastOrThrow(own))}` : own.map(formatAddress).join(', ');
}

/** The addresses of every device on the module. */
export function addressText(part: PartSheet): string {
  return (part.bus.devices ?? []).map(deviceAddresses).join(' and ');
}

/** Parts that are forms of one thing, together, in the order of the first of each. */
export function variantGroups(parts: readonly PartSheet[]): readonly (readonly PartSheet[])[] {
  const groups = new Map<string, PartSheet[]>();
  for (const part of parts) {
    const key = part.variantOf ?? part.id;
    groups.set(key, [...(groups.get(key) ?? []), part]);
  }
  return [...groups.values()];
}
