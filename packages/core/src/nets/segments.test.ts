import { shippedSheets } from '../../tests/catalogue';
import { add, edited, stick, wire } from '../../tests/makePlan';
import { behindShifter } from '../assign/behindShifter';
import { assignPins } from '../assign/assignPins';
import { pullUpInput } from '../electrics/reports/busInputs';
import { findBuses } from './buses';
import { findNets } from './nets';
import { joinedWith, segmentsOf } from './segments';
import { terminalsOf } from './terminals';

const sheets = shippedSheets();
const board = sheets.boards.get('rp2040-stick-40')!;
const i2c = (id: string) => [wire(`${id}:SDA`, 'GP4'), wire(`${id}:SCL`, 'GP5')];
const mixed = edited(
  stick(),
  sheets,
  add('s', 'oled-096-ssd1306-i2c', 'Screen'),
  add('l', 'lcd-2004-pcf8574', 'Text'),
  ...i2c('s'),
  ...i2c('l'),
  wire('s:VCC', 'rail 3v3'),
  wire('l:VCC', 'rail vbus'),
);
const shifted = edited(mixed, sheets, ...behindShifter({ plan: mixed, sheets, board }, ['l'], 'i2c')!.edits);
const shape = (plan: typeof mixed) =>
  segmentsOf(plan, sheets, findBuses(plan, sheets)[0]!).map((s) => [s.id, s.via?.by, s.members.map((m) => m.id)]);

test('a part behind a level shifter is on the same bus, on a stretch of its own', () => {
  expect(findBuses(shifted, sheets).map((b) => [b.id, b.members.map((m) => m.id)])).toEqual([['i2c:GP4:GP5', ['s', 'l']]]);
  expect(shape(shifted)).toEqual([
    ['i2c0', undefined, ['s']],
    ['helper-1', 'shifter', ['l']],
  ]);
  const near = terminalsOf(shifted, { id: 'helper-1' }, sheets).filter((t) => t.carries);
  expect(near.map((t) => [t.terminal.label, t.terminal.role, t.terminal.need, t.carries])).toEqual([
    ['LV1', 'i2c.sda', 'needed', ['l:SDA']],
    ['LV2', 'i2c.scl', 'needed', ['l:SCL']],
  ]);
  // Its end and the other members' lines are one signal on the pin.
  expect(findNets(shifted, sheets).byPin.get('GP4')!.signals).toHaveLength(1);
});

test('the board’s end of a channel is wired by settling, where the bus can be', () => {
  const open = edited(shifted, sheets, ...['LV1', 'LV2'].map((t) => ({ kind: 'unwire', placement: 'helper-1', terminal: t }) as const));
  const settled = assignPins(open, sheets)!;
  expect([settled.open, settled.costs.moved]).toEqual([[], 0]);
  const bus = findBuses(settled.plan, sheets);
  expect(bus.flatMap((b) => b.members.map((m) => m.id)).sort()).toEqual(['l', 's']);
  expect(bus.every((b) => b.controller !== undefined)).toBe(true);
});

test('a second part of that supply takes the channels that are there; one of the logic supply, or locked, is not taken across', () => {
  const two = edited(shifted, sheets, add('m', 'lcd-1602-pcf8574', 'Line'), ...i2c('m'), wire('m:VCC', 'rail vbus'));
  const found = behindShifter({ plan: two, sheets, board }, ['m'], 'i2c')!;
  expect([found.added, found.edits.filter((e) => e.kind === 'add-placement')]).toEqual([false, []]);
  expect(behindShifter({ plan: mixed, sheets, board }, ['s'], 'i2c')).toBeUndefined();
  const locked = edited(mixed, sheets, { kind: 'lock', placement: 'l', terminal: 'SDA', locked: true });
  expect(behindShifter({ plan: locked, sheets, board }, ['l'], 'i2c')).toBeUndefined();
});

test('channels of a multiplexer are stretches; of them only the open one joins; one that feeds itself ends', () => {
  const behind = edited(
    stick(),
    sheets,
    add('x', 'multiplexer-tca9548a', 'Switch'),
    ...i2c('x'),
    ...['a', 'b'].flatMap((id, at) => [add(id, 'distance-vl53l0x', id), wire(`${id}:SDA`, `x:SD${at}`), wire(`${id}:SCL`, `x:SC${at}`)]),
  );
  const bus = findBuses(behind, sheets)[0]!;
  const segments = segmentsOf(behind, sheets, bus);
  expect(segments.map((s) => [s.id, s.via?.by, s.members.map((m) => m.id)])).toEqual([
    ['i2c0', undefined, ['x']],
    ['x.0', 'channel', ['a']],
    ['x.1', 'channel', ['b']],
  ]);
  expect(joinedWith(segments, segments[1]!).map((s) => s.id)).toEqual(['i2c0', 'x.0']);
  expect(joinedWith(segments, segments[0]).map((s) => s.id)).toEqual(['i2c0']);
  const itself = edited(behind, sheets, add('y', 'multiplexer-tca9548a', 'Round'), wire('y:SDA', 'y:SD0'), wire('y:SCL', 'y:SC0'));
  for (const one of findBuses(itself, sheets)) expect(segmentsOf(itself, sheets, one).length).toBeLessThanOrEqual(3);
});

test('a buffer keeps its two sides apart: each has its own pull-ups, and neither knows of the other', () => {
  const buffered = edited(
    mixed,
    sheets,
    add('b', 'buffer-pca9517a', 'Buffer'),
    wire('b:VCCA', 'rail 3v3'),
    wire('b:VCCB', 'rail vbus'),
    wire('l:SDA', 'b:SDAB'),
    wire('l:SCL', 'b:SCLB'),
    wire('b:SDAA', 'GP4'),
    wire('b:SCLA', 'GP5'),
  );
  const bus = findBuses(buffered, sheets)[0]!;
  const segments = segmentsOf(buffered, sheets, bus);
  expect(segments.map((s) => [s.id, s.via?.by, joinedWith(segments, s).map((j) => j.id)])).toEqual([
    ['i2c0', undefined, ['i2c0']],
    ['b', 'buffer', ['b']],
  ]);
  const inputs = segments.map((s) => pullUpInput(buffered, sheets, bus, { line: 'sda', segment: s })!);
  expect(inputs.map((input) => [input.vdd.max, input.joined, input.pullUps.map((p) => p.id)])).toEqual([
    [3.4, undefined, ['s']],
    [5.25, undefined, ['l']],
  ]);
});
