import { dividerNames } from '../electrics/reports/components';
import { addressesOf, addressesUnder } from '../nets/addresses';
import { findNets } from '../nets/nets';
import { openTerminals } from '../nets/openTerminals';
import { terminalsOf } from '../nets/terminals';
import type { Placement, Plan } from '../plan/plan';
import { formatAddress } from '../quantity/format';
import type { PartSheet } from '../sheets/partSheet';
import type { Sheets } from '../sheets/sheetIndex';

const PLACE = '{addresses}';

const joined = (addresses: readonly number[]): string => [...new Set(addresses)].map(formatAddress).join(' and ');

/** What a part does at its first power-up with its straps as delivered.
 *  @example usualSight(part) // 'Responds at 0x68; the seconds count.' */
export function usualSight(part: PartSheet): string {
  const straps = Object.fromEntries((part.bus.straps ?? []).map((strap) => [strap.id, strap.default]));
  return part.firstLight.see.replace(PLACE, joined(addressesUnder(part, straps).map(({ address }) => address)));
}

/** What a part does at its first power-up as it is wired: at the addresses that its straps select, and nothing before all that it needs is
 *  connected. Empty without its sheet. */
export function sightOf(plan: Plan, sheets: Sheets, placement: Placement): string {
  const items = terminalsOf(plan, placement, sheets);
  const part = items[0]?.part;
  if (!part) return '';
  if (items.some(({ terminal, wire }) => terminal.led && wire?.end.to === 'rail')) return 'Lit while powered.';
  const open = openTerminals(items, findNets(plan, sheets));
  if (open.length > 0) return `Nothing: ${open.map(({ terminal }) => terminal.label).join(', ')} not wired in the plan.`;
  const addresses = addressesOf(plan, placement, sheets).map(({ address }) => address);
  const shown = addresses.length > 0 ? part.firstLight.see.replace(PLACE, joined(addresses)) : usualSight(part);
  const trimmers = items.filter(({ wire }) => wire?.end.to === 'trimmer').map(({ key }) => dividerNames(plan, sheets, key));
  const see = [shown, ...trimmers.map((name) => `Turn ${name} until the contrast is right.`)].join(' ');
  const circuits = items.flatMap(({ terminal, wire }) =>
    terminal.ifOpen?.wired === undefined ? [] : [{ ...terminal.ifOpen, label: terminal.label, wire }],
  );
  const circuit = circuits.find(({ wire }) => !wire) ?? circuits[0];
  if (!circuit) return see;
  return `${circuit.wire ? circuit.wired : `${circuit.note} (${circuit.label} not wired)`}. ${see}`;
}
