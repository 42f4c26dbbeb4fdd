import { shippedSheets } from '../../tests/catalogue';
import { EVERY_EDIT, everyPart } from '../../tests/everyEdit';
import { edited } from '../../tests/makePlan';
import { defaultStrap } from '../sheets/defaultStrap';
import { applyEdit } from './applyEdits';
import { diffPlans } from './diffPlans';

const sheets = shippedSheets();
const plan = everyPart(sheets);
const difference = (from: typeof plan, to: typeof plan) => diffPlans(from, to, (part, strap) => defaultStrap(sheets, part, strap));

test.each(EVERY_EDIT.map((edit, n) => [`${edit.kind} (${n + 1})`, edit] as const))(
  '%s: the difference that it makes leads from one plan to the other, and back',
  (_, edit) => {
    const after = edited(plan, sheets, edit);
    expect(edited(plan, sheets, ...difference(plan, after))).toEqual(after);
    expect(edited(after, sheets, ...difference(after, plan))).toEqual(plan);
  },
);

test.each(EVERY_EDIT.map((edit, n) => [`${edit.kind} (${n + 1})`, edit] as const))('%s is taken back exactly by its inverse', (_, edit) => {
  const done = applyEdit(plan, edit, sheets);
  if (!done.ok) throw new Error(JSON.stringify(done.problem));
  expect(edited(done.plan, sheets, ...done.inverse)).toEqual(plan);
});

test('between equal plans there is none', () => expect(difference(plan, { ...plan })).toEqual([]));
