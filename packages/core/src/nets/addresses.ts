import type { I2cDevice, PartSheet, Strap, Tie } from '../sheets/partSheet';
import { partSheet, type Sheets } from '../sheets/sheetIndex';
import { type Placement, type Plan, terminalKey, type WireEnd } from '../plan/plan';

/** Whether UM10204 keeps an address for a purpose of the bus: general call and the like, 10-bit addresses, device identity. */
export const isOfTheBus = (address: number): boolean => address <= 0x07 || address >= 0x78;

/** Whether straps should not select an address although they can. */
export const isReserved = ({ address, reserved }: I2cDevice['addresses'][number]): boolean => reserved !== undefined || isOfTheBus(address);

/** The address one device of a placement answers on, and the strap states that make it so. */
export interface DeviceAddress {
  readonly placement: string;
  readonly device: I2cDevice;
  readonly address: number;
  readonly straps: { readonly [strap: string]: string };
  /** Why the sheet marks the address as reserved. */
  readonly reserved?: string;
}

/** The terminal of a part for a bus line. */
export const lineTerminal = (part: PartSheet, line: 'sda' | 'scl'): string | undefined =>
  part.terminals.list.find((t) => t.role === `i2c.${line}`)?.id;

/** What a wire ties a terminal of a part to: a bus line where it ends at the part's own terminal of it, or at the pin that this one has. */
export function tieOf(plan: Plan, placement: Placement, part: PartSheet, end: WireEnd): Tie | undefined {
  if (end.to === 'ground') return 'ground';
  if (end.to === 'rail') return 'supply';
  if (end.to !== 'pin' && end.to !== 'terminal') return undefined;
  return (['sda', 'scl'] as const).find((line) => {
    const own = lineTerminal(part, line);
    if (own === undefined) return false;
    if (end.to === 'terminal') return end.placement === placement.id && end.terminal === own;
    const there = plan.wires[terminalKey(placement.id, own)]?.end;
    return there?.to === 'pin' && there.pin === end.pin;
  });
}

/** The state a strap is in: for a terminal from its wire, for a jumper from the placement; else the default. */
export function strapState(plan: Plan, placement: Placement, part: PartSheet, strap: Strap): string {
  if (strap.by === 'jumper') return placement.straps[strap.id] ?? strap.default;
  const wire = plan.wires[terminalKey(placement.id, strap.terminal ?? strap.id)];
  const tie = wire && tieOf(plan, placement, part, wire.end);
  return strap.states.find((state) => tie !== undefined && state.tie === tie)?.id ?? strap.default;
}

/** Every strap of a placement with its present state. */
export function strapStates(plan: Plan, placement: Placement, part: PartSheet): { readonly [strap: string]: string } {
  return Object.fromEntries((part.bus.straps ?? []).map((strap) => [strap.id, strapState(plan, placement, part, strap)]));
}

/** The addresses of a placement, one per device. A device whose strap combination is not listed is left out. */
export function addressesOf(plan: Plan, placement: Placement, sheets: Sheets): readonly DeviceAddress[] {
  const part = partSheet(sheets, placement.sheet)?.sheet;
  if (!part) return [];
  return addressesUnder(part, strapStates(plan, placement, part)).map((one) => ({ placement: placement.id, ...one }));
}

/** The addresses of a part's devices under these strap states; a device whose combination is not listed is left out. */
export const addressesUnder = (part: PartSheet, straps: DeviceAddress['straps']): readonly Omit<DeviceAddress, 'placement'>[] =>
  (part.bus.devices ?? []).flatMap((device) => {
    const row = device.addresses.find((a) => Object.entries(a.straps).every(([id, state]) => straps[id] === state));
    return row ? [{ device, ...row }] : [];
  });
