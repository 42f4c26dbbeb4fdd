import { BOARD_FIELDS } from './boardFields';
import { PART_FIELDS } from './partFields';
import { PLAN_FIELDS } from './planFields';
import { SHARED_FIELDS } from './sharedFields';

/** What people read for a field of a sheet or a plan file. */
export interface FieldText {
  /** A short name in sentence case, without the unit. */
  readonly label: string;
  /** Unit of the value, as written after a number: V, mA, kΩ. */
  readonly unit?: string;
  /** One line on what to enter. */
  readonly help?: string;
}

/** Texts of fields by the field that they are inside of (`''` at the top; lists are stepped through without being named). */
export type FieldTexts = { readonly [parent: string]: { readonly [key: string]: FieldText } };

/** Where a fact stands, and its unit. */
export interface FactName {
  readonly labels: readonly string[];
  readonly unit: string | undefined;
}

/** The three documents whose fields have texts. */
export type FieldDocument = 'board' | 'part' | 'plan';

const TEXTS: { readonly [D in FieldDocument]: FieldTexts } = { board: BOARD_FIELDS, part: PART_FIELDS, plan: PLAN_FIELDS };

/** The unit in which the ends of a range are given, by the end of the range's name. */
const RANGE_UNITS: readonly (readonly [RegExp, string])[] = [
  [/volts$|^vdd$|^usual$/i, 'V'],
  [/ohms$/i, 'Ω'],
  [/hz$/i, 'Hz'],
];

/** The text of a field; undefined where there is none: for members of lists, and for names that a sheet gives itself.
 *  @param parent name of the field that holds it: `''` at the top of the document, and the list's own name for members of a list
 *  @example fieldText('part', 'supply', 'typicalMilliamps') // { label: 'Typical current', unit: 'mA', … } */
export function fieldText(document: FieldDocument, parent: string, key: string): FieldText | undefined {
  const found = TEXTS[document][parent]?.[key] ?? SHARED_FIELDS[parent]?.[key] ?? SHARED_FIELDS['*']?.[key];
  if (!found || found.unit !== undefined || !['min', 'typ', 'max'].includes(key)) return found;
  const unit = RANGE_UNITS.find(([pattern]) => pattern.test(parent))?.[1];
  return unit === undefined ? found : { ...found, unit };
}

/** A label with its unit.
 *  @example labelOf({ label: 'Typical current', unit: 'mA' }) // 'Typical current, mA' */
export const labelOf = ({ label, unit }: FieldText): string => (unit === undefined ? label : `${label}, ${unit}`);

/** A fact's path in words: names that the sheet gives itself stay as they are.
 *  @param path as `factPath` writes it
 *  @param separator between the steps of the path: faults and differences of sheets have `.`
 *  @example factName('part', 'supply/typicalMilliamps') // { labels: ['Supply', 'Typical current'], unit: 'mA' } */
export function factName(document: FieldDocument, path: string, separator: '/' | '.' = '/'): FactName {
  let parent = '';
  let unit: string | undefined;
  const labels = path.split(separator).flatMap((key) => {
    if (key === 'list') return [];
    const text = fieldText(document, parent, key);
    unit = text?.unit;
    // The fields of a member are found by the name of its list.
    if (text) parent = key;
    return [text?.label ?? key];
  });
  return { labels, unit };
}

/** A fact's path in one line.
 *  @example factTitle('part', 'terminals/SDA/label') // 'Terminals › SDA › Label' */
export const factTitle = (document: FieldDocument, path: string, separator: '/' | '.' = '/'): string =>
  factName(document, path, separator).labels.join(' › ');
