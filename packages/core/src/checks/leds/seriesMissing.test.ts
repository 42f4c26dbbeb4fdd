import { shippedSheets } from '../../../tests/catalogue';
import { codesAfter, expectCheck, remedied } from '../../../tests/checkHarness';
import { add, edited, shield, stick, wire } from '../../../tests/makePlan';
import { newPlan } from '../../plan/plan';
import { completeAddition } from '../../review/additionNeeds';

const sheets = shippedSheets();

test('a backlight at a supply without its resistor is a warning, with the value of its sheet as the fix', () => {
  const lcd = edited(shield(), sheets, add('t', 'lcd-1602-parallel', 'Text'), wire('t:A', 'rail 5v'), wire('t:K', 'ground'));
  expectCheck('series-missing', lcd, sheets, [
    { message: 'supply', level: 'risk', title: 'Text A: no series resistor', remedies: ['Add 100 Ω at Text A'] },
  ]);
  const mended = remedied('series-missing', lcd, sheets);
  expect([mended.series, codesAfter(mended, sheets).includes('series-missing')]).toEqual([{ 't:A': 100 }, false]);
  // Not wired, it is no matter of a resistor; the data line of a strip works without one.
  expectCheck('series-missing', edited(shield(), sheets, add('t', 'lcd-1602-parallel')), sheets, []);
  expectCheck('series-missing', edited(stick(), sheets, add('s', 'strip-ws2812b'), wire('s:DIN', 'GP2')), sheets, []);
});

test('a display that comes with a supply of its own comes with the resistor of its backlight', () => {
  const plan = newPlan('p', 'P', { id: 'nrf52833-classroom-25', version: 1 });
  const { needs } = completeAddition(plan, sheets, sheets.parts.get('lcd-0802-parallel')!.sheet)!;
  expect(needs!.plan.series).toEqual({ [`${needs!.plan.placements[0]!.id}:A`]: 100 });
  expect(codesAfter(needs!.plan, sheets)).not.toContain('series-missing');
});
