import { boardOf } from '../plan/edit';
import { otherLines } from '../electrics/reports/otherLines';
import { spiReport } from '../electrics/reports/spiReport';
import { findBuses } from '../nets/buses';
import type { Plan } from '../plan/plan';
import { i2cReport } from '../review/i2cReport';
import { shippedSheets } from '../../tests/catalogue';
import { add, edited, stick, wire } from '../../tests/makePlan';
import { findAddress } from './views/addressText';
import { clockText, noteText, rateText, selectText, spiAdvice } from './lineText';

const sheets = shippedSheets();
const chain = edited(
  stick(),
  sheets,
  ...['a', 'b'].flatMap((id) => [
    add(id, 'matrix-8x8-max7219', id === 'a' ? 'Left' : 'Right'),
    wire(`${id}:CLK`, 'GP18'),
    wire(`${id}:CS`, 'GP17'),
  ]),
  wire('a:DIN', 'GP19'),
  wire('b:DIN', 'a:DOUT'),
  add('c', 'sd-card-3v3', 'Card'),
  wire('c:CLK', 'GP18'),
  wire('c:MOSI', 'GP19'),
  wire('c:MISO', 'GP16'),
  wire('c:CS', 'GP20'),
);
const sheetOf = (plan: Plan) => spiReport(plan, sheets, boardOf(plan, sheets)!, findBuses(plan, sheets)[0]!);

test('an SPI bus in sentences: the mode, the card first, the chain in the order of the wire', () => {
  const sheet = sheetOf(chain);
  expect(spiAdvice(chain, sheets, sheet)).toEqual([
    'Mode 0 for all devices.',
    'Initialise Card first, at 400 kHz or less with every other CS high; then use its full clock.',
    'Daisy chain: board → Left → Right. 32 bits per transfer; the first bits end up in Right.',
  ]);
  expect(sheet.rows.map((row) => [selectText(chain, sheets, row), clockText(row.write)])).toEqual([
    ['GP17, latches on the rising edge', '10 MHz, limited by the part'],
    ['GP20, pull-up on the module', '20 MHz, limited by the wire'],
  ]);
  const pulled = edited(chain, sheets, { kind: 'pull', placement: 'a', terminal: 'CS', pull: { ohms: 10_000, to: 'supply' } });
  expect(selectText(pulled, sheets, sheetOf(pulled).rows[0]!)).toBe('GP17, pull-up 10 kΩ, latches on the rising edge');
});

test('how often in words, and clocks that nobody knows', () => {
  expect([rateText(8.137, 'frame'), rateText(39_062.5, 'frame'), rateText(undefined, 'text'), clockText(undefined)]).toEqual([
    '8.14 fps',
    '39100 fps',
    'unknown',
    'none',
  ]);
});

test('other lines in sentences; what several terminals say alike is said once', () => {
  const plan = edited(
    stick(),
    sheets,
    add('k', 'keypad-4x4', 'Pad'),
    add('t', 'temperature-ds18b20', 'Cold'),
    wire('t:DQ', 'GP2'),
    wire('t:VCC', 'ground'),
    add('g', 'gps-neo-6m', 'Where'),
    wire('g:RX', 'GP0'),
    wire('g:TX', 'GP1'),
  );
  const words = otherLines(plan, sheets, boardOf(plan, sheets)!).map(({ notes }) => notes.map((note) => noteText(plan, note)));
  expect(words).toEqual([
    [
      '16 keys without diodes: two at a time are read correctly, three can cause a ghost key.',
      'C1, C2, C3 and C4: Needs a pull-up; the internal one of the pin is sufficient.',
    ],
    [
      'TX and RX cross: board TX to RX, board RX from TX. One device per port.',
      expect.stringMatching(/^Also on these pins: Default serial console, transmit; Default serial console, receive\.$/),
      'RX: For configuration only; position and time are sent without it.',
    ],
    [
      'No pull-up resistor: add 4.7 kΩ for all devices together. Above 10 m of wire use half the resistance. Cold is parasite-powered: apply a strong pull-up during conversion.',
      'DQ: Needs one 4.7 kΩ pull-up for the whole line.',
    ],
  ]);
});

test('an address is found in 7 and in 8 bits, who could have it is named, and a reserved one is said to be', () => {
  const plan = edited(
    stick(),
    sheets,
    ...['clock-ds3231-mini', 'motion-mpu6050'].flatMap((id, at) => [
      add(`p${at}`, id, at === 0 ? 'Clock' : 'Motion'),
      wire(`p${at}:SDA`, 'GP4'),
      wire(`p${at}:SCL`, 'GP5'),
    ]),
  );
  const rows = i2cReport(plan, sheets, findBuses(plan, sheets)[0]!)!.addresses;
  const find = (text: string) => findAddress(text, rows, (id) => plan.placements.find((p) => p.id === id)!.name);
  expect(find('0xD0')).toBe('0xD0 is the 8-bit form of 0x68. Clock and Motion respond to 0x68.');
  expect(find('0x69')).toBe('No device at 0x69. Possible: Motion.');
  expect(find('0x03')).toBe('No device at 0x03. Reserved by UM10204.');
  expect(find('clock')).toBe('Not an address. Example: 0x3C.');
});
