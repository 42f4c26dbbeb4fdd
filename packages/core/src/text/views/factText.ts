import { formatAddress, formatSi } from '../../quantity/format';
import { fieldText } from '../fieldText';

/** A fact as two short texts: what it is, and its value with the unit. */
export interface FactRow {
  readonly name: string;
  readonly value: string;
}

/** The sheet and the field of a fact. */
export interface Within {
  readonly kind: 'board' | 'part';
  readonly parent: string;
}

/** Units that the names of facts end in. */
const UNITS: readonly (readonly [RegExp, (value: number) => string])[] = [
  [/Milliamps$/i, (v) => `${v} mA`],
  [/Volts$|^vdd$|AboveSupply$/i, (v) => `${v} V`],
  [/Hz$/, (v) => formatSi(v, 'Hz')],
  [/Ohms$|^ohms$/, (v) => formatSi(v, 'Ω')],
  [/Picofarads$/, (v) => `${v} pF`],
  [/Bytes$/, (v) => (v >= 4096 && v % 1024 === 0 ? `${v / 1024} KiB` : `${v} B`)],
  [/^address$|^(min|max)Address$/, formatAddress],
];

const unitOf = ({ kind, parent }: Within, key: string): ((value: number) => string) => {
  const unit = fieldText(kind, parent, key)?.unit;
  return UNITS.find(([pattern]) => pattern.test(key))?.[1] ?? ((value) => (unit === undefined ? String(value) : `${value} ${unit}`));
};

/** The name of a fact in words, in lower case within a value. */
const nameOf = ({ kind, parent }: Within, key: string): string => fieldText(kind, parent, key)?.label ?? key;

const isRange = (value: object): value is { min: number; typ?: number; max: number } => 'min' in value && 'max' in value;

function valueWords(within: Within, key: string, value: unknown): string {
  if (typeof value === 'number') return unitOf(within, key)(value);
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'string') return value;
  if (Array.isArray(value)) return value.map((member) => valueWords(within, key, member)).join(', ');
  if (typeof value !== 'object' || value === null) return String(value);
  if (isRange(value)) {
    const unit = unitOf(within, key);
    const typ = value.typ === undefined ? '' : `, typically ${unit(value.typ)}`;
    return `${unit(value.min)} to ${unit(value.max)}${typ}`;
  }
  if ('ratio' in value) return `${(value as { ratio: number }).ratio} × supply`;
  if ('volts' in value && 'atMilliamps' in value) return `${String(value.volts)} V at ${String(value.atMilliamps)} mA`;
  if ('volts' in value && Object.keys(value).length === 1) return `${String(value.volts)} V`;
  return Object.entries(value)
    .map(([k, v]) => `${nameOf({ ...within, parent: key }, k).toLowerCase()} ${valueWords({ ...within, parent: key }, k, v)}`)
    .join(', ');
}

/** Facts of a group as rows; its source and its long lists are shown elsewhere. */
export function factRows(within: Within, group: object, leave: readonly string[] = []): readonly FactRow[] {
  return Object.entries(group)
    .filter(([key]) => key !== 'source' && key !== 'list' && !leave.includes(key))
    .map(([key, value]) => ({ name: nameOf(within, key), value: valueWords(within, key, value) }))
    .filter((row) => row.value !== '');
}
