import { formatAddress, formatSi } from '@roof-chart/core/quantity/format';

/** A fact as two short texts: what it is, and its value with the unit. */
export interface FactRow {
  readonly name: string;
  readonly value: string;
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

const unitOf = (key: string): ((value: number) => string) => UNITS.find(([pattern]) => pattern.test(key))?.[1] ?? String;

/** `inputMaxAboveSupply` as words: `input max above supply`; the unit's name is in the value. */
export function keyWords(key: string): string {
  return key
    .replace(/(Milliamps|Volts|Hz|Ohms|Picofarads|Bytes)$/, '')
    .replace(/([a-z])([A-Z0-9])/g, '$1 $2')
    .toLowerCase()
    .replace(/^$/, 'value');
}

const UNIT_WORDS: { readonly [ending: string]: string } = {
  Milliamps: 'mA',
  Volts: 'V',
  Hz: 'Hz',
  Ohms: 'Ω',
  Picofarads: 'pF',
  Bytes: 'bytes',
};

/** The label of a fact's field: its name in words, with the unit it is typed in.
 *  @example fieldLabel('typicalMilliamps') // 'typical (mA)' */
export function fieldLabel(key: string): string {
  const ending = /(Milliamps|Volts|Hz|Ohms|Picofarads|Bytes)$/i.exec(key)?.[1];
  const unit = ending && UNIT_WORDS[`${ending[0]!.toUpperCase()}${ending.slice(1)}`];
  return unit ? `${keyWords(key.replace(/^(volts|ohms)$/, '$1'))} (${unit})` : keyWords(key);
}

const isRange = (value: object): value is { min: number; typ?: number; max: number } => 'min' in value && 'max' in value;

function valueWords(key: string, value: unknown): string {
  if (typeof value === 'number') return unitOf(key)(value);
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'string') return value;
  if (Array.isArray(value)) return value.map((member) => valueWords(key, member)).join(', ');
  if (typeof value !== 'object' || value === null) return String(value);
  if (isRange(value)) {
    const unit = unitOf(key);
    const typ = value.typ === undefined ? '' : `, typically ${unit(value.typ)}`;
    return `${unit(value.min)} to ${unit(value.max)}${typ}`;
  }
  if ('ratio' in value) return `${(value as { ratio: number }).ratio} × its supply`;
  if ('volts' in value && 'atMilliamps' in value) return `${String(value.volts)} V at ${String(value.atMilliamps)} mA`;
  if ('volts' in value && Object.keys(value).length === 1) return `${String(value.volts)} V`;
  return Object.entries(value)
    .map(([k, v]) => `${keyWords(k)} ${valueWords(k, v)}`)
    .join(', ');
}

/** Facts of a group as rows; its source and its long lists are shown elsewhere. */
export function factRows(group: object, leave: readonly string[] = []): readonly FactRow[] {
  return Object.entries(group)
    .filter(([key]) => key !== 'source' && key !== 'list' && !leave.includes(key))
    .map(([key, value]) => ({ name: keyWords(key), value: valueWords(key, value) }))
    .filter((row) => row.value !== '');
}
