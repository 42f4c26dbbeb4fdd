import { shippedSheets } from '../../../core/tests/catalogue';
import { edited, stick } from '../../../core/tests/makePlan';
import { reviewPlan } from '@roof-chart/core/review/review';
import { additionOf } from '@roof-chart/core/review/addition';
import type { Plan } from '@roof-chart/core/plan/plan';
import { guideSteps } from './guideSteps';

const sheets = shippedSheets();
const oled = sheets.parts.get('oled-096-ssd1306-i2c')!.sheet;

const findingsOf = (plan: Plan) => {
  const reviewed = reviewPlan(plan, sheets);
  return reviewed.ok ? reviewed.review.findings : [];
};
const errorsOf = (plan: Plan): number =>
  findingsOf(plan).filter(({ level, accepted }) => level === 'clash' && accepted === undefined).length;
const doneOf = (plan: Plan): readonly boolean[] => guideSteps(plan, sheets, errorsOf(plan)).map(({ isDone }) => isDone);

test('each step of the guided example is reached by what it says', () => {
  const empty = stick();
  expect(doneOf(empty)).toEqual([false, false, false, false]);
  const one = additionOf(empty, sheets, oled)!.plan;
  expect(doneOf(one)).toEqual([true, false, false, false]);
  const two = additionOf(one, sheets, sheets.parts.get('distance-ultrasonic-5v')!.sheet)!.plan;
  // What the step says of it.
  const damage = findingsOf(two).find(({ code }) => code === 'level-damage')!;
  const divide = damage.remedies.find(({ label }) => label === 'divide')!;
  expect(doneOf(two)).toEqual([true, true, false, false]);
  const fixed = edited(two, sheets, ...divide.edits);
  expect(doneOf(fixed)).toEqual([true, true, true, false]);
  expect(doneOf(edited(fixed, sheets, { kind: 'step', step: 'safety:board', done: 'done' }))).toEqual([true, true, true, true]);
  // Before the first review nothing is said to be free of errors.
  expect(guideSteps(fixed, sheets, undefined)[2]!.isDone).toBe(false);
});
