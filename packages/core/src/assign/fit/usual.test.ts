import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { shippedSheets } from '../../../tests/catalogue';
import { add, edited, wire } from '../../../tests/makePlan';
import { newPlan, type Plan } from '../../plan/plan';
import { boardFaults } from '../../sheets/sheetFaults';
import type { BoardSheet } from '../../sheets/boardSheet';
import { buildInstance } from '../model/buildInstance';
import { alternativesOf } from '../explain';
import { freePins } from './freePins';
import { findNets } from '../../nets/nets';
import { terminalsOf } from '../../nets/terminals';
import { pinSetsOf } from './pinSets';
import { assignPins } from '../assignPins';
import { isUsualAt, usualPins } from './usual';

const PAGE = join(__dirname, '../../../../../docs/usual-pins.md');
const sheets = shippedSheets();
const on = (board: string, ...parts: readonly string[]): Plan => {
  const { version } = sheets.boards.get(board)!.sheet;
  const bare = newPlan('p', 'P', { id: board, version });
  return assignPins(edited(bare, sheets, ...parts.map((id, n) => add(`p${n}`, id))), sheets)!.plan;
};
const pinOf = (plan: Plan, key: string): string => {
  const end = plan.wires[key]?.end;
  return end?.to === 'pin' ? end.pin : 'none';
};
const I2C = 'oled-096-ssd1306-i2c';
const SPI = 'radio-nrf24l01';
const UART = 'gps-neo-6m';
const ONE_WIRE = 'temperature-ds18b20';
/** Terminals of those parts by line. */
const i2cAt = (board: string) => ['SDA', 'SCL'].map((id) => pinOf(on(board, I2C), `p0:${id}`));
const spiAt = (board: string) => ['SCK', 'MOSI', 'MISO', 'CSN'].map((id) => pinOf(on(board, SPI), `p0:${id}`));

test('the first display on I2C or SPI of a board goes where people and example programs put it', () => {
  expect(i2cAt('bcm2711-sbc-40')).toEqual(['GPIO2', 'GPIO3']);
  expect(spiAt('bcm2711-sbc-40')).toEqual(['GPIO11', 'GPIO10', 'GPIO9', 'GPIO8']);
  expect(i2cAt('esp32-stick-38')).toEqual(['IO21', 'IO22']);
  expect(spiAt('esp32-stick-38')).toEqual(['IO18', 'IO23', 'IO19', 'IO5']);
  for (const board of ['stm32f411-shield-64', 'stm32f446-shield-64']) {
    expect(i2cAt(board)).toEqual(['D14', 'D15']);
    expect(spiAt(board)).toEqual(['D13', 'D11', 'D12', 'D10']);
  }
  for (const board of ['rp2040-stick-40', 'rp2350-stick-40']) {
    expect(i2cAt(board)).toEqual(['GP4', 'GP5']);
    expect(spiAt(board)).toEqual(['GP18', 'GP19', 'GP16', 'GP17']);
  }
  for (const board of ['rp2040-stamp-14', 'samd21-stamp-14', 'nrf52840-stamp-14']) {
    expect(i2cAt(board)).toEqual(['D4', 'D5']);
    expect(spiAt(board).slice(0, 3)).toEqual(['D8', 'D10', 'D9']);
  }
  expect(i2cAt('atmega328p-5v-shield')).toEqual(['A4', 'A5']);
  expect(spiAt('atmega328p-5v-shield')).toEqual(['D13', 'D11', 'D12', 'D10']);
});

test('the second select is the second of the list, the one-wire bus is at its usual pin', () => {
  const two = on('bcm2711-sbc-40', SPI, 'oled-096-ssd1306-spi', ONE_WIRE);
  expect([pinOf(two, 'p0:CSN'), pinOf(two, 'p1:CS')].toSorted()).toEqual(['GPIO7', 'GPIO8']);
  expect(pinOf(two, 'p2:DQ')).toBe('GPIO4');
});

test('a pin with a caveat is worse than an unusual one, a scarce pin is not', () => {
  const { list } = sheets.boards.get('esp32-c3-stick-16')!.sheet.usual!;
  expect(list[0]!.pins).toEqual({ sda: 'IO8', scl: 'IO9' });
  // Both are sampled at reset, the LED hangs on one: the second choice has no caveat.
  expect(i2cAt('esp32-c3-stick-16')).toEqual(['IO6', 'IO7']);
  const order = pinSetsOf(sheets.boards.get('bcm2711-sbc-40')!, 'i2c')[0];
  expect(order).toEqual({ controller: 'i2c1', pins: { sda: 'GPIO2', scl: 'GPIO3' } });
});

test('what is wired stays: an unusual place is no reason to move a wire', () => {
  const plan = edited(
    newPlan('p', 'P', { id: 'bcm2711-sbc-40', version: 1 }),
    sheets,
    add('p0', I2C),
    wire('p0:SDA', 'GPIO22'),
    wire('p0:SCL', 'GPIO23'),
  );
  expect(assignPins(plan, sheets)!.costs).toMatchObject({ moved: 0, unusual: 4 });
  const pins = alternativesOf(plan, sheets, 'p0:SDA')!;
  expect(pins[0]).toMatchObject({ pin: 'GPIO22', more: { moved: 0, unusual: 0 } });
  expect(pins.find(({ pin }) => pin === 'GPIO2')).toMatchObject({ more: { moved: 2, unusual: -4 }, proved: true });
});

test('why a bus line is where it is: the usual pin costs nothing, another bus is not the usual one', () => {
  const plan = on('bcm2711-sbc-40', I2C);
  const bare: Plan = { ...plan, wires: {} };
  const [first, ...others] = alternativesOf(bare, sheets, 'p0:SDA')!;
  expect(first).toMatchObject({ pin: 'GPIO2', more: { unwired: 0, caution: 0, unusual: 0, waste: 0 } });
  expect(others.every(({ more }) => more === null || more.caution > 0 || more.unusual > 0)).toBe(true);
  const board = sheets.boards.get('bcm2711-sbc-40')!;
  expect([isUsualAt(board, 'i2c.sda', 'GPIO2'), isUsualAt(board, 'i2c.scl', 'GPIO2'), isUsualAt(board, 'spi.cs', 'GPIO8')]).toEqual([
    true,
    false,
    true,
  ]);
  expect([isUsualAt(board, 'spi.cs', 'GPIO7'), isUsualAt(board, 'onewire.data', 'GPIO4'), isUsualAt(board, 'gpio.in', 'GPIO4')]).toEqual([
    false,
    true,
    false,
  ]);
});

test('a place in the list is what a pin costs, any other costs two; without a list nothing does', () => {
  const { line, signal } = usualPins(sheets.boards.get('bcm2711-sbc-40')!);
  expect([line('spi0', 'sck', 'GPIO11'), line('spi1', 'sck', 'GPIO21'), line('spi6', 'sck', 'GPIO21')]).toEqual([0, 1, 2]);
  expect(['GPIO8', 'GPIO7', 'GPIO18', 'GPIO25'].map((pin) => signal('spi.cs', pin))).toEqual([0, 1, 2, 2]);
  expect(['GPIO25', 'GPIO2', 'GPIO8', 'GPIO7'].map((pin) => signal('gpio.out', pin))).toEqual([0, 1, 1, 0]);
  const { usual: _none, ...bare } = sheets.boards.get('bcm2711-sbc-40')!.sheet;
  const none = usualPins({ ...sheets.boards.get('bcm2711-sbc-40')!, sheet: bare });
  expect([none.line('spi6', 'sck', 'GPIO21'), none.signal('spi.cs', 'GPIO25')]).toEqual([0, 0]);
});

test('a wire by hand is proposed at the usual select first', () => {
  const plan = edited(newPlan('p', 'P', { id: 'bcm2711-sbc-40', version: 1 }), sheets, add('p0', SPI));
  const item = terminalsOf(plan, { id: 'p0' }, sheets).find(({ terminal }) => terminal.id === 'CSN')!;
  expect(freePins(sheets.boards.get('bcm2711-sbc-40')!, findNets(plan, sheets), item)[0]).toBe('GPIO8');
});

test('more selects than the tier has room for count as usual, all of them', () => {
  const many = Array.from({ length: 61 }, (_, n) => add(`p${n}`, SPI));
  const plan = edited(newPlan('p', 'P', { id: 'bcm2711-sbc-40', version: 1 }), sheets, ...many);
  const { items } = buildInstance(plan, sheets, sheets.boards.get('bcm2711-sbc-40')!);
  expect(items.flatMap(({ candidates }) => candidates).some(({ unusual }) => unusual > 0)).toBe(false);
  const fewer = edited(newPlan('p', 'P', { id: 'bcm2711-sbc-40', version: 1 }), sheets, ...many.slice(0, 12));
  const own = buildInstance(fewer, sheets, sheets.boards.get('bcm2711-sbc-40')!).items;
  expect(own.flatMap(({ candidates }) => candidates).some(({ unusual }) => unusual > 0)).toBe(true);
});

test('a sheet that lists what its board has not is refused with its place', () => {
  const { sheet } = sheets.boards.get('bcm2711-sbc-40')!;
  const faults = (usual: Partial<NonNullable<BoardSheet['usual']>>) =>
    boardFaults({ ...sheet, usual: { ...sheet.usual!, ...usual } }).map(({ path, fault }) => `${path}: ${fault}`);
  expect(faults({})).toEqual([]);
  expect(faults({ list: [{ controller: 'i2c9', pins: { sda: 'GPIO2' } }] })).toEqual(['usual: i2c9 is not a controller']);
  expect(faults({ list: [{ controller: 'i2c1', pins: { sda: 'GPIO3', scl: 'GPIO2' } }] })).toEqual([
    'usual: GPIO3 is no sda pin of i2c1',
    'usual: GPIO2 is no scl pin of i2c1',
    'usual: GPIO3, GPIO2: no pin set of i2c1',
  ]);
  expect(faults({ list: [{ controller: 'i2c3', pins: { sda: 'GPIO4', scl: 'GPIO3' } }] })).toEqual([
    'usual: GPIO4, GPIO3: no pin set of i2c3',
  ]);
  expect(faults({ list: [{ controller: 'i2c1', pins: { sda: 'GPIO2', scl: 'GPIO3' }, selects: ['X'] }], oneWire: ['Y'] })).toEqual([
    'usual: X is not a signal pin',
    'usual.oneWire: Y is not a signal pin',
  ]);
});

/** The table board × first part of each bus, as assigned. */
function page(): string {
  const label = (board: string, pin: string) => sheets.boards.get(board)!.pins.get(pin)?.label ?? pin;
  const rows = [...sheets.boards.keys()].toSorted().map((board) => {
    const cell = (part: string, terminals: readonly string[]) => {
      const plan = on(board, part);
      const pins = terminals.map((id) => pinOf(plan, `p0:${id}`));
      return pins.every((pin) => pin === 'none') ? 'none' : pins.map((pin) => label(board, pin)).join(' ');
    };
    return `| ${board} | ${cell(I2C, ['SDA', 'SCL'])} | ${cell(SPI, ['SCK', 'MOSI', 'MISO', 'CSN'])} | ${cell(UART, ['TX'])} | ${cell(ONE_WIRE, ['DQ'])} |`;
  });
  return [
    '# Usual pins',
    '',
    'Where *Assign pins* puts the first part of each bus on an empty board: an OLED on I2C, a radio module on SPI, a GPS receiver on a serial port, a',
    'temperature sensor on a one-wire bus. Generated by `npm run docs:usual`; a test fails when a line changes. Each board sheet lists its usual',
    'buses and pins with their source; a pin with a caveat is avoided all the same.',
    '',
    '| Board | I2C: SDA SCL | SPI: SCK MOSI MISO CS | Serial: RX of the board | One-wire |',
    '| --- | --- | --- | --- | --- |',
    ...rows,
    '',
  ].join('\n');
}

test('the table of usual pins is the one made now', () => {
  const made = page();
  if (process.env['ROOF_CHART_WRITE']) writeFileSync(PAGE, made);
  expect(made.split('\n')).toEqual(readFileSync(PAGE, 'utf8').split('\n'));
});
