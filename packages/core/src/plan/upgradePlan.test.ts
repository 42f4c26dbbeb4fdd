import { shippedSheets } from '../../tests/catalogue';
import { add, edited, stick } from '../../tests/makePlan';
import { diffPlans } from './diffPlans';
import type { Edit } from './edit';
import { planDocument, readPlanFile } from './planFile';
import { rescuePlanFile } from './rescuePlan';
import { upgradeEdits, upgradePlan } from './upgradePlan';

const sheets = shippedSheets();
const plan = edited(stick(), sheets, { kind: 'values-on-hand', valuesOnHand: { series: 'own', own: [330, 4700] } });

/** A document as it was written before the values on hand had their present name. */
const asWrittenThen = (document: object): unknown => {
  const { valuesOnHand, ...rest } = document as { valuesOnHand: unknown };
  return { ...rest, drawer: valuesOnHand };
};

test('a plan file of an earlier version opens with its own resistor values, and so does a damaged one', () => {
  const file = asWrittenThen(planDocument(plan, sheets));
  expect(readPlanFile(file)).toMatchObject({ ok: true, file: { plan } });
  expect(rescuePlanFile({ ...(file as object), strange: 1 })).toMatchObject({ ok: true, file: { plan }, leftovers: [{ path: 'strange' }] });
  expect(upgradePlan(asWrittenThen(plan) as typeof plan)).toEqual(plan);
});

test('a wrong value under the earlier name is refused under the present one; both names at once are one key too many', () => {
  const file = asWrittenThen(planDocument(plan, sheets)) as object;
  expect(readPlanFile({ ...file, drawer: { series: 'E7' } })).toMatchObject({ ok: false, path: 'valuesOnHand.series' });
  expect(readPlanFile({ ...file, valuesOnHand: { series: 'E12' } })).toMatchObject({ ok: false, path: 'drawer' });
});

test('edits of an earlier version get the present name where they stand; others stay the very same', () => {
  const rename: Edit = { kind: 'rename-plan', name: 'Hut' };
  const then = [rename, { kind: 'drawer', drawer: { series: 'E24' } }] as unknown as readonly Edit[];
  expect(upgradeEdits(then)).toEqual([rename, { kind: 'values-on-hand', valuesOnHand: { series: 'E24' } }]);
  const now = diffPlans(stick(), plan, () => 'open');
  expect(upgradeEdits(now)).toBe(now);
  for (const none of [undefined, null, 'drawer', { kind: 'drawer' }, [null, 3]]) expect(upgradeEdits(none)).toBe(none);
});

test('a bench note on a fact of a level shifter keeps its place, in a file and in an edit', () => {
  const note: Edit = {
    kind: 'bench-note',
    sheet: 'shifter-mosfet-4',
    fact: 'levelShifter/ohms',
    note: { value: 4700, words: 'measured', date: '2026-11-01' },
  };
  const noted = edited(stick(), sheets, add('x', 'shifter-mosfet-4'), note);
  const notes = noted.benchNotes['shifter-mosfet-4:levelShifter/ohms'];
  expect(notes).toBeDefined();
  const then = { ...noted, benchNotes: { 'shifter-mosfet-4:passage/ohms': { ...notes!, fact: 'passage/ohms' } } };
  expect(upgradePlan(then)).toEqual(noted);
  expect(readPlanFile({ ...planDocument(noted, sheets), benchNotes: then.benchNotes })).toMatchObject({ ok: true, file: { plan: noted } });
  expect(upgradeEdits([{ ...note, fact: 'passage/ohms' }])).toEqual([note]);
});
