import { shippedSheets } from '../../../tests/catalogue';
import { findingsOf } from '../../../tests/checkHarness';
import { add, edited, wire } from '../../../tests/makePlan';
import { isCautionFor, pinTroubles } from '../../assign/fit/pinUse';
import { buildSheet } from '../../outputs/buildSheet';
import type { Edit } from '../../plan/edit';
import { newPlan, type Plan } from '../../plan/plan';
import { additionOf } from '../../review/addition';
import { applyEdits } from '../../plan/applyEdits';

const sheets = shippedSheets();
const on = (board: string, ...edits: readonly Edit[]): Plan =>
  edited(newPlan('p', 'P', { id: board, version: sheets.boards.get(board)!.sheet.version }), sheets, ...edits);
const told = (plan: Plan) =>
  findingsOf(plan, sheets)
    .filter((f) => f.code === 'pin-caution')
    .map((f) => [f.level, f.message]);
const terminal = (part: string, id: string) => sheets.parts.get(part)!.terminals.get(id)!;
const pin = (board: string, id: string) => sheets.boards.get(board)!.pins.get(id)!;

test.each<[string, string, string, string, string, string[][]]>([
  ['a lamp on a JTAG pin', 'atmega32a-5v-dip-40', 'led-red-5mm', 'A', 'PC2', [['risk', 'setting']]],
  ['a debug pin that the program must release', 'stm32f103-stick-40', 'led-red-5mm', 'A', 'B3', [['risk', 'setting']]],
  ['a sensor that drives the transmit pin of the console', 'bcm2711-sbc-40', 'motion-pir', 'OUT', 'GPIO14', [['risk', 'contends']]],
  [
    'a sensor on the receive pin, over which programs are loaded',
    'atmega328p-5v-shield',
    'motion-pir',
    'OUT',
    'D0',
    [['risk', 'contends']],
  ],
  ['a display line on the transmit pin of the USB serial', 'atmega328p-5v-shield', 'lcd-1602-parallel', 'RS', 'D1', [['hint', 'listens']]],
  ['the console that may run over USB', 'rp2040-stick-40', 'motion-pir', 'OUT', 'GP0', [['hint', 'contends']]],
  [
    'an LED to ground under a switch that only a pull-up brings high',
    'atmega328p-5v-shield',
    'button-push',
    'C1',
    'D13',
    [['risk', 'loads']],
  ],
  ['an LED to ground under an open-drain output', 'atmega328p-5v-shield', 'hall-switch-a3144', 'OUT', 'D13', [['risk', 'loads']]],
  ['an LED to the supply under the same switch', 'esp8266-stick-30', 'button-push', 'C1', 'D4', [['hint', 'lights']]],
  ['an LED under an output that drives it', 'atmega328p-5v-shield', 'motion-pir', 'OUT', 'D13', [['hint', 'lights']]],
  ['an LED under a clock of the board', 'atmega328p-5v-shield', 'digits-8-max7219', 'CLK', 'D13', []],
  ['a position that is cut from the chip', 'stm32f411-shield-64', 'led-red-5mm', 'A', 'D1', [['clash', 'fails']]],
  ['a relay on a pin that blinks while the board starts', 'atmega328p-5v-shield', 'relay-active-high', 'IN', 'D13', [['risk', 'acts']]],
  ['a relay on a pin that is high until the program runs', 'esp8266-stick-30', 'relay-active-high', 'IN', 'D0', [['risk', 'acts']]],
  ['a relay that is on when low, on the same pin', 'esp8266-stick-30', 'relay-active-low', 'IN', 'D0', []],
  ['a resistor of the bus under another signal', 'bcm2711-sbc-40', 'led-red-5mm', 'A', 'GPIO2', [['hint', 'pulled']]],
  ['the bus that the resistor is for', 'bcm2711-sbc-40', 'humidity-sht31', 'SDA', 'GPIO2', []],
  ['a pin that the board leaves alone', 'atmega328p-5v-shield', 'relay-active-high', 'IN', 'D7', []],
])('%s', (_, board, part, id, pinId, expected) => {
  expect(told(on(board, add('x', part), wire(`x:${id}`, pinId)))).toEqual(expected);
});

test('a non-maskable interrupt at reset is judged by how the line rests, as every level at reset', () => {
  const plan = on('kl25z-shield', add('x', 'button-push', 'Door'), wire('x:C1', 'D4'));
  expect(findingsOf(plan, sheets).map((f) => [f.level, f.code])).toContainEqual(['risk', 'pin-boot-level']);
});

test('the fix goes to a pin without a use of its own; the build sheet says what frees the one that stays', () => {
  const lamp = on('atmega32a-5v-dip-40', add('l', 'led-red-5mm', 'Lamp'), wire('l:A', 'PC2'), add('m', 'led-red-5mm'), wire('m:A', 'PC4'));
  const [finding] = findingsOf(lamp, sheets).filter((f) => f.code === 'pin-caution');
  const after = edited(lamp, sheets, ...finding!.remedies[0]!.edits);
  const end = after.wires['l:A']!.end;
  expect(
    end.to === 'pin' &&
      pinTroubles(pin('atmega32a-5v-dip-40', end.pin), sheets.parts.get('led-red-5mm')!.sheet, terminal('led-red-5mm', 'A')),
  ).toEqual([]);
  const settings = buildSheet(lamp, sheets)!.flatMap(({ steps }) => steps.filter((step) => step.what.is === 'setting'));
  expect(settings.map((step) => [step.id, step.value])).toEqual([['setting:PC2+PC4', expect.stringContaining('JTAGEN')]]);
});

test('caution in the allocation is for the use: the bus of the header goes where its resistors are', () => {
  expect(isCautionFor(pin('bcm2711-sbc-40', 'GPIO2'), terminal('humidity-sht31', 'SDA'))).toBe(false);
  expect(isCautionFor(pin('bcm2711-sbc-40', 'GPIO2'), terminal('led-red-5mm', 'A'))).toBe(true);
  const empty = on('bcm2711-sbc-40');
  const added = applyEdits(empty, additionOf(empty, sheets, sheets.parts.get('humidity-sht31')!.sheet)!.edits, sheets);
  expect(added.ok && Object.values(added.plan.wires).map((w) => (w.end.to === 'pin' ? w.end.pin : ''))).toEqual(
    expect.arrayContaining(['GPIO2', 'GPIO3']),
  );
});
