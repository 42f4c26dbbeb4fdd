import { findBuses } from '../../nets/buses';
import { assignPins } from '../../assign/assignPins';
import { boardOf } from '../../plan/edit';
import { startPlan } from '../../plan/startPlan';
import { busPlaces } from '../../review/busPlaces';
import { shippedSheets } from '../../../tests/catalogue';
import { add, edited } from '../../../tests/makePlan';
import { busLabel, placeCostText, nowhereText, placeHead } from './busPlaceText';

const sheets = shippedSheets();

test('a place says its pins in the order of a datasheet, who is there, and what it costs', () => {
  const plan = assignPins(
    edited(
      startPlan('a', 'Test', 'rp2040-stick-40', sheets),
      sheets,
      add('x', 'humidity-aht20', 'Air'),
      add('y', 'humidity-aht20', 'Porch'),
    ),
    sheets,
  )!.plan;
  const bus = findBuses(plan, sheets)[1]!;
  const board = boardOf(plan, sheets)!;
  expect(busLabel(board, bus)).toBe('I2C1');
  expect(busLabel(board, { ...bus, controller: undefined })).toBe('I2C, no controller');
  const { now, places } = busPlaces(plan, sheets, bus.id)!;
  const said = places.map((place) => `${placeHead(plan, board, place)}: ${placeCostText(plan, sheets, { kind: bus.kind, now }, place)}`);
  expect(said).toContain(
    'I2C0 on GP4 (SDA) and GP5 (SCL), with Air, usual pins: 2 wires move · 400 kHz · new error: Address conflict: 0x38 on I2C0 (2 devices)',
  );
  expect(said.at(-1)).toMatch(/^Software I2C on GP\d+ \(SDA\) and GP\d+ \(SCL\): 2 wires move · 400 kHz · takes the program’s time$/);
});

test('a frame rate is told where it is one that can be seen', () => {
  const plan = assignPins(
    edited(startPlan('a', 'Test', 'atmega328p-5v-shield', sheets), sheets, add('d', 'tft-18-st7735-spi', 'Screen')),
    sheets,
  )!.plan;
  const bus = findBuses(plan, sheets)[0]!;
  const { now, places } = busPlaces(plan, sheets, bus.id)!;
  expect(placeCostText(plan, sheets, { kind: bus.kind, now }, places.at(-1)!)).toMatch(/8 MHz → 500 kHz · 24 → 1\.5 frames\/s/);
});

test('a bus that can be put nowhere else tells why', () => {
  const wordsOn = (board: string, kind: 'spi' | 'uart', blocked: number, controller?: string) => {
    const plan = { ...startPlan('a', 'Test', board, sheets), softwareBuses: ['softspi1' as const] };
    return nowhereText(boardOf(plan, sheets)!, { id: '', kind, pins: {}, members: [], controller }, blocked);
  };
  expect(wordsOn('atmega328p-5v-shield', 'spi', 2, 'spi0')).toBe(
    'No other place: other signals or locked wires take 2 places. Software SPI finds no free pins.',
  );
  expect(wordsOn('atmega328p-5v-shield', 'spi', 0, 'softspi1')).toBe('No other place: this board has no other pins for SPI.');
  expect(wordsOn('attiny85-5v-dip-8', 'uart', 0)).toBe(
    'No other place: this board has no controller for UART. Software UART finds no free pins.',
  );
  expect(wordsOn('rp2040-stick-40', 'uart', 0, 'uart0')).toBe(
    'No other place: this board has no other pins for UART. Software UART is not usual on its chip.',
  );
});
