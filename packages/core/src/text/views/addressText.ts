import { listText } from '../names';
import { formatAddress } from '../../quantity/format';
import type { AddressRow } from '../../review/i2cReport';
import { readQuery } from '../../sheets/searchParts';

/** Who on a bus answers, or could answer, on an address that was typed in 7 or in 8 bits. */
export function findAddress(text: string, rows: readonly AddressRow[], nameOf: (id: string) => string): string {
  const { addresses, halved } = readQuery(text);
  const address = addresses[0];
  if (address === undefined) return 'Not an address. Example: 0x3C.';
  const form = halved.length > 0 ? `${formatAddress7or8(text)} is the 8-bit form of ${formatAddress(address)}. ` : '';
  const names = (list: readonly AddressRow[]) => listText(list.map((row) => nameOf(row.placement)));
  const now = rows.filter((row) => row.now.includes(address) || row.also.includes(address));
  const could = rows.filter((row) => !now.includes(row) && row.steps.includes(address));
  const reserved = address < 0x08 || address > 0x77 ? ' Reserved by UM10204.' : '';
  const there =
    now.length > 0
      ? `${names(now)} ${now.length === 1 ? 'responds' : 'respond'} to ${formatAddress(address)}.`
      : `No device at ${formatAddress(address)}.`;
  return `${form}${there}${could.length > 0 ? ` Possible: ${names(could)}.` : ''}${reserved}`;
}

const formatAddress7or8 = (text: string): string => text.trim().toUpperCase().replace('0X', '0x');
