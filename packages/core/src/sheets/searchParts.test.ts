import { shippedSheets } from '../../tests/catalogue';
import { stick } from '../../tests/makePlan';
import { newPlacement } from '../plan/newPlacement';
import { applyEdit } from '../plan/applyEdits';
import { indexSheets } from './sheetIndex';
import { searchParts } from './searchParts';
import { unsafePlace } from './unsafePlace';

const sheets = shippedSheets();
const parts = [...sheets.parts.values()].map((p) => p.sheet);
const found = (query: string) => searchParts(parts, query).map((p) => p.id);

test.each([
  ['oled', ['oled-096-ssd1306-i2c']],
  ['OLED I2C', ['oled-096-ssd1306-i2c']],
  ['128x64', ['oled-096-ssd1306-i2c']],
  ['0.96"', ['oled-096-ssd1306-i2c']],
  ['0x68', ['motion-mpu6050', 'clock-ds3231-eeprom']],
  ['dout', ['load-cell-hx711', 'sd-card-3v3']],
  ['spi', ['sd-card-3v3']],
  ['knob', ['encoder-rotary-switch']],
  ['oled spi', []],
])('%s finds %j', (query, ids) => {
  expect(found(query)).toEqual(ids);
});

test('nothing typed finds everything, a family only its own', () => {
  expect(found('  ')).toHaveLength(parts.length);
  expect(searchParts(parts, '', 'display').map((p) => p.id)).toEqual(['lcd-2004-pcf8574', 'oled-096-ssd1306-i2c']);
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
  expect(() => indexSheets([parts[0]!, parts[0]!])).toThrow(`Two sheets carry the id ${parts[0]!.id}`);
});

test.each([
  ['{"a":{"__proto__":{}}}', 'a.__proto__'],
  ['{"list":[{"constructor":1}]}', 'list.0.constructor'],
  [`${'['.repeat(40)}${']'.repeat(40)}`, Array(33).fill('0').join('.')],
  ['{"a":[1,{"b":null}]}', undefined],
])('%s is unsafe at %s', (json, place) => {
  expect(unsafePlace(JSON.parse(json))).toBe(place);
});
