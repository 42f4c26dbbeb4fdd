import fc from 'fast-check';
import { runs } from '../../tests/runs';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { readPlanFile } from './planFile';
import { rescuePlanFile } from './rescuePlan';

const hive = JSON.parse(readFileSync(join(__dirname, '../../../../demo/plans/hive-watch.json'), 'utf8')) as Record<string, unknown> & {
  wires: Record<string, unknown>;
  placements: unknown[];
};
const copy = (): typeof hive => JSON.parse(JSON.stringify(hive)) as typeof hive;

test('a sound file has no leftovers and is read as ever', () => {
  const read = readPlanFile(hive);
  expect(rescuePlanFile(hive)).toEqual({ ok: true, file: read.ok ? read.file : undefined, leftovers: [] });
});

test('a file from the future keeps what is known; what is not comes back with its place', () => {
  const later = { ...copy(), formatVersion: 2, threeD: { models: [1, 2] } };
  (later.wires['display-1:SDA'] as Record<string, unknown>)['shielded'] = true;
  const rescued = rescuePlanFile(later);
  if (!rescued.ok) throw new Error(rescued.fault);
  expect(rescued.leftovers.map(({ path }) => path)).toEqual(['formatVersion', 'wires.display-1:SDA', 'threeD']);
  expect(rescued.leftovers[1]!.value).toMatchObject({ shielded: true, end: { to: 'pin', pin: 'GP4' } });
  expect(Object.keys(rescued.file.plan.wires)).toHaveLength(Object.keys(hive.wires).length - 1);
});

test('what makes a plan must be there: a half file, something else, nothing', () => {
  const { board: _board, ...half } = copy();
  expect(rescuePlanFile(half)).toMatchObject({ ok: false, path: 'board' });
  expect(rescuePlanFile({ recipe: 'bread' })).toMatchObject({ ok: false });
  expect(rescuePlanFile(null)).toMatchObject({ ok: false, path: 'the document' });
  expect(rescuePlanFile('text')).toMatchObject({ ok: false });
});

test('as many unknown entries as are taken out one by one are; more are refused as a whole', () => {
  const strange = (count: number) => ({ ...copy(), ...Object.fromEntries(Array.from({ length: count }, (_, n) => [`extra${n}`, n])) });
  const rescued = rescuePlanFile(strange(199));
  expect(rescued.ok && rescued.leftovers.length).toBe(199);
  expect(rescuePlanFile(strange(200))).toEqual({ ok: false, path: 'the document', fault: 'more than 200 unknown entries' });
});

test('whatever entries are broken, every other one is kept, and every broken one is handed back', () => {
  const keys = Object.keys(hive.wires);
  fc.assert(
    fc.property(
      fc.uniqueArray(fc.constantFrom(...keys), { maxLength: 8 }),
      fc.constantFrom(5, null, 'x', { end: 3 }, [[]]),
      (broken, value) => {
        const document = copy();
        for (const key of broken) document.wires[key] = value;
        const rescued = rescuePlanFile(document);
        if (!rescued.ok) throw new Error(`${rescued.path}: ${rescued.fault}`);
        expect(Object.keys(rescued.file.plan.wires)).toEqual(keys.filter((key) => !broken.includes(key)));
        expect(rescued.leftovers.map(({ path, value: was }) => [path, was])).toEqual(
          keys.filter((key) => broken.includes(key)).map((key) => [`wires.${key}`, value]),
        );
      },
    ),
    { numRuns: runs(60) },
  );
});
