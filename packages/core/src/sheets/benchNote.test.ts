import { isDeepStrictEqual } from 'node:util';
import fc from 'fast-check';
import { shippedSheets } from '../../tests/catalogue';
import { allFindingsOf } from '../../tests/checkHarness';
import { add, edited, stick, wire } from '../../tests/makePlan';
import { runs } from '../../tests/runs';
import { describeFinding } from '../text/describe';
import type { Edit } from '../plan/edit';
import { planDocument, readPlanFile } from '../plan/planFile';
import { diffPlans } from '../plan/diffPlans';
import { reviewPlan } from '../review/review';
import { factAt, factsOf, withFact } from './factPath';
import { bareSheets, notedSheets } from './notedSheets';
import { partSheet } from './sheetIndex';
import { sourceLine } from './source';

const sheets = shippedSheets();
const all = [...sheets.boards.values(), ...sheets.parts.values()].map((indexed) => indexed.sheet);

const note = (sheet: string, fact: string, value?: number | string, words = 'measured'): Edit => ({
  kind: 'bench-note',
  sheet,
  fact,
  note: { ...(value === undefined ? {} : { value }), words, date: '2026-11-25' },
});
const oled = edited(stick(), sheets, add('oled', 'oled-096-ssd1306-i2c'), wire('oled:VCC', 'rail 3v3'));

test('every fact of every sheet is found by its name, and replacing it changes that fact alone', () => {
  for (const sheet of all) {
    const facts = factsOf(sheet);
    // Names may repeat only where the sheet itself repeats a member; then nothing could tell the two apart.
    expect([sheet.id, new Set(facts.map((f) => f.path)).size]).toEqual([sheet.id, facts.length]);
    expect([sheet.id, facts.filter(({ path, value }) => !isDeepStrictEqual(factAt(sheet, path), value))]).toEqual([sheet.id, []]);
  }
  fc.assert(
    fc.property(fc.constantFrom(...all), fc.nat(), (sheet, n) => {
      const facts = factsOf(sheet);
      const fact = facts[n % facts.length]!;
      if (/(^|\/)id$|address$/.test(fact.path)) return;
      const changed = withFact(sheet, fact.path, 'otherwise')!;
      const differing = factsOf(changed).filter((f, at) => JSON.stringify(f) !== JSON.stringify(facts[at]));
      expect(differing).toEqual([{ path: fact.path, value: 'otherwise' }]);
    }),
    { numRuns: runs(200) },
  );
});

test('a note goes before the sheet in the ledgers, and shows at the source', () => {
  const before = reviewPlan(oled, sheets);
  const plan = edited(oled, sheets, note('oled-096-ssd1306-i2c', 'supply/typicalMilliamps', 22, 'all pixels lit'));
  const after = reviewPlan(plan, sheets);
  if (!before.ok || !after.ok) throw new Error('no review');
  const load = (r: typeof before) => r.review.ledgers.rails.find((rail) => rail.rail === '3v3')!.typicalMilliamps;
  expect(load(after) - load(before)).toBeCloseTo(22 - sheets.parts.get('oled-096-ssd1306-i2c')!.sheet.supply!.typicalMilliamps);
  const noted = notedSheets(sheets, plan.benchNotes);
  const supply = partSheet(noted, plan.placements[0]!.sheet)!.sheet.supply!;
  expect(sourceLine(supply.source)).toMatch(/; supply\/typicalMilliamps is 22 on the bench 2026-11-25: all pixels lit$/);
  expect(sourceLine(supply.source, 'supply/volts')).not.toContain('bench');
  expect(notedSheets(noted, plan.benchNotes)).toBe(noted);
  expect([bareSheets(noted), notedSheets(noted, {})]).toEqual([sheets, sheets]);
});

test('a corrected supply range changes what the checks say', () => {
  const plan = edited(oled, sheets, note('oled-096-ssd1306-i2c', 'supply/volts/min', 3.25, 'regulator drops out'));
  expect(allFindingsOf(plan, sheets).map((f) => [f.code, f.message])).toContainEqual(['supply-wrong', 'sags-low']);
});

test('a note about a fact that the sheet leaves out puts it in', () => {
  const plan = edited(oled, sheets, note('oled-096-ssd1306-i2c', 'supply/absoluteMaxVolts', 6));
  expect(partSheet(notedSheets(sheets, plan.benchNotes), plan.placements[0]!.sheet)!.sheet.supply!.absoluteMaxVolts).toBe(6);
});

test('notes are in the plan’s file, and a comparison of plans restores them', () => {
  const plan = edited(oled, sheets, note('rp2040-stick-40', 'rails/3v3/budgetMilliamps', 250), note('oled-096-ssd1306-i2c', 'supply'));
  const read = readPlanFile(JSON.parse(JSON.stringify(planDocument(plan, sheets))));
  expect(read.ok && read.file.plan).toEqual(plan);
  expect(read.ok && JSON.stringify(read.file.sheets)).not.toContain('benchNotes');
  expect(edited(oled, sheets, ...diffPlans(oled, plan, () => ''))).toEqual(plan);
  expect(edited(plan, sheets, ...diffPlans(plan, oled, () => ''))).toEqual(oled);
  const { benchNotes: _, ...old } = planDocument(oled, sheets);
  expect(readPlanFile(JSON.parse(JSON.stringify(old)))).toMatchObject({ ok: true, file: { plan: { benchNotes: {} } } });
});

describe('sheet-unverified', () => {
  const said = (plan: typeof oled) => {
    const finding = allFindingsOf(plan, sheets).find((f) => f.code === 'sheet-unverified');
    return finding && describeFinding(plan, sheets, finding).why;
  };
  test('names the sheets and the groups of facts, until every one is confirmed', () => {
    expect(said(stick())).toBeUndefined();
    const groups = ['terminals', 'supply', 'module'];
    expect(said(oled)).toMatch(/: OLED [^:]*: terminals, supply and components on the module\. /);
    const terminals = edited(oled, sheets, note('oled-096-ssd1306-i2c', 'terminals'));
    expect(said(terminals)).toMatch(/: supply and components on the module/);
    expect(said(edited(oled, sheets, ...groups.map((g) => note('oled-096-ssd1306-i2c', g))))).toBeUndefined();
  });
  test('one measured fact does not confirm its whole group, all of them do', () => {
    const { source: _, ...facts } = sheets.parts.get('oled-096-ssd1306-i2c')!.sheet.supply!;
    const paths = factsOf(facts, 'supply').map((f) => f.path);
    const one = edited(oled, sheets, note('oled-096-ssd1306-i2c', paths[0]!));
    expect(said(one)).toContain('supply');
    expect(said(edited(oled, sheets, ...paths.map((path) => note('oled-096-ssd1306-i2c', path))))).not.toMatch(/supply/);
  });
});
