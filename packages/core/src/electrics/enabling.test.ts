import { shippedSheets } from '../../tests/catalogue';
import { add, edited, wire } from '../../tests/makePlan';
import { boardOf } from '../plan/edit';
import { newPlan, type Plan } from '../plan/plan';
import { enablingOf } from './enabling';

const sheets = shippedSheets();
const linux = newPlan('plan-1', 'Settings', { id: 'bcm2711-sbc-40', version: 1 });
const said = (plan: Plan) => enablingOf(plan, sheets, boardOf(plan, sheets)!).map(({ words }) => words);
const SPI0 = { SCK: 'GPIO11', MOSI: 'GPIO10', MISO: 'GPIO9' };
const SPI1 = { SCK: 'GPIO21', MOSI: 'GPIO20', MISO: 'GPIO19' };

/** Converters on one SPI bus, each selected by one of these pins. */
const converters = (lines: typeof SPI0, selects: readonly string[]) =>
  edited(
    linux,
    sheets,
    ...selects.flatMap((cs, at) => [
      add(`a${at}`, 'adc-mcp3008'),
      wire(`a${at}:CLK`, lines.SCK),
      wire(`a${at}:DIN`, lines.MOSI),
      wire(`a${at}:DOUT`, lines.MISO),
      wire(`a${at}:CS`, cs),
    ]),
  );

test.each([
  [SPI0, ['GPIO8'], 'dtparam=spi=on'],
  [SPI0, ['GPIO7'], 'dtparam=spi=on'],
  [SPI0, ['GPIO24'], 'dtoverlay=spi0-1cs,cs0_pin=24 '],
  [SPI0, ['GPIO8', 'GPIO24'], 'dtoverlay=spi0-2cs,cs0_pin=8,cs1_pin=24 '],
  [SPI0, ['GPIO8', 'GPIO7', 'GPIO24'], 'it defines all 3 chip selects'],
  [SPI1, ['GPIO18'], 'dtoverlay=spi1-1cs '],
  [SPI1, ['GPIO18', 'GPIO17'], 'dtoverlay=spi1-2cs '],
  [SPI1, ['GPIO17'], 'dtoverlay=spi1-1cs,cs0_pin=17 '],
] as const)('an SPI bus on %j selected by %j wants %s', (lines, selects, words) => {
  expect(said(converters(lines, selects))).toEqual([expect.stringContaining(words)]);
});

test.each([
  ['GPIO2', 'GPIO3', 'dtparam=i2c_arm=on'],
  ['GPIO4', 'GPIO5', 'dtoverlay=i2c3,pins_4_5 '],
  ['GPIO12', 'GPIO13', 'dtoverlay=i2c5,pins_12_13 '],
  ['GPIO10', 'GPIO11', 'dtoverlay=i2c5,pins_10_11 '],
])('I2C on %s and %s wants %s', (sda, scl, words) => {
  const plan = edited(linux, sheets, add('l', 'light-bh1750'), wire('l:SDA', sda), wire('l:SCL', scl));
  expect(said(plan)).toEqual([expect.stringContaining(words)]);
});

test('the serial port of the header is the mini UART as delivered; a bare board has nothing to switch on', () => {
  const gps = edited(linux, sheets, add('g', 'gps-neo-6m'), wire('g:TX', 'GPIO15'), wire('g:RX', 'GPIO14'));
  expect(said(gps)).toEqual([expect.stringContaining('enable_uart=1')]);
  const bare = newPlan('plan-2', 'Bare', { id: 'rp2040-stick-40', version: 1 });
  expect(said(edited(bare, sheets, add('l', 'light-bh1750'), wire('l:SDA', 'GP4'), wire('l:SCL', 'GP5')))).toEqual([]);
});
