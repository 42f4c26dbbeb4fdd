import { formatAddress } from '@roof-chart/core/quantity/format';
import type { FactValue } from '@roof-chart/core/sheets/factPath';

/** What is typed for a fact, as a value of the kind that the sheet has there; null where it is none.
 *  @example readValue(5.1, '4.7') // 4.7 */
export function readValue(kind: FactValue, typed: string): FactValue | null {
  const text = typed.trim();
  if (typeof kind === 'number') {
    const value = Number(text.replace(/^0x/i, (x) => x.toLowerCase()));
    return text !== '' && Number.isFinite(value) ? value : null;
  }
  if (typeof kind === 'boolean') return text === 'yes' ? true : text === 'no' ? false : null;
  if (typeof kind === 'string') return text === '' ? null : text;
  const members = text.split(',').map((member) => member.trim());
  const numbers = members.map(Number);
  if (kind.some((member) => typeof member === 'number')) return numbers.every(Number.isFinite) ? numbers : null;
  return members.every((member) => member !== '') ? members : null;
}

/** A fact's value as it is typed.
 *  @param path the fact's name: addresses are shown as everywhere, in hexadecimal */
export function valueText(value: FactValue, path: string): string {
  if (typeof value === 'number' && path.endsWith('address')) return formatAddress(value);
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  return typeof value === 'object' ? value.join(', ') : String(value);
}

/** Today's local date. */
export function today(now: Date): string {
  const two = (n: number) => String(n).padStart(2, '0');
  return `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`;
}
