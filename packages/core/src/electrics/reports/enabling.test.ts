import { shippedSheets } from '../../../tests/catalogue';
import { findingsOf } from '../../../tests/checkHarness';
import { add, edited, wire } from '../../../tests/makePlan';
import { boardOf } from '../../plan/edit';
import { newPlan, type Plan } from '../../plan/plan';
import { enablingText } from '../../text/enablingText';
import { enablingOf } from './enabling';

const sheets = shippedSheets();
const linux = newPlan('plan-1', 'Settings', { id: 'bcm2711-sbc-40', version: 1 });
const said = (plan: Plan) => enablingOf(plan, sheets, boardOf(plan, sheets)!).map(enablingText);
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
  [SPI0, ['GPIO24'], 'dtoverlay=spi0-1cs,cs0_pin=24'],
  [SPI0, ['GPIO8', 'GPIO24'], 'dtoverlay=spi0-2cs,cs0_pin=8,cs1_pin=24'],
  [SPI0, ['GPIO8', 'GPIO7', 'GPIO24'], 'which defines all 3 chip selects: dtparam=spi=on'],
  [SPI1, ['GPIO18'], 'dtoverlay=spi1-1cs'],
  [SPI1, ['GPIO18', 'GPIO17'], 'dtoverlay=spi1-2cs'],
  [SPI1, ['GPIO17'], 'dtoverlay=spi1-1cs,cs0_pin=17'],
] as const)('an SPI bus on %j selected by %j wants %s', (lines, selects, words) => {
  expect(said(converters(lines, selects))).toEqual([expect.stringMatching(new RegExp(`${words}$`))]);
});

test.each([
  ['GPIO2', 'GPIO3', 'dtparam=i2c_arm=on,i2c_arm_baudrate=400000'],
  ['GPIO4', 'GPIO5', 'dtoverlay=i2c3,pins_4_5,baudrate=400000'],
  ['GPIO12', 'GPIO13', 'dtoverlay=i2c5,pins_12_13,baudrate=400000'],
  ['GPIO10', 'GPIO11', 'dtoverlay=i2c5,pins_10_11,baudrate=400000'],
])('I2C on %s and %s wants %s', (sda, scl, words) => {
  const plan = edited(linux, sheets, add('l', 'light-bh1750'), wire('l:SDA', sda), wire('l:SCL', scl));
  expect(said(plan)).toEqual([expect.stringMatching(new RegExp(`${words}$`))]);
});

test('the serial port of the header is the mini UART as delivered; a bare board has nothing to switch on', () => {
  const gps = edited(linux, sheets, add('g', 'gps-neo-6m'), wire('g:TX', 'GPIO15'), wire('g:RX', 'GPIO14'));
  expect(said(gps)).toEqual([expect.stringContaining('enable_uart=1')]);
  const bare = newPlan('plan-2', 'Bare', { id: 'rp2040-stick-40', version: 1 });
  expect(said(edited(bare, sheets, add('l', 'light-bh1750'), wire('l:SDA', 'GP4'), wire('l:SCL', 'GP5')))).toEqual([]);
});

test('dtparam=spi=on takes both chip selects and MISO: with something else on one of them it is the overlay that takes less', () => {
  const lines = { CLK: 'GPIO11', DIN: 'GPIO10', CS: 'GPIO8' };
  const matrix = edited(
    linux,
    sheets,
    add('m', 'matrix-8x8-max7219'),
    ...Object.entries(lines).map(([terminal, pin]) => wire(`m:${terminal}`, pin)),
  );
  expect(said(matrix)).toEqual([expect.stringMatching(/: dtparam=spi=on$/)]);
  const both = edited(matrix, sheets, add('k', 'button-push'), wire('k:C1', 'GPIO7'), add('l', 'button-push'), wire('l:C1', 'GPIO9'));
  expect(said(both)).toEqual([expect.stringMatching(/: dtoverlay=spi0-1cs,cs0_pin=8,no_miso$/)]);
  expect(findingsOf(both, sheets).filter((f) => f.message === 'claims')).toEqual([]);
});

test('an overlay that takes a pin of something else is a warning with a free pin for that', () => {
  const port = edited(linux, sheets, add('g', 'gps-neo-6m'), wire('g:TX', 'GPIO5'), add('k', 'button-push', 'Key'), wire('k:C1', 'GPIO4'));
  const found = findingsOf(port, sheets).find((f) => f.message === 'claims')!;
  expect([found.code, found.level, found.place.terminals]).toEqual(['bus-not-enabled', 'risk', ['k:C1']]);
  expect(said(edited(port, sheets, ...found.remedies[0]!.edits))).toEqual([expect.stringMatching(/dtoverlay=uart3$/)]);
});

test('1-Wire, PWM and software I2C have overlays of their own, with the pins of the plan', () => {
  const probe = edited(linux, sheets, add('t', 'temperature-ds18b20'), wire('t:DQ', 'GPIO17'));
  expect(said(probe)).toEqual(['Add to the boot configuration: dtoverlay=w1-gpio,gpiopin=17']);
  const pumps = (...pins: readonly string[]) =>
    edited(linux, sheets, ...pins.flatMap((pin, at) => [add(`p${at}`, 'load-mosfet-logic'), wire(`p${at}:SIG`, pin)]));
  expect(said(pumps('GPIO13'))).toEqual([expect.stringMatching(/dtoverlay=pwm,pin=13,func=4$/)]);
  expect(said(pumps('GPIO13', 'GPIO18'))).toEqual([expect.stringMatching(/dtoverlay=pwm-2chan,pin=18,func=2,pin2=13,func2=4$/)]);
  const light = edited(linux, sheets, add('l', 'light-bh1750'), wire('l:SDA', 'GPIO23'), wire('l:SCL', 'GPIO24'));
  const soft = edited(light, sheets, { kind: 'software-bus', bus: 'softi2c1', on: true });
  expect(said(soft)).toEqual([expect.stringMatching(/dtoverlay=i2c-gpio,bus=10,i2c_gpio_sda=23,i2c_gpio_scl=24$/)]);
});
