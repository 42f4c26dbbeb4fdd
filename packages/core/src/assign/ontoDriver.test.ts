import { shippedSheets } from '../../tests/catalogue';
import { expectCheck, findingsOf, remedied } from '../../tests/checkHarness';
import { add, edited, stick, wire } from '../../tests/makePlan';
import { segmentCurrent } from '../electrics/reports/segmentCurrent';
import { setDriversOf } from '../electrics/reports/setDrivers';
import { multiplexedLeds } from '../nets/multiplexed';
import type { Plan } from '../plan/plan';
import { segmentTable } from '../displays/segmentTable';
import { ontoDriver } from './ontoDriver';
import { assignPins } from './assignPins';

const sheets = shippedSheets();
const placed = (plan: Plan, id: string) => plan.placements.find((p) => p.id === id)!;
const onto = (plan: Plan, display: string, driver = 'd') => ontoDriver(plan, sheets, placed(plan, display), placed(plan, driver));
const put = (plan: Plan, display: string, driver = 'd'): Plan => {
  const result = onto(plan, display, driver);
  if (!result.ok) throw new Error(result.reason);
  return edited(plan, sheets, ...result.edits);
};
const driver = (...displays: readonly string[]): Plan =>
  edited(stick(), sheets, add('d', 'driver-max7219-dip24', 'Driver'), ...displays.map((id, at) => add(`s${at}`, id, `Digits ${at}`)));

test('four bare digits on a MAX7219: segments by name, digits in order, the bytes that its datasheet lists', () => {
  const plan = put(driver('seven-segment-4-cc'), 's0');
  expect(plan.wires['s0:a']!.end).toEqual({ to: 'terminal', placement: 'd', terminal: 'SEGA' });
  expect(plan.wires['s0:dp']!.end).toEqual({ to: 'terminal', placement: 'd', terminal: 'SEGDP' });
  expect(['DIG1', 'DIG2', 'DIG3', 'DIG4'].map((id) => plan.wires[`s0:${id}`]!.end)).toEqual(
    ['DIG0', 'DIG1', 'DIG2', 'DIG3'].map((terminal) => ({ to: 'terminal', placement: 'd', terminal })),
  );
  expect(multiplexedLeds(plan, sheets)).toHaveLength(32);
  const table = segmentTable(plan, sheets, 's0')!;
  // No-decode mode: D7 is the point, D6 to D0 are A to G.
  const byte = (glyph: string) => table.glyphs.find((one) => one.glyph === glyph)!.byte;
  expect([byte('0'), byte('1'), byte('8')]).toEqual([0x7e, 0x30, 0x7f]);
  expect(table.walk.map((one) => one.byte)).toEqual([0x40, 0x20, 0x10, 0x08, 0x04, 0x02, 0x01, 0x80]);
  expect(table.digits.map(({ digit, index }) => [digit, index])).toEqual([
    ['DIG1', 0],
    ['DIG2', 1],
    ['DIG3', 2],
    ['DIG4', 3],
  ]);
  expect(findingsOf(plan, sheets).filter((f) => f.place.placements?.includes('s0'))).toEqual([]);
});

test('four single digits share the segment outputs; nine are one too many, and forty are refused with what is free', () => {
  const single = Array.from({ length: 9 }, () => 'seven-segment-1-cc');
  let plan = driver(...single);
  for (let at = 0; at < 8; at += 1) plan = put(plan, `s${at}`);
  expect(plan.wires['s7:COM1']!.end).toEqual({ to: 'terminal', placement: 'd', terminal: 'DIG7' });
  expect(plan.wires['s7:COM2']).toBeUndefined();
  expect(onto(plan, 's8')).toEqual({ ok: false, reason: 'digits', wanted: 1, free: 0 });
  expectCheck('driver-wiring', plan, sheets, []);
  const ten = Array.from({ length: 10 }, () => 'seven-segment-4-cc');
  const full = put(put(driver(...ten), 's0'), 's1');
  expect(onto(full, 's2')).toEqual({ ok: false, reason: 'digits', wanted: 4, free: 0 });
  expect(onto(driver('seven-segment-4-ca'), 's0')).toEqual({ ok: false, reason: 'polarity' });
});

test('pins are assigned to what the driver of the plan does not light', () => {
  const plan = assignPins(driver('seven-segment-4-cc', 'led-red-5mm'), sheets)!.plan;
  const ends = Object.entries(plan.wires).filter(([key]) => /^s0:/.test(key));
  expect(ends.every(([, { end }]) => end.to === 'terminal' && end.placement === 'd')).toBe(true);
  expect(findingsOf(plan, sheets).filter((f) => f.level === 'clash' && f.code !== 'led-no-resistor')).toEqual([]);
  // A status LED goes to a pin, and what is wired already stays where it is.
  expect(plan.wires['s1:A']!.end.to).toBe('pin');
  const wired = edited(driver('seven-segment-1-cc'), sheets, wire('s0:a', 'GP9'));
  expect(assignPins(wired, sheets)!.plan.wires['s0:a']!.end).toEqual({ to: 'pin', pin: 'GP9' });
});

test('an HT16K33 takes eight digits at its first eight rows, and eight more at the others', () => {
  const plan = edited(stick(), sheets, add('d', 'driver-ht16k33'), ...[0, 1, 2, 3, 4].map((n) => add(`s${n}`, 'seven-segment-4-cc')));
  const full = ['s0', 's1', 's2', 's3'].reduce((now, id) => put(now, id), plan);
  expect(full.wires['s2:a']!.end).toEqual({ to: 'terminal', placement: 'd', terminal: 'A8' });
  expect(full.wires['s2:DIG1']!.end).toEqual(full.wires['s0:DIG1']!.end);
  // Rows count from bit 0 in the byte of either half.
  expect(segmentTable(full, sheets, 's2')!.walk[0]).toEqual({ segment: 'a', byte: 1 });
  expect(onto(full, 's4')).toEqual({ ok: false, reason: 'digits', wanted: 4, free: 0 });
  expectCheck('driver-wiring', full, sheets, []);
});

test('resistors and transistors in the wires go, a locked wire keeps everything where it is', () => {
  const direct = edited(driver('seven-segment-1-cc'), sheets, wire('s0:a', 'GP2'), wire('s0:COM1', 'ground'), wire('s0:COM2', 'ground'), {
    kind: 'series',
    placement: 's0',
    terminal: 'a',
    ohms: 220,
  });
  const moved = put(direct, 's0');
  expect([moved.series, moved.wires['s0:COM2']]).toEqual([{}, undefined]);
  const locked = edited(direct, sheets, { kind: 'lock', placement: 's0', terminal: 'a', locked: true });
  expect(onto(locked, 's0')).toEqual({ ok: false, reason: 'locked' });
});

test('driver-wiring: a common left at ground, digits at one output, the other polarity', () => {
  const plan = put(driver('seven-segment-1-cc', 'seven-segment-1-cc'), 's0');
  const grounded = edited(plan, sheets, wire('s0:COM2', 'ground'));
  expectCheck('driver-wiring', grounded, sheets, [
    {
      message: 'split',
      level: 'clash',
      title: 'Digits 0: COM not at the outputs of Driver',
      remedies: ['Put Digits 0 on Driver'],
    },
  ]);
  expect(remedied('driver-wiring', grounded, sheets).wires['s0:COM2']).toBeUndefined();
  const both = edited(put(plan, 's1'), sheets, {
    kind: 'wire',
    placement: 's1',
    terminal: 'COM1',
    end: { to: 'terminal', placement: 'd', terminal: 'DIG0' },
  });
  expectCheck('driver-wiring', both, sheets, [
    { message: 'together', level: 'risk', title: 'Digits 0 and Digits 1 light together on Driver', remedies: ['Put Digits 1 on Driver'] },
  ]);
  expect(remedied('driver-wiring', both, sheets).wires['s1:COM1']!.end).toMatchObject({ terminal: 'DIG1' });
  const doubled = edited(plan, sheets, {
    kind: 'wire',
    placement: 's0',
    terminal: 'b',
    end: { to: 'terminal', placement: 'd', terminal: 'SEGA' },
  });
  expectCheck('driver-wiring', doubled, sheets, [
    { message: 'doubled', level: 'risk', title: 'Digits 0: two segments at one output of Driver', remedies: ['Put Digits 0 on Driver'] },
  ]);
  const anode = edited(driver('seven-segment-1-ca'), sheets, {
    kind: 'wire',
    placement: 's0',
    terminal: 'a',
    end: { to: 'terminal', placement: 'd', terminal: 'SEGA' },
  });
  expectCheck('polarity-mismatch', anode, sheets, [
    { message: 'driver', level: 'clash', title: 'Digits 0: common anode on Driver, which drives common cathode', remedies: [] },
  ]);
});

test('with few digits the segment current has a lower limit, which the datasheet lists', () => {
  const set = (plan: Plan) => edited(plan, sheets, { kind: 'series', placement: 'd', terminal: 'ISET', ohms: 12_000 });
  const one = set(put(driver('seven-segment-1-cc'), 's0'));
  expect(setDriversOf(one, sheets)[0]!.few).toMatchObject({ digits: 1, maxAmps: 0.01, fitOhms: 68_000 });
  expect(findingsOf(one, sheets).filter((f) => f.code === 'led-over-current')).toMatchObject([{ message: 'few', level: 'hint' }]);
  expectCheck('led-over-current', remedied('led-over-current', one, sheets), sheets, []);
  const four = set(put(driver('seven-segment-4-cc'), 's0'));
  expect(setDriversOf(four, sheets)[0]!.few).toBeUndefined();
  expectCheck('led-over-current', four, sheets, []);
});

test('the current of a segment is that of its driver, which scans eight digits, or of its resistors', () => {
  const set = edited(put(driver('seven-segment-4-cc'), 's0'), sheets, { kind: 'series', placement: 'd', terminal: 'ISET', ohms: 28_000 });
  const current = segmentCurrent(set, sheets, 's0')!;
  // 28.0 kΩ give 20 mA with 2 V LEDs by the table of the datasheet.
  expect(current.amps.typ).toBeCloseTo(0.02, 12);
  expect(current.digits).toBe(8);
  const direct = edited(stick(), sheets, add('s', 'seven-segment-1-cc'), wire('s:a', 'GP2'), wire('s:COM1', 'ground'));
  expect(segmentCurrent(direct, sheets, 's')).toBeUndefined();
  const limited = edited(direct, sheets, { kind: 'series', placement: 's', terminal: 'a', ohms: 330 });
  const alone = segmentCurrent(limited, sheets, 's')!;
  // 3.3 V − 2 V over 330 Ω and the output, which keeps some of it.
  expect([alone.digits, alone.amps.typ! < 1.3 / 330, alone.amps.typ! > 0.7 * (1.3 / 330)]).toEqual([1, true, true]);
});

test('a matrix module without its matrix drives other digits by its sockets, at the current that its own resistor sets', () => {
  const plan = put(edited(stick(), sheets, add('d', 'driver-max7219-module', 'Module'), add('s0', 'seven-segment-4-cc', 'Digits')), 's0');
  // Pin 9 of an 8×8 matrix is its first row, pin 13 its first column, pin 3 the second.
  const labelAt = (key: string) => {
    const end = plan.wires[key]!.end;
    return end.to === 'terminal' ? sheets.parts.get('driver-max7219-module')!.terminals.get(end.terminal)!.label : undefined;
  };
  expect([labelAt('s0:DIG1'), labelAt('s0:dp'), labelAt('s0:a')]).toEqual(['S9', 'S13', 'S3']);
  const byte = (glyph: string) => segmentTable(plan, sheets, 's0')!.glyphs.find((one) => one.glyph === glyph)!.byte;
  expect([byte('0'), byte('1'), byte('8')]).toEqual([0x7e, 0x30, 0x7f]);
  const [driven] = setDriversOf(plan, sheets);
  expect(driven).toMatchObject({ key: undefined, ohms: 10_000 });
  expect(segmentCurrent(plan, sheets, 's0')).toEqual({ amps: driven!.amps, digits: 8 });
  expectCheck('led-no-resistor', plan, sheets, []);
  // Four digits need no other resistor; one does, and it is soldered to the module: the scan limit is what is left.
  expectCheck('led-over-current', plan, sheets, []);
  const one = put(edited(stick(), sheets, add('d', 'driver-max7219-module', 'Module'), add('s0', 'seven-segment-1-cc', 'Digit')), 's0');
  const [few] = findingsOf(one, sheets).filter((f) => f.code === 'led-over-current');
  expect([few!.message, few!.remedies]).toEqual(['few', []]);
});
