import { shippedSheets } from '../../../tests/catalogue';
import { expectCheck, remedied } from '../../../tests/checkHarness';
import { add, edited, shield, stick, wire } from '../../../tests/makePlan';
import { newPlan } from '../../plan/plan';
import type { Edit } from '../../plan/edit';
import { ladderReports } from './ladderReport';

const sheets = shippedSheets();
const keys = (pull: number, ...row: number[]): Edit => ({ kind: 'ladder', placement: 'k', ladder: { pull, row } });
const onStick = (...edits: Edit[]) =>
  edited(stick(), sheets, add('k', 'keypad-ladder', 'Keys'), wire('k:OUT', 'GP26'), wire('k:VCC', 'rail 3v3'), ...edits);
const reading = (plan: ReturnType<typeof stick>) => ladderReports(plan, sheets)[0]!.reading!;

test('keys that lead to the supply: the first reads full scale, no key reads nothing; corners by hand', () => {
  const { keys: levels, idle, verdict } = reading(onStick(keys(10_000, 2200, 4700)));
  expect([levels[0]!.typ, idle.max, verdict]).toEqual([4095, 0, 'good']);
  // 2.2 kΩ above 10 kΩ, each 5 % off the other way.
  expect(levels[1]!.min).toBeCloseTo(4095 * (9500 / (9500 + 2310)), 6);
  expect(levels[1]!.max).toBeCloseTo(4095 * (10_500 / (10_500 + 2090)), 6);
  expect(levels[2]!.typ).toBeCloseTo(4095 * (10_000 / 16_900), 6);
});

test('values that are too near overlap or are thin; values on hand are better', () => {
  const near = onStick(keys(10_000, 22_000, 47_000, 4700));
  expectCheck('ladder-ambiguous', near, sheets, [
    {
      message: 'overlap',
      level: 'clash',
      title: 'Keys: two keys give the same reading',
      remedies: ['Choose resistors for Keys from the values on hand'],
    },
  ]);
  expect(reading(remedied('ladder-ambiguous', near, sheets)).verdict).toBe('good');
  const { gap, between } = reading(near);
  expect(gap).toBeLessThan(0);
  expect([...between].sort()).toEqual([3, 4]);
  expectCheck('ladder-ambiguous', onStick(), sheets, [
    {
      message: 'unknown',
      level: 'hint',
      title: 'Keys: resistor values unknown',
      remedies: ['Choose resistors for Keys from the values on hand'],
    },
  ]);
  expectCheck('ladder-ambiguous', onStick(keys(10_000, 2200, 4700)), sheets, []);
});

test('a supply that the readings do not follow moves them; what is beyond the range that is read right reads as its end', () => {
  const onShield = edited(
    shield(),
    sheets,
    add('k', 'keypad-ladder', 'Keys'),
    wire('k:OUT', 'A0'),
    wire('k:VCC', 'rail 3v3'),
    keys(10_000, 10_000),
  );
  const [full] = ladderReports(onShield, sheets);
  expect(full!.counts).toBe(1023);
  // 3.3 V of a 5 V scale, each with its own corners.
  expect(full!.reading!.keys[0]!.typ).toBeCloseTo((1023 * 3.3) / 5, 0);
  const rail = (id: string) => sheets.boards.get('atmega328p-5v-shield')!.sheet.rails.list.find((one) => one.id === id)!.volts;
  const [from, reference] = [rail('3v3'), rail('5v')];
  // The first key joins the pin to the supply: no resistor counts.
  expect(full!.reading!.keys[0]!.min).toBeCloseTo((1023 * from.min) / reference.max, 6);
  expect(full!.reading!.keys[0]!.max).toBeCloseTo((1023 * from.max) / reference.min, 6);
  const esp = newPlan('p', 'P', { id: 'esp32-stick-38', version: 1 });
  const clipped = edited(esp, sheets, add('k', 'keypad-ladder', 'Keys'), wire('k:VCC', 'rail 3v3'), keys(10_000, 1000, 1000));
  // Full supply, and eleven twelfths of it, both lie above 2.45 V.
  expect(reading(clipped)).toMatchObject({ verdict: 'overlap', gap: 0 });
});

test('an edit for a part without a ladder is refused in words', () => {
  expect(() => edited(stick(), sheets, add('b', 'button-push'), { kind: 'ladder', placement: 'b', ladder: { pull: 1, row: [] } })).toThrow(
    /keys on a resistor ladder/,
  );
});
