import { shippedSheets } from '../../tests/catalogue';
import { findingsOf } from '../../tests/checkHarness';
import { add, edited, wire } from '../../tests/makePlan';
import { newPlan } from '../plan/plan';

const sheets = shippedSheets();

test.each([
  ['climate-bme280', { ratio: 0.8 }, { ratio: 0.2 }],
  ['pressure-bmp280', { ratio: 0.8 }, { ratio: 0.2 }],
  ['air-bme680', { ratio: 0.8 }, { ratio: 0.2 }],
  ['motion-lis3dh', { ratio: 0.8 }, { ratio: 0.2 }],
  ['gesture-apds9960', { volts: 1.26 }, { volts: 0.54 }],
  ['light-tsl2591', { volts: 1.26 }, { volts: 0.54 }],
  ['light-tsl2561', { volts: 2.1 }, { volts: 0.8 }],
  ['distance-vl53l0x', { volts: 1.12 }, { volts: 0.6 }],
  ['light-veml7700', { volts: 1.3 }, { volts: 0.4 }],
  ['distance-vl53l1x', { volts: 1.12 }, { volts: 0.6 }],
  ['compass-hmc5883l', { ratio: 0.8 }, { ratio: 0.2 }],
  ['current-ina226', { volts: 1.4 }, { volts: 0.4 }],
  ['heart-max30102', { volts: 1.4 }, { volts: 0.4 }],
])('the input thresholds of %s are those of its datasheet', (id, high, low) => {
  expect(sheets.parts.get(id)!.sheet.levels).toMatchObject({ vihMin: high, vilMax: low });
});

test.each([
  ['A0', true],
  ['D4', true],
  ['D2', false],
  ['D7', false],
])('STM32F411: a 5 V echo on %s is damage: %s', (pin, damages) => {
  const board = sheets.boards.get('stm32f411-shield-64')!.sheet;
  const plan = edited(
    newPlan('p', 'P', { id: board.id, version: board.version }),
    sheets,
    add('echo', 'distance-ultrasonic-5v', 'Distance'),
    wire('echo:VCC', 'rail 5v'),
    wire('echo:GND', 'ground'),
    wire('echo:ECHO', pin),
    wire('echo:TRIG', 'D8'),
  );
  expect(findingsOf(plan, sheets).some((finding) => finding.code === 'level-damage')).toBe(damages);
});
