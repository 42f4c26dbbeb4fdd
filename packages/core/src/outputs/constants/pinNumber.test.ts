import { shippedSheets } from '../../../tests/catalogue';
import { add, edited, shield, wire } from '../../../tests/makePlan';
import { constantSet, numberingOf, pinNumber } from './constantSet';
import { constantTree, writeCpp } from './writers';

const sheets = shippedSheets();
const board = (id: string) => sheets.boards.get(id)!;
const number = (id: string, pin: string) => pinNumber(board(id), board(id).pins.get(pin)!);

test.each([
  ['atmega328p-5v-shield', { D10: 10, D4: 4, D12: 12, D13: 13, A0: 14, A5: 19 }],
  ['atmega328p-5v-stick-30', { RX0: 0, TX1: 1, D10: 10, A0: 14, A7: 21 }],
  ['atmega2560-5v-shield', { D53: 53, A0: 54, A15: 69 }],
  ['atmega32u4-5v-shield', { D13: 13, MISO: 14, SCK: 15, MOSI: 16, RXLED: 17, A0: 18, A5: 23 }],
  ['samd21-stamp-14', { D0: 0, D10: 10 }],
  ['rp2040-stick-40', { GP0: 0, GP28: 28 }],
  ['rp2040-stamp-14', { D0: 26, D10: 3 }],
  ['esp32-stick-38', { VP: 36, IO23: 23 }],
  ['bcm2711-sbc-40', { GPIO17: 17 }],
  ['esp8266-stick-30', { A0: undefined }],
  ['atmega32a-5v-dip-40', { PB2: undefined }],
  ['stm32f103-stick-40', { B12: undefined }],
] as const)('programs for %s call its pins %j', (id, pins) => {
  expect(Object.fromEntries(Object.keys(pins).map((pin) => [pin, number(id, pin)]))).toEqual(pins);
});

test.each([...sheets.boards.keys()])('%s: no two conductors share a number, and no header pin lacks one where pins have numbers', (id) => {
  const pins = board(id).sheet.pins.list.filter((pin) => pin.kind === 'io' && !pin.sameAs);
  const numbers = pins.flatMap((pin) => number(id, pin.id) ?? []);
  expect(new Set(numbers).size).toBe(numbers.length);
  const lacking = pins.filter((pin) => pin.header && number(id, pin.id) === undefined).map((pin) => pin.id);
  if (numberingOf(board(id)) === 'port') expect(numbers).toEqual([]);
  // An analog input of its own is no GPIO.
  else expect(lacking.filter((pin) => pin !== 'A0')).toEqual([]);
});

test('only a name that is D and a number, as a whole, is a number of the board', () => {
  const shieldBoard = board('atmega328p-5v-shield');
  const plain = shieldBoard.pins.get('D10')!;
  const named = (label: string) => pinNumber(shieldBoard, { ...plain, id: 'X', label, also: [] });
  expect(['D7', 'AD7', 'D7A', 'LED7', '7'].map(named)).toEqual([7, undefined, undefined, undefined, undefined]);
});

test('a plan on an ATmega328P: the select on D10 is 10, its port and bit have names of their own', () => {
  const plan = edited(
    shield(),
    sheets,
    add('glass', 'oled-13-sh1106-spi', 'Glass'),
    wire('glass:CS', 'D10'),
    wire('glass:DC', 'D4'),
    wire('glass:RES', 'D12'),
  );
  const tree = constantTree(constantSet(plan, sheets)!);
  expect(tree).toMatchObject({
    pin_numbers: 'board',
    glass: {
      pin_cs: 10,
      pin_cs_port: 'PB2',
      pin_cs_bit: 2,
      pin_dc: 4,
      pin_dc_port: 'PD4',
      pin_res: 12,
      pin_res_port: 'PB4',
      pin_res_bit: 4,
    },
  });
  expect(writeCpp(constantSet(plan, sheets)!)).toMatch(/^\/\/ .*\n\/\/ Pin numbers are the digital pin numbers of the board/);
});
