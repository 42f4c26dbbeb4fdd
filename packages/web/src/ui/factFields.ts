import { formatAddress, formatBytes, formatSi } from '@roof-chart/core/quantity/format';
import type { FactValue } from '@roof-chart/core/sheets/factPath';
import { type Role, ROLE_WORDS } from '@roof-chart/core/sheets/roles';

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

/** A fact's value with its unit, scaled where a prefix helps.
 *  @example factValueText(1e6, 'controllers/i2c0/maxHz', 'Hz') // '1 MHz' */
export function factValueText(value: FactValue, path: string, unit: string | undefined): string {
  if (path.endsWith('/role')) return ROLE_WORDS[value as Role] ?? String(value);
  if (path.endsWith('/need')) return value === 'needed' ? 'required' : String(value);
  if (unit === undefined || typeof value !== 'number') return `${valueText(value, path)}${unit === undefined ? '' : `\u00a0${unit}`}`;
  if (unit === 'B') return formatBytes(value);
  return ['Hz', 'Ω', 'F'].includes(unit) ? formatSi(value, unit) : `${value}\u00a0${unit}`;
}

/** Today's local date. */
export function today(now: Date): string {
  const two = (n: number) => String(n).padStart(2, '0');
  return `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`;
}
