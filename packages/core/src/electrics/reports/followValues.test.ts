import { shippedSheets } from '../../../tests/catalogue';
import { add, edited, stick, wire } from '../../../tests/makePlan';
import type { Edit } from '../../plan/edit';
import { additionOf } from '../../review/addition';
import { terminalsOf } from '../../nets/terminals';
import { boardOf } from '../../plan/edit';
import { followValues } from './followValues';
import { calculatedTransistor } from './transistorFor';

const sheets = shippedSheets();
const lit = additionOf(stick(), sheets, sheets.parts.get('led-red-5mm')!.sheet)!.plan;
const follow = (edit: Edit, plan = lit) => followValues(plan, edited(plan, sheets, edit), sheets);
const E96: Edit = { kind: 'values-on-hand', valuesOnHand: { series: 'E96' } };

test('a resistor with its calculated value follows the values on hand; one that was chosen stays', () => {
  const before = lit.series['light-1:A']!;
  const [changed, ...others] = follow(E96);
  expect(others).toEqual([]);
  expect(changed).toMatchObject({ kind: 'series', placement: 'light-1', terminal: 'A' });
  const { ohms } = changed as { ohms: number };
  // The finer series comes nearer to the exact value from above.
  expect([ohms < before, ohms > before / 1.2]).toEqual([true, true]);
  expect(follow(E96, edited(lit, sheets, changed!))).toEqual([]);
  const chosen = edited(lit, sheets, { kind: 'series', placement: 'light-1', terminal: 'A', ohms: 1000 });
  expect(follow(E96, chosen)).toEqual([]);
});

test('a change that sets the value is not undone, and what is done on the bench stays', () => {
  expect(follow({ kind: 'series', placement: 'light-1', terminal: 'A', ohms: 470 })).toEqual([]);
  const done = edited(lit, sheets, { kind: 'step', step: 'component:light-1:series.A', done: String(lit.series['light-1:A']) });
  expect(follow(E96, done)).toEqual([]);
});

test('the resistor of a driver follows the forward voltage of the LEDs on it', () => {
  const driver = additionOf(stick(), sheets, sheets.parts.get('driver-max7219-dip24')!.sheet)!.plan;
  const fine = edited(driver, sheets, E96);
  const set = edited(fine, sheets, ...followValues(driver, fine, sheets));
  const blue = edited(set, sheets, add('b', 'led-blue-5mm'));
  const at = (terminal: string, to: string): Edit => ({
    kind: 'wire',
    placement: 'b',
    terminal,
    end: { to: 'terminal', placement: 'helper-1', terminal: to },
  });
  const onDriver = edited(blue, sheets, at('A', 'SEGA'), at('K', 'DIG0'));
  const [edit] = followValues(blue, onDriver, sheets);
  expect(edit).toMatchObject({ kind: 'series', placement: 'helper-1', terminal: 'ISET' });
  // Blue LEDs need less resistance for the same current by the table of the datasheet.
  expect((edit as { ohms: number }).ohms).toBeLessThan(set.series['helper-1:ISET']!);
});

test('a contrast divider follows the values on hand; a locked one stays', () => {
  const lcd = edited(stick(), sheets, add('l', 'lcd-1602-parallel'), wire('l:VDD', 'rail vbus'), {
    kind: 'wire',
    placement: 'l',
    terminal: 'V0',
    end: { to: 'divider', topOhms: 4700, bottomOhms: 680 },
  });
  const e3: Edit = { kind: 'values-on-hand', valuesOnHand: { series: 'E3' } };
  expect(follow(e3, lcd)).toMatchObject([{ kind: 'wire', terminal: 'V0', end: { to: 'divider' } }]);
  expect(follow(e3, edited(lcd, sheets, { kind: 'lock', placement: 'l', terminal: 'V0', locked: true }))).toEqual([]);
});

test('a base resistor follows the values on hand at its calculated value; the kind of transistor, a chosen value and a built one stay', () => {
  const bare = edited(stick(), sheets, add('r', 'relay-coil-5v'), wire('r:A1', 'rail vbus'), wire('r:A2', 'GP2'));
  const item = terminalsOf(bare, { id: 'r' }, sheets).find(({ terminal }) => terminal.id === 'A2')!;
  const driver = calculatedTransistor({ plan: bare, sheets, board: boardOf(bare, sheets)! }, item)!;
  // (3.3 V − 0.7 V) · gain / 72 mA, the next value down.
  expect(driver.kind).toBe('npn');
  expect(72e-3 / ((3.3 - 0.7) / driver.ohms)).toBeLessThanOrEqual(20);
  const put = (ohms: number) => edited(bare, sheets, { kind: 'driver', placement: 'r', terminal: 'A2', driver: { ...driver, ohms } });
  const [change, ...others] = follow(E96, put(driver.ohms));
  expect(others).toEqual([]);
  expect(change).toMatchObject({ kind: 'driver', placement: 'r', terminal: 'A2', driver: { kind: 'npn' } });
  const { ohms } = (change as { driver: { ohms: number } }).driver;
  // The finer series comes nearer to the exact value from below.
  expect([ohms > driver.ohms, ohms < driver.ohms * 1.2]).toEqual([true, true]);
  expect(follow(E96, put(driver.ohms - 1))).toEqual([]);
  for (const role of ['base', 'transistor']) {
    const built = edited(put(driver.ohms), sheets, { kind: 'step', step: `component:r:${role}.A2`, done: 'x' });
    expect(follow(E96, built)).toEqual([]);
  }
});
