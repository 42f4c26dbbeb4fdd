import { shippedSheets } from '../../tests/catalogue';
import { findingsOf } from '../../tests/checkHarness';
import { add, edited, stick, wire, wired } from '../../tests/makePlan';
import { loadsOf } from '../electrics/reports/ledReport';
import type { Edit } from '../plan/edit';
import type { Plan } from '../plan/plan';
import { failureDraft } from './engine/checkFailed';

const sheets = shippedSheets();
const one = (plan: Plan, code: string) => findingsOf(plan, sheets).filter((finding) => finding.code === code);
const part = (id: string) => sheets.parts.get(id)!.sheet;

test('levels: the source is the sheet of what receives, the board’s for what comes to the board', () => {
  const echo = edited(
    stick(),
    sheets,
    ...wired('d', 'distance-ultrasonic-5v', { VCC: 'rail vbus', GND: 'ground', TRIG: 'GP2', ECHO: 'GP3' }),
  );
  expect(one(echo, 'level-damage').map(({ message, source }) => [message, source])).toEqual([
    ['to-board', sheets.boards.get('rp2040-stick-40')!.sheet.electrical.source],
  ]);
  const strip = edited(stick(), sheets, ...wired('s', 'strip-ws2812b', { VCC: 'rail vbus', GND: 'ground', DIN: 'GP2' }));
  const [low] = one(strip, 'level-no-margin');
  expect([low!.place.placements, low!.source]).toEqual([['s'], part('strip-ws2812b').levels!.source]);
});

const SEGMENTS = ['a', 'b', 'c', 'd', 'e', 'f', 'g'];
const digit = (id: string, register: string, ohms: number): Edit[] => [
  add(id, 'seven-segment-1-cc'),
  wire(`${id}:COM1`, 'ground'),
  wire(`${id}:COM2`, 'ground'),
  ...SEGMENTS.flatMap((segment, at): Edit[] => [
    wire(`${id}:${segment}`, `${register}:Q${'ABCDEFG'[at]}`),
    { kind: 'series', placement: id, terminal: segment, ohms },
  ]),
];

test('package-current-over: each register has the current of its own outputs alone', () => {
  const registers = edited(
    stick(),
    sheets,
    ...['q', 'r'].flatMap((id) => [add(id, 'shift-out-74hc595'), wire(`${id}:VCC`, 'rail 3v3'), wire(`${id}:GND`, 'ground')]),
    ...digit('x', 'q', 180),
    ...digit('y', 'r', 180),
    { kind: 'wire', placement: 'y', terminal: 'dp', end: { to: 'pin', pin: 'GP2' } },
    { kind: 'series', placement: 'y', terminal: 'dp', ohms: 180 },
  );
  const sum = (driver: string) =>
    loadsOf(registers, sheets).reduce((all, { driver: by, amps }) => all + (by.by === 'part' && by.placement === driver ? amps : 0), 0);
  const limit = part('shift-out-74hc595').drive!.totalMilliamps / 1000;
  // Below the limit each, above it together.
  expect([sum('q') < limit, sum('r') < limit, sum('q') + sum('r') > limit]).toEqual([true, true, true]);
  expect(one(registers, 'package-current-over')).toEqual([]);
  const bright = edited(registers, sheets, ...SEGMENTS.map((terminal): Edit => ({ kind: 'series', placement: 'y', terminal, ohms: 120 })));
  expect(sum('q') < limit).toBe(true);
  expect(one(bright, 'package-current-over').map(({ place }) => place.placements)).toEqual([['r']]);
});

test.each([
  ['first', ['o', 'h', 'l']],
  ['last', ['h', 'l', 'o']],
])('bus-overloaded: the busiest part is named, also where it is the %s', (_, order) => {
  const ids: { readonly [id: string]: string } = { o: 'oled-096-ssd1306-i2c', h: 'humidity-sht31', l: 'light-bh1750' };
  const plan = edited(stick(), sheets, ...order.flatMap((id) => wired(id, ids[id]!, { SDA: 'GP4', SCL: 'GP5', GND: 'ground' })), {
    kind: 'rate',
    placement: 'o',
    perSecond: 60,
  });
  const [found] = one(plan, 'bus-overloaded');
  expect(found!.data['top']).toEqual({ is: 'placement', id: 'o' });
});

test('driver-wiring: two displays on one segment and one digit of a driver are lit together', () => {
  const at = (id: string): Edit[] => [add(id, 'seven-segment-4-cc'), wire(`${id}:a`, 'm:SEGA'), wire(`${id}:DIG1`, 'm:DIG0')];
  const plan = edited(stick(), sheets, add('m', 'driver-max7219-dip24'), ...at('x'), ...at('y'));
  const [found] = one(plan, 'driver-wiring').filter(({ message }) => message === 'together');
  expect([found!.place.placements, found!.data]).toEqual([
    ['x', 'y', 'm'],
    {
      placements: { is: 'placements', ids: ['x', 'y'] },
      placement: { is: 'placement', id: 'y' },
      driver: { is: 'placement', id: 'm' },
    },
  ]);
});

test('a check that fails says which and why, and offers nothing', () => {
  const draft = failureDraft('level-damage', 'boom');
  expect([draft.data, draft.remedies()]).toEqual([
    { check: { is: 'words', text: 'level-damage' }, reason: { is: 'words', text: 'boom' } },
    [],
  ]);
});
