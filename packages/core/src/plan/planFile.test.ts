import hive from '../../../../demo/plans/hive-watch.json';
import { shippedSheets } from '../../tests/catalogue';
import { indexSheets } from '../sheets/sheetIndex';
import type { Plan } from './plan';
import { planDocument, planFault, planRefs, readPlanFile, withRefs } from './planFile';

const sheets = shippedSheets();
const plan = hive as unknown as Plan;
const again = (document: unknown) => readPlanFile(JSON.parse(JSON.stringify(document)));

test('a plan file carries its sheets and opens against them alone', () => {
  const read = again(planDocument(plan, sheets));
  if (!read.ok) throw new Error(read.fault);
  expect(read.file.plan).toMatchObject({ name: plan.name, wires: plan.wires });
  expect(read.file.sheets).toHaveLength(planRefs(plan).length);
  expect(planFault(read.file.plan, indexSheets(read.file.sheets))).toBeUndefined();
  expect(again(plan)).toMatchObject({ ok: true, file: { sheets: [] } });
});

type Loose = Record<string, any>; // eslint-disable-line @typescript-eslint/no-explicit-any

const spoilt = (change: (document: Loose) => void): Loose => {
  const document = structuredClone(planDocument(plan, sheets)) as unknown as Loose;
  change(document);
  return document;
};

test.each([
  ['a sheet that is unsound', spoilt((d) => (d['sheets'][1].supply.volts.max = -1)), 'sheets.1.supply.volts.max'],
  ['sheets that are no list', spoilt((d) => (d['sheets'] = 'all')), 'sheets'],
  ['a prototype key', JSON.parse(JSON.stringify(plan).replace('"wires":', '"__proto__":{},"wires":')) as unknown, '__proto__'],
  ['no plan at all', [], 'the document'],
])('%s is refused with its place', (_, document, path) => {
  expect(again(document)).toMatchObject({ ok: false, path });
});

test('a plan that its sheets do not bear out names the place', () => {
  const fault = (change: (p: Loose) => void) => planFault(spoilt(change) as unknown as Plan, sheets)?.path;
  expect(fault((p) => (p['board'].id = 'gone'))).toBe('board.id');
  expect(fault((p) => (p['placements'][2].sheet.id = 'gone'))).toBe('placements.2.sheet.id');
  expect(fault((p) => (p['wires']['display-1:XYZ'] = p['wires']['display-1:SDA']))).toBe('wires.display-1:XYZ');
  expect(fault((p) => (p['wires']['display-1:SDA'].end = { to: 'pin', pin: 'GP99' }))).toBe('wires.display-1:SDA.end.pin');
  expect(fault((p) => (p['wires']['display-1:VCC'].end = { to: 'rail', rail: 'gone' }))).toBe('wires.display-1:VCC.end.rail');
  expect(fault((p) => (p['wires']['display-1:SDA'].end = { to: 'terminal', placement: 'x', terminal: 'Y' }))).toBe(
    'wires.display-1:SDA.end',
  );
  expect(fault((p) => (p['wires']['display-1:SDA'].end = { to: 'trimmer', ohms: 10_000 }))).toBe('wires.display-1:SDA.end');
  expect(fault(() => undefined)).toBeUndefined();
});

test('references follow where sheets went', () => {
  const moved = withRefs(plan, (ref) => ({ ...ref, version: ref.version + 4 }));
  expect(planRefs(moved).every((ref) => ref.version === 5)).toBe(true);
});
