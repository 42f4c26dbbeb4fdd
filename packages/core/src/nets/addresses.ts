import type { I2cDevice, PartSheet, Strap } from '../sheets/partSheet';
import { partSheet, type Sheets } from '../sheets/sheetIndex';
import { type Placement, type Plan, terminalKey, type WireEnd } from '../plan/plan';

/** The address one device of a placement answers on, and the strap states that make it so. */
export interface DeviceAddress {
  readonly placement: string;
  readonly device: I2cDevice;
  readonly address: number;
  readonly straps: { readonly [strap: string]: string };
}

function tieOf(end: WireEnd): 'ground' | 'supply' | undefined {
  if (end.to === 'ground') return 'ground';
  return end.to === 'rail' ? 'supply' : undefined;
}

/** The state a strap is in: for a terminal from its wire, for a jumper from the placement; else the default. */
export function strapState(plan: Plan, placement: Placement, strap: Strap): string {
  if (strap.by === 'jumper') return placement.straps[strap.id] ?? strap.default;
  const wire = plan.wires[terminalKey(placement.id, strap.terminal ?? strap.id)];
  const tie = wire && tieOf(wire.end);
  return strap.states.find((state) => tie !== undefined && state.tie === tie)?.id ?? strap.default;
}

/** Every strap of a placement with its present state. */
export function strapStates(plan: Plan, placement: Placement, part: PartSheet): { readonly [strap: string]: string } {
  return Object.fromEntries((part.bus.straps ?? []).map((strap) => [strap.id, strapState(plan, placement, strap)]));
}

/** The addresses a placement answers on, one a device. A device whose straps stand in no listed
 *  combination answers nowhere we know, and is left out. */
export function addressesOf(plan: Plan, placement: Placement, sheets: Sheets): readonly DeviceAddress[] {
  const part = partSheet(sheets, placement.sheet)?.sheet;
  if (!part) return [];
  const straps = strapStates(plan, placement, part);
  return (part.bus.devices ?? []).flatMap((device) => {
    const row = device.addresses.find((a) => Object.entries(a.straps).every(([id, state]) => straps[id] === state));
    return row ? [{ placement: placement.id, device, address: row.address, straps: row.straps }] : [];
  });
}
