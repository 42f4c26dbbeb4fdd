import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import Ajv from 'ajv/dist/2020';
import fc from 'fast-check';
import { arbitraryEdit } from '../../tests/arbitraryEdits';
import { shippedSheets } from '../../tests/catalogue';
import { cases, runs } from '../../tests/runs';
import { applyEdits } from './applyEdits';
import { newPlan, type Plan } from './plan';
import { fileSchema, planDocument } from './planFile';
import { planJsonSchema } from './planJsonSchema';

const sheets = shippedSheets();
const schema = new Ajv({ strict: true, strictRequired: false, strictTypes: false }).compile(planJsonSchema());
const demo = (id: string): Plan => JSON.parse(readFileSync(join(__dirname, `../../../../demo/plans/${id}.json`), 'utf8')) as Plan;
const DEMOS = ['hive-watch', 'proofing-box', 'ferry-dial', 'workbench-scoreboard'].map(demo);

/** Rules that a JSON Schema cannot say. */
const BEYOND = new Set(['array.unique', 'string.trim']);
function joiSays(document: unknown): boolean | undefined {
  const { error } = fileSchema.validate(document, { convert: false, abortEarly: false });
  if (error?.details.some((d) => BEYOND.has(d.type))) return undefined;
  return error === undefined;
}

test('the published schema is the one made now, and takes the examples with their sheets', () => {
  const published = readFileSync(join(__dirname, '../../../../docs/schemas/plan.schema.json'), 'utf8');
  expect(JSON.parse(published)).toEqual(JSON.parse(JSON.stringify(planJsonSchema())));
  for (const plan of DEMOS)
    expect([plan.id, schema(plan), schema(JSON.parse(JSON.stringify(planDocument(plan, sheets))))]).toEqual([plan.id, true, true]);
});

test('whatever edits made of a plan, its file is one by the schema, too', () => {
  fc.assert(
    fc.property(fc.array(arbitraryEdit(sheets, 'rp2040-stick-40'), { minLength: 10, maxLength: 60 }), (edits) => {
      let plan = newPlan('p', 'P', { id: 'rp2040-stick-40', version: 1 });
      for (const edit of edits) {
        const result = applyEdits(plan, [edit], sheets);
        if (result.ok) plan = result.plan;
      }
      expect([schema(JSON.parse(JSON.stringify(plan))), schema.errors]).toEqual([true, null]);
    }),
    { numRuns: runs(20) },
  );
});

test('validator and schema say the same of files that somebody has broken', () => {
  type Loose = any; // eslint-disable-line @typescript-eslint/no-explicit-any
  const places = (value: unknown, at: readonly (string | number)[] = []): readonly (readonly (string | number)[])[] =>
    typeof value !== 'object' || value === null
      ? [at]
      : [at, ...Object.entries(value).flatMap(([key, member]) => places(member, [...at, Array.isArray(value) ? Number(key) : key]))];
  let [refused, accepted] = [0, 0];
  fc.assert(
    fc.property(
      fc.constantFrom(...DEMOS),
      fc.nat(),
      fc.constantFrom<unknown>(null, -1, 0, 0.5, 1e15, '', 'x', true, [], {}, { to: 'pin' }, { end: 1 }, 'GP4', undefined),
      (plan, where, junk) => {
        const all = places(plan).filter((at) => at.length > 0);
        const at = all[where % all.length]!;
        const copy = structuredClone(plan) as Loose;
        const parent = at.slice(0, -1).reduce((node: Loose, key) => node[key] as Loose, copy);
        if (junk === undefined) Reflect.deleteProperty(parent as object, at.at(-1)!);
        else parent[at.at(-1)!] = junk;
        const said = joiSays(copy);
        if (said === undefined) return;
        expect([at.join('.'), junk, schema(copy)]).toEqual([at.join('.'), junk, said]);
        if (said) accepted += 1;
        else refused += 1;
      },
    ),
    { numRuns: runs(1000) },
  );
  expect(refused).toBeGreaterThan(cases(150));
  expect(accepted).toBeGreaterThan(cases(15));
});
