import { shippedSheets } from '../../../tests/catalogue';
import { codesAfter, expectCheck, remedied } from '../../../tests/checkHarness';
import { add, edited, shield, stick, wire } from '../../../tests/makePlan';
import type { Edit } from '../../plan/edit';

const sheets = shippedSheets();
const pull = (ohms: number): Edit => ({ kind: 'pull', placement: 's', terminal: 'L2', pull: { ohms, to: 'ground' } });
const sensor = (sheet: string, pin: string) => [add('s', sheet, 'Dusk'), wire('s:L1', 'rail 5v'), wire(`s:L2`, pin)];

test('an analog input of an ATmega328P is specified up to 10 kΩ of source resistance', () => {
  const dusk = edited(shield(), sheets, ...sensor('light-photoresistor', 'A0'), pull(47_000));
  expectCheck('adc-source-high', dusk, sheets, [
    {
      message: 'high',
      level: 'hint',
      title: 'Dusk leg 2: source resistance 47 kΩ, limit 10 kΩ',
      remedies: ['Set the resistor at Dusk leg 2 to 10 kΩ'],
    },
  ]);
  expect(remedied('adc-source-high', dusk, sheets).pulls['s:L2']).toEqual({ ohms: 10_000, to: 'ground' });
  expect(codesAfter(dusk, sheets, pull(10_000))).not.toContain('adc-source-high');
  // As a divider both resistors count in parallel.
  expect(codesAfter(dusk, sheets, { kind: 'series', placement: 's', terminal: 'L2', ohms: 10_000 })).not.toContain('adc-source-high');
});

test('a potentiometer of 10 kΩ is 2.5 kΩ at its middle; a ladder is its pull-up; a board that states no limit has no finding', () => {
  const knob = (ohms: number) =>
    edited(shield(), sheets, add('k', 'potentiometer', 'Knob'), wire('k:VCC', 'rail 5v'), wire('k:GND', 'ground'), wire('k:WIPER', 'A0'), {
      kind: 'series',
      placement: 'k',
      terminal: 'WIPER',
      ohms,
    });
  expect([
    codesAfter(knob(4700), sheets).includes('adc-source-high'),
    codesAfter(knob(10_000), sheets).includes('adc-source-high'),
  ]).toEqual([false, true]);
  const keys = edited(
    shield(),
    sheets,
    add('k', 'keypad-ladder', 'Keys'),
    wire('k:VCC', 'rail 5v'),
    wire('k:GND', 'ground'),
    wire('k:OUT', 'A0'),
    {
      kind: 'ladder',
      placement: 'k',
      ladder: { pull: 22_000, row: [1000, 2200, 4700, 10_000] },
    },
  );
  expect(codesAfter(keys, sheets)).toContain('adc-source-high');
  const stated = edited(
    stick(),
    sheets,
    add('s', 'light-photoresistor', 'Dusk'),
    wire('s:L1', 'rail 3v3'),
    wire('s:L2', 'GP26'),
    pull(47_000),
  );
  expect(codesAfter(stated, sheets)).not.toContain('adc-source-high');
});
