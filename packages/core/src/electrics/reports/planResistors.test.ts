import { shippedSheets } from '../../../tests/catalogue';
import { add, edited, stick, wire } from '../../../tests/makePlan';
import { planResistors } from './planResistors';

const sheets = shippedSheets();

test('every resistor of a plan is there once, with what it carries, its heat and the rating to take', () => {
  const plan = edited(
    stick(),
    sheets,
    add('l', 'led-red-5mm'),
    wire('l:A', 'GP2'),
    { kind: 'series', placement: 'l', terminal: 'A', ohms: 180 },
    add('m', 'led-green-5mm'),
    wire('m:A', 'GP3'),
    add('d', 'distance-ultrasonic-5v'),
    wire('d:VCC', 'rail vbus'),
    wire('d:ECHO', 'GP4'),
    { kind: 'series', placement: 'd', terminal: 'ECHO', ohms: 1000 },
    { kind: 'pull', placement: 'd', terminal: 'ECHO', pull: { ohms: 2200, to: 'ground' } },
    add('b', 'buzzer-active'),
    wire('b:PLUS', 'GP5'),
    { kind: 'driver', placement: 'b', terminal: 'PLUS', driver: { kind: 'npn', ohms: 820 } },
    add('s', 'humidity-sht31'),
    wire('s:SDA', 'GP8'),
    wire('s:SCL', 'GP9'),
    { kind: 'bus-settings', segment: 'i2c0', settings: { addedOhms: 4700 } },
  );
  const all = planResistors(plan, sheets);
  expect(all.map((one) => [one.id, one.why.use, one.ohms])).toEqual([
    ['series l:A', 'led', 180],
    ['series m:A', 'led', undefined],
    ['series d:ECHO', 'divider-top', 1000],
    ['pull d:ECHO', 'divider-bottom', 2200],
    ['driver b:PLUS', 'base', 820],
    ['bus i2c0', 'bus', 4700],
  ]);
  const [led, missing, top] = all;
  // (3.4 V − 1.7 V) over 180 Ω less 5 %.
  expect(led!.amps).toBeCloseTo(1.7 / 171, 9);
  expect(led!.watts).toBeCloseTo((1.7 / 171) ** 2 * 171, 9);
  expect([led!.ratingWatts, missing!.watts]).toEqual([0.1, undefined]);
  expect(top!.amps).toBeCloseTo(5.25 / (3200 * 0.95), 9);
});
