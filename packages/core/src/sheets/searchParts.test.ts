import { shippedSheets } from '../../tests/catalogue';
import { stick } from '../../tests/makePlan';
import { newPlacement } from '../plan/newPlacement';
import { applyEdit } from '../plan/applyEdits';
import { indexSheets } from './sheetIndex';
import { readQuery, searchParts } from './searchParts';
import { inOtherWords } from './searchSynonyms';
import { unsafePlace } from './unsafePlace';

const sheets = shippedSheets();
const parts = [...sheets.parts.values()].map((p) => p.sheet);
const found = (query: string) => searchParts(parts, query).map((p) => p.id);

test.each([
  ['oled i2c', ['oled-091-ssd1306-i2c', 'oled-096-ssd1306-i2c', 'oled-13-sh1106-i2c', 'oled-15-ssd1327-i2c', 'oled-242-ssd1309-i2c']],
  ['1.3 oled', ['oled-13-sh1106-i2c', 'oled-13-sh1106-spi']],
  ['0.96"', ['oled-096-ssd1306-i2c', 'oled-096-ssd1306-spi']],
  ['0x15', ['touch-cst816s', 'tft-128-round-gc9a01-touch']],
  ['5ah touch', ['touch-mpr121']],
  ['xshut', ['distance-vl53l0x', 'distance-vl53l1x', 'distance-vl6180x']],
  ['max7219 dip 24', ['driver-max7219-dip24', 'driver-max7221-dip24']],
  ['humidity needs 5 V', []],
])('%s finds %j', (query, ids) => {
  expect(found(query).toSorted()).toEqual(ids.toSorted());
});

test('a chip’s own number comes first, a word of the title before a word of the summary', () => {
  expect(found('bme280')[0]).toMatch(/^climate-bme280/);
  expect(found('clock')[0]).toMatch(/^clock-/);
  expect(found('20×4 parallel')[0]).toBe('lcd-2004-parallel');
  expect(found('clock 5 V only').slice(0, 2).toSorted()).toEqual(['clock-ds1307', 'clock-ds1307-eeprom']);
});

test('an address finds every part that can be set there, and the 8-bit form what its half finds', () => {
  expect(found('0x68')).toEqual(expect.arrayContaining(['motion-mpu6050', 'clock-ds3231-eeprom', 'motion-icm20948', 'clock-pcf8523']));
  expect(found('0x78')).toEqual(found('0x3c'));
  expect(readQuery('oled 0x78')).toMatchObject({ addresses: [0x3c], halved: [0x78], terms: ['oled'] });
  expect(found('0x70')).toContain('pwm-pca9685');
});

test('a supply wish keeps to the supply ranges', () => {
  const volts = (query: string) => searchParts(parts, query).map((p) => p.supply!.volts);
  expect(volts('needs 5 V').length).toBeGreaterThan(20);
  expect(volts('needs 5 V').every((v) => v.min > 3.6 && v.max >= 5)).toBe(true);
  expect(volts('at 3.3 V').every((v) => v.min <= 3.3 && v.max >= 3.3)).toBe(true);
});

test('nothing typed finds everything, a family only its own', () => {
  expect(found('  ')).toHaveLength(parts.length);
  const displays = searchParts(parts, '', 'display');
  expect(displays.length).toBeGreaterThan(30);
  expect(displays.every((p) => p.family === 'display')).toBe(true);
});

test('new placements get ids and names the plan does not have', () => {
  const led = sheets.parts.get('led-red-5mm')!.sheet;
  let plan = stick();
  const names = [1, 2, 3].map(() => {
    const placement = newPlacement(plan, led);
    const result = applyEdit(plan, { kind: 'add-placement', placement }, sheets);
    if (result.ok) plan = result.plan;
    return `${placement.id} ${placement.name}`;
  });
  expect(names).toEqual(['light-1 LED', 'light-2 LED 2', 'light-3 LED 3']);
});

test('two sheets of one id are not indexed', () => {
  expect(() => indexSheets([parts[0]!, parts[0]!])).toThrow(`Duplicate sheet: ID ${parts[0]!.id}`);
});

test.each([
  ['{"a":{"__proto__":{}}}', 'a.__proto__'],
  ['{"list":[{"constructor":1}]}', 'list.0.constructor'],
  [`${'['.repeat(40)}${']'.repeat(40)}`, Array(33).fill('0').join('.')],
  ['{"a":[1,{"b":null}]}', undefined],
])('%s is unsafe at %s', (json, place) => {
  expect(unsafePlace(JSON.parse(json))).toBe(place);
});

test.each([
  ['level converter', 'shifter-mosfet-4'],
  ['logic converter', 'shifter-mosfet-4'],
  ['liquid crystal 16x2', 'lcd-1602-parallel'],
  ['thermometer', 'temperature-lm75'],
  ['barometer', 'pressure-bmp280'],
  ['gyroscope', 'motion-mpu6050'],
  ['ldr', 'light-photoresistor'],
  ['rtc', 'clock-ds3231-mini'],
  ['poti', 'potentiometer'],
  ['beeper', 'buzzer-passive'],
  ['magnetometer', 'compass-qmc5883l'],
  ['e-ink', 'epaper-154'],
  ['step down', 'converter-lm2596-5v'],
  ['seven segment', 'seven-segment-1-cc'],
  ['color sensor', 'colour-tcs34725'],
])('in other words: %s finds %s', (query, id) => expect(found(query)).toContain(id));

test('what is typed comes before what means the same, and other words find no more than belongs together', () => {
  expect(found('thermometer').toSorted()).toEqual(found('temperature').toSorted());
  expect(found('motor')[0]).toMatch(/^motor-/);
  expect(inOtherWords('level converter')).toEqual(expect.arrayContaining(['level converter', 'level shifter', 'level translator']));
  expect(inOtherWords('bme280')).toEqual(['bme280']);
  // A phrase is whole words: a potted sensor is no potentiometer.
  expect(inOtherWords('potted')).toEqual(['potted']);
  expect(inOtherWords('')).toEqual(['']);
});
