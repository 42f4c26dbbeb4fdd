import fc from 'fast-check';
import { shippedSheets } from '../../tests/catalogue';
import { runs } from '../../tests/runs';
import { boardFromTable } from './boardFromTable';
import { readPinTable, TABLE_LIMITS } from './pinTable';
import { readSheet } from './readSheet';
import { indexSheets } from './sheetIndex';

const about = { id: 'my-board', title: 'My board', chip: 'XC8', form: 'stick', logicVolts: 3.3 };
const CSV = `Pin,Name,GPIO,Functions,Side
1,3V3,,,left
2,GND,,,left
3,D0,PA0,"I2C0 SDA, ADC0",left
4,D1,PA1,"I2C0 SCL, ADC1 / PWM1",left
1,5V,,,right
2,D2,PA2,SPI0 SCK,right
3,D3,PA3,"SPI0 MOSI, INT0",right
4,D4,PA4,"SPI0 MISO, input only",right`;

const rowsOf = (text: string) => readPinTable(text).rows;

test('a CSV table is understood cell by cell', () => {
  const table = readPinTable(CSV);
  expect(table.faults).toEqual([]);
  expect(table.columns.map((c) => c.meaning)).toEqual(['position', 'label', 'port', 'functions', 'header']);
  expect(table.rows.find((r) => r.label === 'D1')).toEqual({
    line: 5,
    header: 'left',
    position: 4,
    label: 'D1',
    port: 'PA1',
    kind: 'io',
    inputOnly: false,
    functions: ['i2c0.scl'],
    adc: 1,
    pwm: '1',
    strange: [],
  });
  expect(table.rows.map((r) => r.kind)).toEqual(['supply', 'ground', 'io', 'io', 'supply', 'io', 'io', 'io']);
  expect(table.rows.at(-1)).toMatchObject({ inputOnly: true, functions: ['spi0.miso'] });
});

test('tabs, bars and aligned columns give the same rows', () => {
  const cells = CSV.split('\n').map((line) => line.replace(/"([^"]*)"/g, (_, inner: string) => inner.replaceAll(', ', '/')).split(','));
  const plain = rowsOf(cells.map((row) => row.join('\t')).join('\n'));
  const bars = `${cells[0]!.join(' | ')}\n|---|---|\n${cells
    .slice(1)
    .map((row) => `| ${row.join(' | ')} |`)
    .join('\n')}`;
  const strip = (rows: typeof plain) => rows.map(({ line: _, ...row }) => row);
  expect(strip(rowsOf(bars))).toEqual(strip(plain));
  expect(plain).toHaveLength(8);
  const aligned = `1   GND   \n2   SDA   I2C1 SDA\n3   SCL   I2C1 SCL`;
  expect(rowsOf(aligned).map((r) => [r.position, r.label, r.functions.toSorted()])).toEqual([
    [1, 'GND', []],
    [2, 'SDA', ['i2c0.sda', 'i2c1.sda']],
    [3, 'SCL', ['i2c0.scl', 'i2c1.scl']],
  ]);
});

test.each([
  ['ragged', 'Pin,Name\n1,A0\n2,A1,extra,cells\n', [{ line: 3, fault: '4 cells, expected 2 columns' }]],
  [
    'without a label',
    'Pin,Name\n1,A0\n2,\n3,A2',
    [
      { line: 3, fault: 'no label' },
      { line: 4, fault: 'position 2 of pins is missing' },
    ],
  ],
  ['with a pin twice', 'Pin,Name\n1,D1\n2,D1', [{ line: 3, fault: 'pin D1 is already on line 2' }]],
  ['with a position twice', 'Pin,Name\n1,D1\n1,D2', [{ line: 3, fault: 'position 1 is already on line 2' }]],
  ['with a label of 41 characters', `Pin,Name\n1,D1\n2,${'D'.repeat(41)}`, [{ line: 3, fault: 'label of 41 characters: at most 40' }]],
  ['with a label of 40 characters', `Pin,Name\n1,D1\n2,${'D'.repeat(40)}`, []],
  ['with words for a position', 'Pin,Name\none,D1', [{ line: 2, fault: 'position “one” is not a number' }]],
])('a table %s names the line', (_, text, faults) => {
  expect(readPinTable(text).faults).toEqual(faults);
});

/** What a word in the column of functions is read as: a function, another ability, nothing more than any pin, or strange. */
function wordRead(word: string): string {
  const [row] = rowsOf(`Pin,Name,Functions\n1,X1,"${word}"`);
  const { functions, adc, pwm, interrupt, inputOnly, strange } = row!;
  return [
    ...functions,
    ...(adc === undefined ? [] : [`adc ${adc}`]),
    ...(pwm === undefined ? [] : [`pwm ${pwm}`]),
    ...(interrupt === undefined ? [] : [`interrupt ${interrupt}`]),
    ...(inputOnly ? ['input only'] : []),
    ...strange.map((one) => `? ${one}`),
  ].join(' + ');
}

test.each([
  ['I2C0 SDA', 'i2c0.sda'],
  ['TWI_SCL', 'i2c0.scl'],
  ['IIC12-SDA', 'i2c12.sda'],
  ['MYI2C0 SDA', 'i2c0.sda + ? MYI2C0'],
  ['SDA1', 'i2c1.sda'],
  ['SCL12', 'i2c12.scl'],
  ['XSDA', '? XSDA'],
  ['SDAX', '? SDAX'],
  ['SPI1.SCK', 'spi1.sck'],
  ['SPI0 CS1', 'spi0.cs'],
  ['SPI0 TX', 'spi0.mosi'],
  ['SPI RX', 'spi0.miso'],
  ['SCK', 'spi0.sck'],
  ['COPI2', 'spi2.mosi'],
  ['NSS12', 'spi12.cs'],
  ['XSCK', '? XSCK'],
  ['SCKX', '? SCKX'],
  ['UART2 TXD', 'uart2.tx'],
  ['USART_RX', 'uart0.rx'],
  ['SERIAL1 CTS', 'uart1.cts'],
  ['RXD1', 'uart1.rx'],
  ['TX', 'uart0.tx'],
  ['TXX', '? TXX'],
  ['ADC1_CH4', 'adc 4'],
  ['AIN12', 'adc 12'],
  ['A0', 'adc 0'],
  ['ADC', '? ADC'],
  ['A0B', '? A0B'],
  ['PWM', 'pwm PWM'],
  ['TIM4_CH2', 'pwm 4_CH2'],
  ['INT0', 'interrupt INT0'],
  ['EXTINT3', 'interrupt EXTINT3'],
  ['IRQ', 'interrupt IRQ'],
  ['INTX', '? INTX'],
  ['input only', 'input only'],
  ['IN-ONLY', 'input only'],
])('%s is read as %s', (word, read) => {
  expect(wordRead(word)).toBe(read);
});

test('what any pin can do says nothing', () => {
  const plain = [
    'GPIO',
    'IO',
    'DIGITAL',
    'D4',
    'D12',
    'GP7',
    'GP28',
    'GPIO5',
    'GPIO21',
    'IO2',
    'IO33',
    'P0',
    'PB12',
    'P13',
    'OUT',
    'OUTPUT',
    'IN',
    'INPUT',
    'I/O',
    '-',
  ];
  expect(plain.map(wordRead)).toEqual(plain.map(() => ''));
  const strange = ['XGPIO', 'GPIOX', 'DX', 'D4X', 'GPX', 'IOX', 'PBX', 'OUTPU', 'INPU', 'XD4', 'GP', 'PBB1'];
  expect(strange.map(wordRead)).toEqual(strange.map((word) => `? ${word}`));
});

test('functions nobody knows are kept as they stand, not guessed', () => {
  expect(rowsOf('Pin,Name,Functions\n1,D1,"I2C0 SDA, FROBNICATE, QUX7"')[0]).toMatchObject({
    functions: ['i2c0.sda'],
    strange: ['FROBNICATE', 'QUX7'],
  });
});

test('5 000 lines, a wall of letters and nothing at all are told plainly', () => {
  const many = Array.from({ length: 5000 }, (_, n) => `${n + 1},D${n}`).join('\n');
  expect(readPinTable(many)).toMatchObject({ rows: [], faults: [{ line: 402, fault: '5000 rows: a board has at most 400 pins' }] });
  expect(readPinTable('x'.repeat(TABLE_LIMITS.characters + 1)).faults).toHaveLength(1);
  expect(readPinTable(' \n\n')).toEqual({ columns: [], rows: [], faults: [] });
});

test('a table without faults makes a sound sheet, whatever is in it', () => {
  const label = fc.constantFrom('GND', '3V3', '5V', 'VBAT', 'RST', 'NC', 'A0', 'D1', 'SDA', 'GP7', '<b>', 'ÄÖ', '+', 'x y');
  const text = fc.constantFrom('', 'I2C0 SDA', 'SPI1 SCK / ADC3', 'PWM', 'nonsense', 'input only', 'UART2 TX', 'TIM4_CH2');
  const header = fc.constantFrom('left', 'right', 'J 1');
  fc.assert(
    fc.property(fc.array(fc.record({ label, text, header }), { maxLength: 30 }), fc.constantFrom(1.8, 3.3, 5), (cells, logicVolts) => {
      const table = readPinTable(['Name\tFunctions\tHeader', ...cells.map((c) => `${c.label}\t${c.text}\t${c.header}`)].join('\n'));
      if (table.faults.length > 0 || table.rows.length === 0) return;
      const sheet = boardFromTable({ ...about, logicVolts }, table.rows);
      expect(readSheet(JSON.parse(JSON.stringify(sheet)))).toMatchObject({ ok: true });
      expect(indexSheets([sheet]).boards.get('my-board')!.sheet.pins.list).toHaveLength(cells.length);
    }),
    { numRuns: runs(300) },
  );
});

test('the shipped stick, written as a table and read again, has its I2C pairs back', () => {
  const stick = shippedSheets().boards.get('rp2040-stick-40')!;
  const lines = stick.sheet.pins.list
    .filter((p) => p.header)
    .map((p) => [p.position, p.label, p.port ?? '', (p.functions ?? []).map((f) => f.replace('.', ' ')).join(' / '), p.header].join('\t'));
  const table = readPinTable(['Pin\tName\tGPIO\tFunctions\tHeader', ...lines].join('\n'));
  expect(table.faults).toEqual([]);
  const again = indexSheets([boardFromTable(about, table.rows)]).boards.get('my-board')!;
  for (const pin of stick.ioPins)
    expect({ pin: pin.id, functions: again.pins.get(pin.id)?.functions?.toSorted() }).toEqual({
      pin: pin.id,
      functions: pin.functions!.toSorted(),
    });
});
