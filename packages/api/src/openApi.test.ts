import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import Ajv2020 from 'ajv/dist/2020';
import { readPlanFile } from '@roof-chart/core/plan/planFile';
import { openApi } from './openApi';
import { storedPlanSchema } from './storedPlan';

const document = openApi();

/** Every reference in a value. */
function references(value: unknown): readonly string[] {
  if (Array.isArray(value)) return value.flatMap(references);
  if (typeof value !== 'object' || value === null) return [];
  return Object.entries(value).flatMap(([key, inner]) => (key === '$ref' ? [inner as string] : references(inner)));
}

test('every shape that is referred to is there, and each is referred to', () => {
  const there = Object.keys(document.components.schemas).map((name) => `#/components/schemas/${name}`);
  expect([...new Set(references(document))].toSorted()).toEqual(there.toSorted());
});

test('a plan that the validator takes is one by the document, and one that it refuses is none', () => {
  const ajv = new Ajv2020({ strict: false, validateFormats: false });
  ajv.addSchema({ $id: 'api', ...document });
  const isStored = ajv.getSchema('api#/components/schemas/StoredPlan')!;
  const read = readPlanFile(JSON.parse(readFileSync(join(__dirname, '../../../demo/plans/hive-watch.json'), 'utf8')));
  const plan = read.ok ? read.file.plan : undefined;
  const stored = { plan, revision: 3, epoch: '0123456789abcdef', recent: [] };
  const both = (value: unknown) => [isStored(value), storedPlanSchema.validate(value).error === undefined];
  expect(both(stored)).toEqual([true, true]);
  expect(both({ ...stored, revision: -1 })).toEqual([false, false]);
  expect(both({ ...stored, plan: { ...plan, radio: 'on' } })).toEqual([false, false]);
  const { recent: _recent, ...less } = stored;
  expect(both(less)).toEqual([false, false]);
});

test('each endpoint says what it takes and answers', () => {
  const edits = document.paths['/api/plans/{id}/edits']!['post'] as {
    readonly parameters: readonly { readonly name: string; readonly in: string }[];
    readonly requestBody: { readonly content: Record<string, { readonly schema: { readonly required: readonly string[] } }> };
    readonly responses: Record<string, unknown>;
  };
  expect(edits.parameters.map(({ name, in: place }) => `${place} ${name}`)).toEqual(['path id', 'header If-Match']);
  expect(edits.requestBody.content['application/json']!.schema.required).toEqual(['batches']);
  expect(Object.keys(edits.responses)).toEqual([
    '200',
    '400',
    '401',
    '404',
    '409',
    '412',
    '413',
    '415',
    '422',
    '428',
    '429',
    '500',
    '503',
    '507',
  ]);
});
