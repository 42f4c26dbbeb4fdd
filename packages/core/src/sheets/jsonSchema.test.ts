import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import Ajv from 'ajv/dist/2020';
import fc from 'fast-check';
import { shippedSheets } from '../../tests/catalogue';
import { cases, runs } from '../../tests/runs';
import { boardSchema } from './boardSchema';
import { sheetJsonSchema } from './jsonSchema';
import { partSchema } from './partSchema';
import type { PartSheet } from './partSheet';

const sheets = shippedSheets();
const all = [...sheets.boards.values(), ...sheets.parts.values()].map((s) => s.sheet);
const ajv = new Ajv({ strict: true, strictRequired: false, strictTypes: false, allErrors: false });
const schemas = { board: ajv.compile(sheetJsonSchema('board')), part: ajv.compile(sheetJsonSchema('part')) };

interface Detail {
  readonly type: string;
  readonly context?: { readonly limit?: unknown; readonly path?: unknown };
}

/** Rules of the validator that a JSON Schema cannot say (members told apart by one of their keys among them): left out of the comparison. */
const isBeyond = ({ type, context }: Detail): boolean =>
  type === 'any.custom' ||
  (type === 'array.unique' && context?.path !== undefined) ||
  (type === 'number.min' && typeof context?.limit === 'object');

function bothSay(kind: 'board' | 'part', document: unknown): { readonly joi: boolean; readonly schema: boolean; readonly beyond: boolean } {
  const { error } = (kind === 'board' ? boardSchema : partSchema).validate(document, { convert: false, abortEarly: false });
  const details = error?.details ?? [];
  const other = details.filter((d) => !isBeyond(d as Detail));
  return { joi: other.length === 0, schema: schemas[kind](document), beyond: other.length !== details.length };
}

test('the JSON Schema accepts every shipped sheet', () => {
  for (const sheet of all) expect({ id: sheet.id, ...bothSay(sheet.kind, sheet) }).toMatchObject({ joi: true, schema: true });
});

type Step = readonly (string | number)[];

/** Every place in a document. */
function places(value: unknown, at: Step = []): readonly Step[] {
  if (typeof value !== 'object' || value === null) return [at];
  return [at, ...Object.entries(value).flatMap(([key, member]) => places(member, [...at, Array.isArray(value) ? Number(key) : key]))];
}

type Loose = any; // eslint-disable-line @typescript-eslint/no-explicit-any

function changed(document: unknown, at: Step, change: (parent: Loose, key: string | number) => void): unknown {
  const copy = structuredClone(document);
  const parent = at.slice(0, -1).reduce((node: Loose, key) => node[key] as Loose, copy as Loose);
  change(parent, at.at(-1)!);
  return copy;
}

const JUNK: readonly unknown[] = [
  null,
  -1,
  0,
  0.5,
  1e15,
  '',
  'x',
  'x'.repeat(500),
  true,
  false,
  [],
  [1],
  {},
  { a: 1 },
  'i2c0.sda',
  'caution',
  'pin',
];

test('the JSON Schema and the validator accept and refuse the same documents', () => {
  const mutable = all.map((sheet) => ({ sheet, at: places(sheet).filter((p) => p.length > 0) }));
  let [refused, accepted] = [0, 0];
  fc.assert(
    fc.property(
      fc.constantFrom(...mutable),
      fc.nat(),
      fc.constantFrom<'set' | 'remove' | 'add'>('set', 'remove', 'add'),
      fc.constantFrom(...JUNK),
      ({ sheet, at }, n, how, junk) => {
        const place = at[n % at.length]!;
        const document = changed(sheet, place, (parent, key) => {
          if (how === 'set') parent[key] = junk;
          else if (how === 'add') parent[Array.isArray(parent) ? parent.length : 'extra'] = junk;
          else if (Array.isArray(parent)) parent.splice(Number(key), 1);
          else Reflect.deleteProperty(parent as object, key);
        });
        const { joi, schema } = bothSay(sheet.kind, document);
        expect({ id: sheet.id, place, how, junk, schema }).toEqual({ id: sheet.id, place, how, junk, schema: joi });
        if (joi) accepted += 1;
        else refused += 1;
      },
    ),
    { numRuns: runs(1200) },
  );
  // A comparison in which one side always says yes would prove nothing.
  expect(refused).toBeGreaterThan(cases(200));
  expect(accepted).toBeGreaterThan(cases(30));
});

test('a list of a fixed length has it on both sides', () => {
  const encoder = all.find((sheet) => sheet.id === 'encoder-rotary-switch') as PartSheet;
  const say = (phases: readonly string[]) => {
    const { joi, schema } = bothSay('part', { ...encoder, encoder: { ...encoder.encoder, phases } });
    return [joi, schema];
  };
  expect([say(['A', 'B']), say(['A']), say(['A', 'B', 'SW'])]).toEqual([
    [true, true],
    [false, false],
    [false, false],
  ]);
});

test.each(['board', 'part'] as const)('the published schema of a %s is the one made now', (kind) => {
  const published = readFileSync(join(__dirname, `../../../../docs/schemas/${kind}-sheet.schema.json`), 'utf8');
  expect(JSON.parse(published)).toEqual(JSON.parse(JSON.stringify(sheetJsonSchema(kind))));
});
