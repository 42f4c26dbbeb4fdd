import { shippedSheets } from '../../tests/catalogue';
import { findingsOf } from '../../tests/checkHarness';
import { add, edited, stick, wire } from '../../tests/makePlan';
import type { Plan } from '../plan/plan';
import { otherEnds } from './otherEnds';
import { planTerminals } from './terminals';

const sheets = shippedSheets();
const endsOf = (plan: Plan, key: string) =>
  otherEnds(
    plan,
    sheets,
    planTerminals(plan, sheets).find((t) => t.key === key)!,
  );
const ends = (plan: Plan, key: string) => endsOf(plan, key).map((one) => `${one.reason} ${one.key}`);

test('data goes on from a chain, lines through channels and shifters, signals to ports, alike lines to one another', () => {
  const plan = edited(
    stick(),
    sheets,
    add('a', 'matrix-8x8-max7219'),
    add('b', 'matrix-8x8-max7219'),
    add('s', 'oled-096-ssd1306-i2c'),
    add('h', 'shifter-mosfet-4'),
    add('m', 'multiplexer-tca9548a'),
    add('t', 'tft-18-st7735-spi'),
    add('u', 'tft-144-st7735-spi'),
    add('p', 'expander-mcp23017'),
    add('l', 'led-red-5mm'),
  );
  expect(ends(plan, 'b:DIN')[0]).toBe('chain a:DOUT');
  expect(ends(plan, 's:SDA').filter((e) => e.startsWith('channel'))).toEqual(Array.from({ length: 8 }, (_, n) => `channel m:SD${n}`));
  expect(ends(plan, 's:SDA')).toContain('shifter h:HV1');
  expect(ends(plan, 't:RST')).toContain('join u:RST');
  expect(ends(plan, 'l:A').some((e) => e.startsWith('port p:'))).toBe(true);
  expect(ends(plan, 'b:VCC')).toEqual([]);
});

test('an LED may follow another in series; the ground wire of that one goes then, unless it is locked', () => {
  const two = edited(stick(), sheets, add('l', 'led-red-5mm'), add('m', 'led-red-5mm'), add('c', 'rgb-led-cc'), wire('l:K', 'ground'));
  const series = (plan: typeof two, key: string) => endsOf(plan, key).filter((end) => end.reason === 'series');
  expect(series(two, 'm:A')).toMatchObject([{ key: 'l:K', ungrounds: true }]);
  expect(series(two, 'l:A').map((end) => [end.key, end.ungrounds])).toEqual([['m:K', undefined]]);
  expect([series(two, 'c:R'), series(two, 'm:K')]).toEqual([[], []]);
  expect(series(edited(two, sheets, { kind: 'lock', placement: 'l', terminal: 'K', locked: true }), 'm:A')).toEqual([]);
});

test('an end that has its signal is not offered again; a second line of the same kind may share a channel', () => {
  const plan = edited(
    stick(),
    sheets,
    ...['a', 'b', 'c'].map((id) => add(id, 'matrix-8x8-max7219')),
    add('m', 'multiplexer-tca9548a'),
    add('s', 'oled-096-ssd1306-i2c'),
    add('r', 'humidity-sht31'),
    wire('b:DIN', 'a:DOUT'),
    wire('s:SDA', 'm:SD3'),
  );
  expect(ends(plan, 'c:DIN').filter((e) => e.startsWith('chain'))).toEqual(['chain b:DOUT']);
  expect(ends(plan, 'r:SDA')).toContain('channel m:SD3');
  expect(findingsOf(plan, sheets)).toBeDefined();
});

test('the end that a terminal has is one it may have; to others of its kind it is taken', () => {
  const plan = edited(stick(), sheets, add('p', 'expander-mcp23017'), add('l', 'led-red-5mm'), add('m', 'led-red-5mm'));
  const port = ends(plan, 'l:A').find((e) => e.startsWith('port '))!;
  const wired = edited(plan, sheets, wire('l:A', port.replace('port ', '')));
  expect([ends(wired, 'l:A').includes(port), ends(wired, 'm:A').includes(port)]).toEqual([true, false]);
});
