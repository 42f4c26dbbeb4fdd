import { shippedSheets } from '../../tests/catalogue';
import { add, edited, stick, wire } from '../../tests/makePlan';
import { canMultiplex, commonsOf, multiplexedLeds, segmentsOfPart } from './multiplexed';

const sheets = shippedSheets();
const part = (id: string) => sheets.parts.get(id)!.sheet;
const driver = part('driver-max7219-dip24');

test('a driver lights LEDs with the common line of its digit outputs; a single LED has none and fits either', () => {
  const can = (id: string) => canMultiplex(driver, part(id));
  expect([can('seven-segment-4-cc'), can('seven-segment-4-ca'), can('led-red-5mm')]).toEqual([true, false, true]);
  expect([can('servo-micro'), canMultiplex(part('led-red-5mm'), part('seven-segment-4-cc'))]).toEqual([false, false]);
});

test('digits are in the order of their numbers, segments are all other LED lines', () => {
  expect(commonsOf(part('seven-segment-4-cc')).map(({ id }) => id)).toEqual(['DIG1', 'DIG2', 'DIG3', 'DIG4']);
  expect(
    segmentsOfPart(part('seven-segment-4-cc'))
      .map(({ id }) => id)
      .toSorted(),
  ).toEqual(['a', 'b', 'c', 'd', 'dp', 'e', 'f', 'g']);
});

test('an LED is lit where both of its lines are at outputs of one driver, its segment line at a segment output', () => {
  const two = edited(stick(), sheets, add('d', driver.id), add('e', driver.id), add('x', 'seven-segment-4-cc'), add('s', 'servo-micro'));
  const lit = (...ends: readonly (readonly [string, string])[]) =>
    multiplexedLeds(edited(two, sheets, ...ends.map(([from, to]) => wire(from, to))), sheets);
  expect(lit(['x:a', 'd:SEGA'], ['x:DIG1', 'd:DIG2'], ['x:DIG3', 'd:DIG4'])).toEqual([
    { key: 'x:a', common: 'x:DIG1', driver: 'd', segment: 6, digit: 2 },
    { key: 'x:a', common: 'x:DIG3', driver: 'd', segment: 6, digit: 4 },
  ]);
  expect(lit(['x:a', 'd:SEGA'], ['x:DIG1', 'e:DIG2'])).toEqual([]);
  expect(lit(['x:a', 'd:DIG3'], ['x:DIG1', 'd:DIG2'])).toEqual([]);
  expect(lit(['x:a', 'd:SEGA'], ['x:DIG1', 'GP2'])).toEqual([]);
});
