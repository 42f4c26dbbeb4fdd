import { boardOf } from '@roof-chart/core/plan/edit';
import { otherLines } from '@roof-chart/core/electrics/otherLines';
import { spiSheet } from '@roof-chart/core/electrics/spiBus';
import { findBuses } from '@roof-chart/core/nets/buses';
import type { Plan } from '@roof-chart/core/plan/plan';
import { i2cSheet } from '@roof-chart/core/review/i2cSheet';
import { shippedSheets } from '../../../../core/tests/catalogue';
import { add, edited, stick, wire } from '../../../../core/tests/makePlan';
import { findAddress } from './addressWords';
import { clockWords, noteWords, rateWords, selectWords, spiAdvice } from './lineWords';

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
const sheetOf = (plan: Plan) => spiSheet(plan, sheets, boardOf(plan, sheets)!, findBuses(plan, sheets)[0]!);

test('an SPI bus in sentences: the mode, the card first, the chain in the order of the wire', () => {
  const sheet = sheetOf(chain);
  expect(spiAdvice(chain, sheets, sheet)).toEqual([
    'Mode 0 serves all.',
    'Start Card first, at 400 kHz at most and with every other select high; then take its full clock.',
    'Chain: board → Left → Right. 32 bits in one go; what is sent first ends in Right.',
  ]);
  expect(sheet.rows.map((row) => [selectWords(chain, sheets, row), clockWords(row.write)])).toEqual([
    ['GP17, takes over as it rises', '10 MHz, by the part'],
    ['GP20, held on the module', '20 MHz, by the wire'],
  ]);
  const pulled = edited(chain, sheets, { kind: 'pull', placement: 'a', terminal: 'CS', pull: { ohms: 10_000, to: 'supply' } });
  expect(selectWords(pulled, sheets, sheetOf(pulled).rows[0]!)).toBe('GP17, held by 10 kΩ, takes over as it rises');
});

test('how often in words, and clocks that nobody knows', () => {
  expect([rateWords(8.137, 'frame'), rateWords(39_062.5, 'frame'), rateWords(undefined, 'text'), clockWords(undefined)]).toEqual([
    '8.14 pictures a second',
    '39100 pictures a second',
    'not known',
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
  const words = otherLines(plan, sheets, boardOf(plan, sheets)!).map(({ notes }) => notes.map((note) => noteWords(plan, note)));
  expect(words).toEqual([
    [
      '16 keys without diodes: two at once are told apart, three can look like four.',
      'C1, C2, C3 and C4: Needs a pull-up; the pin’s internal one will do.',
    ],
    [
      'The two lines cross: what the board sends goes to RX, what the part sends comes from TX. One part on a port.',
      expect.stringMatching(/^These pins are also: Default serial console, transmit; Default serial console, receive\.$/),
      'RX: Takes settings only; position and time come without it.',
    ],
    [
      'No resistor pulls the line up: add 4.7 kΩ for all parts together. Over 10 m of wire take half the resistance. Cold lives from the line: while it measures, the line must be held high.',
      'DQ: Needs one 4.7 kΩ pull-up for all of them.',
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
  const rows = i2cSheet(plan, sheets, findBuses(plan, sheets)[0]!)!.addresses;
  const find = (text: string) => findAddress(text, rows, (id) => plan.placements.find((p) => p.id === id)!.name);
  expect(find('0xD0')).toBe('0xD0 is the 8-bit form of 0x68. Clock and Motion answer on 0x68.');
  expect(find('0x69')).toBe('Nobody answers on 0x69. Motion could.');
  expect(find('0x03')).toBe('Nobody answers on 0x03. It is reserved by the standard.');
  expect(find('clock')).toBe('No address: write it like 0x3C.');
});
