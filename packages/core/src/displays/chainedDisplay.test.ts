import { shippedSheets } from '../../tests/catalogue';
import { expectCheck } from '../../tests/checkHarness';
import { add, edited } from '../../tests/makePlan';
import { newPlan, type Plan } from '../plan/plan';
import { additionOf } from '../review/addition';
import { seenDisplays } from './chainedDisplay';

const sheets = shippedSheets();
const chainOf = (id: string, count: number): Plan => {
  let plan = newPlan('p', 'P', { id: 'atmega328p-5v-shield', version: 1 });
  for (let n = 0; n < count; n += 1) plan = additionOf(plan, sheets, sheets.parts.get(id)!.sheet)!.plan;
  return plan;
};

test('chained modules are one display: text and its limits run across them', () => {
  const plan = chainOf('matrix-8x8-max7219', 3);
  const [display, ...others] = seenDisplays(plan, sheets);
  expect(others).toEqual([]);
  expect(display!.part.readout).toMatchObject({ columns: 24, rows: 8, unit: 'pixels' });
  expect(display!.members.map(({ id }) => id)).toEqual(plan.placements.map(({ id }) => id));
  const text = (shown: string) => edited(plan, sheets, { kind: 'readout', placement: display!.placement.id, readout: { text: shown } });
  expectCheck('readout-overflow', text('ABCD'), sheets, []);
  expectCheck('readout-overflow', text('ABCDE'), sheets, [
    expect.objectContaining({ message: 'cut', title: expect.stringMatching(/1 character/) }) as never,
  ]);
});

test('eight-digit modules count on, and a module with a text of its own ends the common display', () => {
  const plan = chainOf('digits-8-max7219', 2);
  expect(seenDisplays(plan, sheets)[0]!.part.readout!.columns).toBe(16);
  const own = edited(plan, sheets, { kind: 'readout', placement: plan.placements[1]!.id, readout: { text: '42' } });
  expect(seenDisplays(own, sheets).map(({ part, members }) => [part.readout!.columns, members.length])).toEqual([
    [8, 1],
    [8, 1],
  ]);
});

test('what is not chained stays as it is, in the order of the plan', () => {
  const plan = edited(chainOf('matrix-8x8-max7219', 1), sheets, add('o', 'oled-096-ssd1306-i2c'));
  expect(seenDisplays(plan, sheets).map(({ placement }) => placement.id)).toEqual([plan.placements[0]!.id, 'o']);
});
