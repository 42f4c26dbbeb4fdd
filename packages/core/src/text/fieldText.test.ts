import { shippedSheets } from '../../tests/catalogue';
import { planJsonSchema } from '../plan/planJsonSchema';
import { factsOf } from '../sheets/factPath';
import { type JsonSchema, sheetJsonSchema } from '../sheets/jsonSchema';
import { BOARD_FIELDS } from './boardFields';
import { factName, factTitle, fieldText, labelOf } from './fieldText';
import { PART_FIELDS } from './partFields';
import { PLAN_FIELDS } from './planFields';

const documents = [
  ['board', sheetJsonSchema('board'), BOARD_FIELDS],
  ['part', sheetJsonSchema('part'), PART_FIELDS],
  ['plan', planJsonSchema(), PLAN_FIELDS],
] as const;

interface Property {
  readonly parent: string;
  readonly key: string;
  readonly title: unknown;
}

/** Every property of a schema, with the field that it is inside of. */
function propertiesOf(schema: unknown, parent = ''): readonly Property[] {
  if (typeof schema !== 'object' || schema === null) return [];
  return Object.entries(schema).flatMap(([word, inner]) => {
    if (word === 'if' || word === 'then' || word === 'else') return [];
    if (word !== 'properties') return propertiesOf(inner, parent);
    return Object.entries(inner as { readonly [key: string]: JsonSchema }).flatMap(([key, value]) => [
      { parent, key, title: value['title'] },
      ...propertiesOf(value, key === 'list' ? parent : key),
    ]);
  });
}

test.each(documents)('every field of the published %s schema has a label, and every label has a field', (document, schema, fields) => {
  const found = propertiesOf(schema);
  expect(found.length).toBeGreaterThan(60);
  for (const property of found)
    expect({
      ...property,
      ok: /^[A-Z0-9][^_{}]*$/.test(String(property.title)) && !/[a-z]{2}[A-Z]/.test(String(property.title).replace('MicroPython', '')),
    }).toEqual({
      ...property,
      ok: true,
    });
  const known = new Set(found.map(({ parent, key }) => `${parent} ${key}`));
  const spare = Object.entries(fields).flatMap(([parent, keys]) => Object.keys(keys).filter((key) => !known.has(`${parent} ${key}`)));
  expect({ document, spare }).toEqual({ document, spare: [] });
});

test('a number has the unit that its name ends in', () => {
  const units: readonly (readonly [RegExp, string])[] = [
    [/Milliamps$/i, 'mA'],
    [/Volts$|^volts$/, 'V'],
    [/(?<!kilo)Ohms$|^ohms$/, 'Ω'],
    [/Hz$|^hz$/, 'Hz'],
    [/Bytes$|^bytes$/, 'B'],
    [/Picofarads$|^picofarads$/, 'pF'],
  ];
  let counted = 0;
  const check = (schema: unknown, document: 'board' | 'part' | 'plan', parent: string): void => {
    if (typeof schema !== 'object' || schema === null) return;
    for (const [word, inner] of Object.entries(schema)) {
      if (word !== 'properties') {
        check(inner, document, parent);
        continue;
      }
      for (const [key, value] of Object.entries(inner as { readonly [key: string]: JsonSchema })) {
        const unit = units.find(([name]) => name.test(key))?.[1];
        if (unit && (value['type'] === 'number' || value['type'] === 'integer')) {
          counted++;
          expect({ parent, key, unit: fieldText(document, parent, key)?.unit }).toEqual({ parent, key, unit });
        }
        check(value, document, key === 'list' ? parent : key);
      }
    }
  };
  for (const [document, schema] of documents) check(schema, document, '');
  expect(counted).toBeGreaterThan(60);
});

test('the ends of a range have the unit of the range', () => {
  expect(labelOf(fieldText('part', 'volts', 'min')!)).toBe('Minimum, V');
  expect(labelOf(fieldText('board', 'pullUpOhms', 'max')!)).toBe('Maximum, Ω');
  expect(labelOf(fieldText('part', 'pwmHz', 'typ')!)).toBe('Typical, Hz');
  expect(labelOf(fieldText('part', 'movable', 'min')!)).toBe('Lowest address');
});

test('a path of a fact is named by labels, with the names of the sheet left as they are', () => {
  expect(factTitle('part', 'supply/volts/min')).toBe('Supply › Supply voltage › Minimum');
  expect(factName('part', 'supply/typicalMilliamps')).toEqual({ labels: ['Supply', 'Typical current'], unit: 'mA' });
  expect(factTitle('part', 'terminals.list.SDA.role', '.')).toBe('Terminals › SDA › Role');
  expect(factTitle('board', 'electrical.portSums.1.sinkMilliamps', '.')).toBe(
    'Electrical characteristics › Current limits per port › 1 › Maximum sink current',
  );
});

test('no fact of any shipped sheet is named by a key of the file', () => {
  const { boards, parts } = shippedSheets();
  const named = [...boards.values(), ...parts.values()].flatMap(({ sheet }) =>
    factsOf(sheet).flatMap(({ path }) =>
      factName(sheet.kind, path).labels.flatMap((label) => (/^[a-z]+[A-Z]/.test(label) ? [`${sheet.id} ${path}: ${label}`] : [])),
    ),
  );
  expect(named).toEqual([]);
});
