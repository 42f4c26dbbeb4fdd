import { createHash } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { shippedSheets } from '../../tests/catalogue';
import { boardFromTable } from './boardFromTable';
import type { BoardPin, BoardSheet } from './boardSheet';
import { readPinTable } from './pinTable';
import { readSheet } from './readSheet';
import { boardFaults } from './sheetFaults';

const { boards } = shippedSheets();

/** The pins of a board as somebody would type them from its pinout. */
function tableOf({ pins }: BoardSheet): string {
  const rows = pins.list
    .filter((pin) => !pin.sameAs)
    .map((pin) => {
      const extra = [
        ...(pin.functions ?? []).slice(0, 3).map((name) => name.replace('.', ' ').toUpperCase()),
        ...(pin.adc ? [`ADC${pin.adc.channel}`] : []),
        ...(pin.pwm ? ['PWM1'] : []),
        ...(pin.interrupts ? ['INT0'] : []),
        ...(pin.io === 'in' ? ['input only'] : []),
      ];
      return [pin.position ?? '', pin.label, pin.port ?? '', extra.join(' / '), pin.header ?? ''].map((cell) => `"${cell}"`).join(',');
    });
  return ['Pin,Name,GPIO,Functions,Side', ...rows].join('\n');
}

const checksum = (value: unknown): string => createHash('sha256').update(JSON.stringify(value)).digest('hex').slice(0, 16);

test('boards made of a pin table, with and without a board of the same chip, are as they were read', () => {
  const lines = [...boards.values()].flatMap(({ sheet }) => {
    const table = readPinTable(tableOf(sheet));
    const about = { id: 'made', title: 'Made of a table', chip: sheet.chip, form: 'stick', logicVolts: 3.3 };
    return ([undefined, sheet] as const).flatMap((known) => {
      const made = boardFromTable(about, table.rows, known);
      const read = readSheet(made);
      const head = `${sheet.id}${known ? ', of a known chip' : ''}: ${made.pins.list.length} pins, ${made.controllers.list.length} controllers, ${checksum(made)}`;
      const faults = read.ok ? [] : read.faults.map(({ path, fault }) => `  ${path}: ${fault}`);
      // One of them in full: what the checksums stand for.
      return [head, ...faults, ...(sheet.id === 'attiny85-5v-dip-8' ? JSON.stringify(made, null, 1).split('\n') : [])];
    });
  });
  const file = join(__dirname, '../../tests/corpus/boards-of-tables.txt');
  if (process.env['ROOF_CHART_WRITE']) writeFileSync(file, `${lines.join('\n')}\n`);
  expect(lines).toEqual(readFileSync(file, 'utf8').trimEnd().split('\n'));
});

describe('abilities of a pin that contradict each other', () => {
  const board = boards.get('rp2040-stick-40')!.sheet;
  const gp0 = board.pins.list.find((pin) => pin.id === 'GP0')!;
  const faultsWith = (facts: Partial<BoardPin>, without: readonly (keyof BoardPin)[] = []): readonly string[] => {
    const pin = { ...gp0, ...facts } as { [key: string]: unknown };
    for (const key of without) Reflect.deleteProperty(pin, key);
    const list = board.pins.list.map((one) => (one.id === 'GP0' ? (pin as unknown as BoardPin) : one));
    return boardFaults({ ...board, pins: { ...board.pins, list } })
      .filter(({ path }) => path === 'pins.GP0')
      .map(({ fault }) => fault);
  };
  const pwm = { timer: 'pwm0', channel: 'a' };
  const adc = { unit: 'adc0', channel: 0 };
  test.each<[string, Partial<BoardPin>, readonly (keyof BoardPin)[], readonly string[]]>([
    ['none', {}, [], []],
    ['PWM of an input', { io: 'in', pwm }, ['functions'], ['an input-only pin has no PWM output']],
    ['an input without', { io: 'in' }, ['functions', 'pwm'], []],
    ['a clock out of an input', { io: 'in', functions: ['spi0.sck'] }, ['pwm'], ['an input-only pin cannot drive a bus line']],
    ['data into an input', { io: 'in', functions: ['spi0.miso'] }, ['pwm'], []],
    [
      'an analog output of an input',
      { io: 'in', dac: { unit: 'dac0', channel: 0 } },
      ['functions', 'pwm'],
      ['an input-only pin has no analog output'],
    ],
    ['an analog input alone', { io: 'analog', adc }, ['functions', 'pwm', 'interrupts'], []],
    [
      'one without its converter',
      { io: 'analog' },
      ['functions', 'pwm', 'interrupts', 'adc'],
      ['an analog-only pin has no other function'],
    ],
    [
      'one with a bus',
      { io: 'analog', adc, functions: ['spi0.miso'] },
      ['pwm', 'interrupts'],
      ['an analog-only pin has no other function'],
    ],
    [
      'I2C without open drain',
      { limits: { noOpenDrain: true }, functions: ['i2c0.sda'] },
      [],
      ['a pin without open drain cannot be an I2C line'],
    ],
    ['SPI without open drain', { limits: { noOpenDrain: true }, functions: ['spi0.sck'] }, [], []],
    [
      'a condition without a limit',
      { limits: { tolerantUnless: 'powered' } } as Partial<BoardPin>,
      [],
      ['states a condition but no maximum input voltage'],
    ],
    ['a level without its reason', { starts: 'high' } as Partial<BoardPin>, ['atReset'], ['states a level at reset but no reason']],
    ['its own label again', { also: ['GP0'] }, [], ['GP0 repeats its own label']],
  ])('%s', (_, facts, without, faults) => expect(faultsWith(facts, without)).toEqual(faults));
});
