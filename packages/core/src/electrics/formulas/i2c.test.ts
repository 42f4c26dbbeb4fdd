import fc from 'fast-check';
import { shippedSheets } from '../../../tests/catalogue';
import { add, edited, stick, wire } from '../../../tests/makePlan';
import { findBuses } from '../../nets/buses';
import { valuesOf } from '../../quantity/series';
import { busUsers, clockLimits, meantClock, pullUpInput } from '../reports/busInputs';
import { busPullUps, mostPullUp, parallel, type PullUp, type PullUpInput } from './busPullUps';
import { JoinedRise } from './joinedRise';
import { riseCurve } from './riseCurve';
import { accessBits, busTime, transferBits } from './i2cTime';

const point = (value: number) => ({ min: value, max: value });
const pull = (ohms: number, volts = 3.3): PullUp => ({ id: `${ohms}`, ohms: point(ohms), volts: point(volts) });
const input = (over: Partial<PullUpInput>): PullUpInput => ({
  vdd: point(3.3),
  pullUps: [pull(4700)],
  sinks: [{ id: 'part', volts: 0.4, amps: 3e-3 }],
  farads: 100e-12,
  hz: 400e3,
  ...over,
});

describe('worked values of the I2C specification', () => {
  test('least pull-up: 967 Ω at 3.3 V and 1533 Ω at 5 V for 3 mA', () => {
    expect(busPullUps(input({})).leastOhms).toBeCloseTo(966.7, 1);
    expect(busPullUps(input({ pullUps: [pull(4700, 5)] })).leastOhms).toBeCloseTo(1533.3, 1);
    // What the lines are pulled to counts, not what feeds those on them.
    expect(busPullUps(input({ vdd: point(5) })).leastOhms).toBeCloseTo(966.7, 1);
  });

  test('most pull-up at 200 pF: 5.90 kΩ, 1.77 kΩ and 708 Ω for the three modes', () => {
    expect([1000e-9, 300e-9, 120e-9].map((t) => Math.round(mostPullUp(t, 200e-12)))).toEqual([5901, 1770, 708]);
  });

  test('the window is empty at 5 V, 400 pF and 400 kHz: least 1533 Ω, most 885 Ω', () => {
    const result = busPullUps(input({ vdd: point(5), farads: 400e-12, pullUps: [pull(1000, 5)] }));
    expect([Math.round(result.leastOhms), Math.round(result.mostOhms), result.windowOpen]).toEqual([1533, 885, false]);
    expect(result.verdict).toBe('both');
  });

  test('the rise is 0.8473 · R · C where the line rests at the supply', () => {
    expect(new JoinedRise([{ ohms: 4700, rest: 3.3, farads: 100e-12 }]).rise(0, 3.3) / (4700 * 100e-12)).toBeCloseTo(0.8473, 4);
  });
});

describe('properties', () => {
  const ohms = fc.array(fc.integer({ min: 500, max: 100_000 }), { minLength: 1, maxLength: 8 });

  test('one more pull-up never raises what they come to together, nor the rise time, and never lowers what must be sunk', () => {
    fc.assert(
      fc.property(ohms, fc.integer({ min: 500, max: 100_000 }), (list, more) => {
        expect(parallel([...list, more])).toBeLessThan(parallel(list));
        const before = busPullUps(input({ pullUps: list.map((r) => pull(r)) }));
        const after = busPullUps(input({ pullUps: [...list, more].map((r) => pull(r)) }));
        expect(after.riseSeconds!.max).toBeLessThanOrEqual(before.riseSeconds!.max);
        expect(after.sinkAmps).toBeGreaterThan(before.sinkAmps);
      }),
    );
  });

  test('a slower clock never makes a rise that was in time too slow', () => {
    const modes = [100e3, 400e3, 1e6];
    fc.assert(
      fc.property(ohms, fc.integer({ min: 20, max: 600 }), (list, picofarads) => {
        const weak = modes.map((hz) =>
          ['too-weak', 'both'].includes(busPullUps(input({ hz, farads: picofarads * 1e-12, pullUps: list.map((r) => pull(r)) })).verdict),
        );
        expect(weak).toEqual(weak.toSorted((a, b) => Number(a) - Number(b)));
      }),
    );
  });

  test('the corners enclose the nominal value, and the verdict is that of the window where all pull to one supply', () => {
    fc.assert(
      fc.property(ohms, fc.integer({ min: 20, max: 500 }), (list, picofarads) => {
        const pullUps = list.map((r): PullUp => ({ id: `${r}`, ohms: { min: r * 0.95, typ: r, max: r * 1.05 }, volts: point(3.3) }));
        const result = busPullUps(input({ pullUps, farads: picofarads * 1e-12 }));
        const nominal = parallel(list);
        expect(result.ohms!.min).toBeLessThanOrEqual(nominal);
        expect(result.ohms!.max).toBeGreaterThanOrEqual(nominal);
        const strong = result.ohms!.min < result.leastOhms;
        const weak = result.ohms!.max > result.mostOhms * (1 + 1e-9);
        expect(result.verdict).toBe(strong && weak ? 'both' : strong ? 'too-strong' : weak ? 'too-weak' : 'good');
      }),
    );
  });

  test('no value of the working is ever not a number, and what is not above zero is refused', () => {
    const mixed = busPullUps(input({ pullUps: [pull(4700, 5), pull(10_000, 1)] }));
    expect(mixed.idleVolts!.max).toBeCloseTo((5 / 4700 + 1 / 10_000) / (1 / 4700 + 1 / 10_000), 9);
    for (const step of mixed.working) expect(step.values).not.toMatch(/NaN|Infinity/);
    for (const bad of [{ farads: 0 }, { farads: -1 }, { hz: 0 }, { pullUps: [pull(0)] }])
      expect(() => busPullUps(input(bad))).toThrow(RangeError);
  });
});

test('the curve starts at nothing, rises all the way, and passes from 0.3 to 0.7 in the time that was calculated', () => {
  const given = input({ pullUps: [pull(4700)], hz: 100e3 });
  const curve = riseCurve(given, 4001);
  expect(curve[0]).toMatchObject({ slow: 0, fast: 0 });
  for (let at = 1; at < curve.length; at += 1) expect(curve[at]!.slow).toBeGreaterThan(curve[at - 1]!.slow);
  const passing = (share: number) => curve.find((point) => point.slow >= share * 3.3)!.seconds;
  expect((passing(0.7) - passing(0.3)) / busPullUps(given).riseSeconds!.max).toBeCloseTo(1, 1);
  expect(riseCurve(input({ pullUps: [] }))).toEqual([]);
});

describe('time', () => {
  test('a frame of 128×64 in pieces of 16 bytes is 10 496 bits: 26 ms at 400 kHz, 38 a second at the very most', () => {
    const frame = [{ times: 64, write: 17, read: 0 }];
    expect(accessBits(frame)).toBe(10_496);
    const { users } = busTime(400e3, [{ id: 'screen', transfers: frame, perSecond: 10 }]);
    expect(users[0]!.alonePerSecond).toBeCloseTo(400e3 / 10_496, 9);
    expect(users[0]!.share).toBeCloseTo((10 * 10_496) / 400e3, 12);
    expect(shippedSheets().parts.get('oled-096-ssd1306-i2c')!.sheet.access!.transfers).toEqual(frame);
  });

  test('a register read: START, address and register, repeated START, address and bytes, STOP', () => {
    expect(transferBits({ write: 1, read: 2 })).toBe(1 + 18 + 1 + 27 + 1);
    expect(transferBits({ write: 0, read: 0 })).toBe(11);
  });

  test('a part that holds the clock takes longer for it, and others wait for it', () => {
    const { users, longestSeconds } = busTime(400e3, [
      { id: 'slow', transfers: [{ times: 1, write: 1, read: 2 }], perSecond: 100, stretchSeconds: 500e-6 },
    ]);
    expect(users[0]!.seconds).toBeCloseTo(48 / 400e3 + 500e-6, 12);
    expect([users[0]!.share, longestSeconds]).toEqual([100 * users[0]!.seconds, users[0]!.seconds]);
  });

  test('a bus without users is idle; a clock of nothing is refused', () => {
    expect(busTime(100e3, [])).toMatchObject({ share: 0, longestSeconds: 0 });
    expect(() => busTime(0, [])).toThrow(RangeError);
  });
});

describe('a bus of a plan', () => {
  const sheets = shippedSheets();
  const plan = edited(
    stick(),
    sheets,
    ...['oled-096-ssd1306-i2c', 'humidity-sht31', 'lcd-2004-pcf8574'].flatMap((id, at) => [
      add(`p${at}`, id),
      wire(`p${at}:SDA`, 'GP4'),
      wire(`p${at}:SCL`, 'GP5'),
    ]),
    wire('p0:VCC', 'rail 3v3'),
    wire('p1:VCC', 'rail 3v3'),
    wire('p2:VCC', 'rail vbus'),
  );
  const bus = findBuses(plan, sheets)[0]!;

  test('every pull-up with its supply: the backpack pulls to 5 V, and the line rests above the logic supply', () => {
    const given = pullUpInput(plan, sheets, bus, { line: 'sda' })!;
    expect(given.pullUps.map((p) => [p.id, p.ohms.typ])).toEqual([
      ['p0', 4700],
      ['p1', 10_000],
      ['p2', 4700],
    ]);
    const result = busPullUps(given);
    expect(result.idleVolts!.max).toBeGreaterThan(3.6);
    expect(given.internal!.ohms).toEqual({ min: 50_000, max: 80_000 });
  });

  test('the slowest member sets the clock; a resistor of the builder and a measured capacitance count', () => {
    const board = sheets.boards.get('rp2040-stick-40')!;
    expect(clockLimits(plan, sheets, board, bus)[0]).toEqual({ id: 'p2', hz: 100_000 });
    expect(meantClock(plan, sheets, board, bus)).toBe(100_000);
    const set = edited(plan, sheets, {
      kind: 'bus-settings',
      segment: 'i2c0',
      settings: { addedOhms: 2200, picofarads: 220, hz: 50_000 },
    });
    const given = pullUpInput(set, sheets, findBuses(set, sheets)[0]!, { line: 'scl' })!;
    expect([given.pullUps.at(-1)!.ohms.typ, given.farads, given.hz]).toEqual([2200, 220e-12, 50_000]);
  });

  test('rates of the plan go before those of the sheets', () => {
    const often = edited(plan, sheets, { kind: 'rate', placement: 'p0', perSecond: 25 });
    expect(busUsers(often, sheets, bus).users.map((u) => [u.id, u.perSecond])).toEqual([
      ['p0', 25],
      ['p1', 1],
      ['p2', 1],
    ]);
  });
});

test('preferred values as IEC 60063 lists them: E24 by history, E192 with its one exception', () => {
  expect(valuesOf('E24', 1000, 9999)).toEqual([
    1000, 1100, 1200, 1300, 1500, 1600, 1800, 2000, 2200, 2400, 2700, 3000, 3300, 3600, 3900, 4300, 4700, 5100, 5600, 6200, 6800, 7500,
    8200, 9100,
  ]);
  expect(valuesOf('E12', 1, 9.9)).toEqual([1, 1.2, 1.5, 1.8, 2.2, 2.7, 3.3, 3.9, 4.7, 5.6, 6.8, 8.2]);
  expect(valuesOf('E192', 900, 999)).toEqual([909, 920, 931, 942, 953, 965, 976, 988]);
  expect(valuesOf('E96', 100, 110)).toEqual([100, 102, 105, 107, 110]);
  for (const bad of [0, -1, NaN]) expect(() => valuesOf('E24', bad, 10)).toThrow(RangeError);
});
