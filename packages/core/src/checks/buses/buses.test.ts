import { shippedSheets } from '../../../tests/catalogue';
import { codesAfter, expectCheck, findingsOf, remedied } from '../../../tests/checkHarness';
import { add, edited, stick, wire } from '../../../tests/makePlan';
import { assignPins } from '../../assign/assignPins';
import { newPlan, type Plan } from '../../plan/plan';
import type { Edit } from '../../plan/edit';
import { describeFix } from '../../text/describe';

const sheets = shippedSheets();
const on = (board: string): Plan => newPlan('plan-1', 'Test', { id: board, version: 1 });
const spi = (id: string, ...lines: readonly (readonly [string, string])[]): Edit[] => lines.map(([t, pin]) => wire(`${id}:${t}`, pin));

describe('select-shared', () => {
  const two = edited(
    stick(),
    sheets,
    add('a', 'adc-mcp3008', 'Left'),
    add('b', 'adc-mcp3008', 'Right'),
    ...['a', 'b'].flatMap((id) => spi(id, ['CS', 'GP17'], ['CLK', 'GP18'], ['DIN', 'GP19'], ['DOUT', 'GP16'])),
  );

  test('two parts on one select, said once and not as a shared pin besides; either can move', () => {
    expectCheck('select-shared', two, sheets, [
      {
        message: 'shared',
        level: 'clash',
        title: 'Chip select shared: GP17 selects 2 devices',
        remedies: [expect.stringMatching(/^Move Right CS/) as string, expect.stringMatching(/^Move Left CS/) as string],
      },
    ]);
    expect(codesAfter(two, sheets)).not.toContain('pin-shared');
    expect(codesAfter(remedied('select-shared', two, sheets), sheets)).not.toContain('select-shared');
  });

  test('a select that meets another signal is a shared pin', () => {
    const lamp = edited(stick(), sheets, add('a', 'adc-mcp3008'), wire('a:CS', 'GP17'), add('l', 'led-red-5mm'), wire('l:A', 'GP17'));
    expect(codesAfter(lamp, sheets)).toContain('pin-shared');
    expect(codesAfter(lamp, sheets)).not.toContain('select-shared');
  });
});

describe('data-out-held', () => {
  const holder = [...sheets.parts.values()].map((p) => p.sheet).filter((p) => p.bus.kind === 'spi' && p.bus.releasesDataOut === false);
  const line = (part: string, role: string) => sheets.parts.get(part)!.sheet.terminals.list.find((t) => t.role === role)?.id;
  const wired = (id: string, part: string, select: string): Edit[] =>
    (
      [
        ['spi.sck', 'GP18'],
        ['spi.mosi', 'GP19'],
        ['spi.miso', 'GP16'],
        ['spi.cs', select],
      ] as const
    ).flatMap(([role, pin]) => {
      const terminal = line(part, role);
      return terminal ? [wire(`${id}:${terminal}`, pin)] : [];
    });
  const held = holder.find((p) => line(p.id, 'spi.miso'))!;
  const both = edited(
    stick(),
    sheets,
    add('h', held.id, 'Holder'),
    add('b', 'adc-mcp3008', 'Inputs'),
    ...wired('h', held.id, 'GP17'),
    ...wired('b', 'adc-mcp3008', 'GP20'),
  );

  test('a part that keeps driving keeps others from being read; a bus of its own helps', () => {
    expectCheck('data-out-held', both, sheets, [
      {
        message: 'held',
        level: 'clash',
        title: 'Holder keeps driving MISO when deselected',
        remedies: expect.arrayContaining([expect.stringMatching(/^Move Holder to /)]) as readonly string[],
      },
    ]);
  });

  test('alone on its line, or beside one that is only written, it does no harm', () => {
    const alone = edited(both, sheets, { kind: 'unwire', placement: 'b', terminal: line('adc-mcp3008', 'spi.miso')! });
    expect(codesAfter(alone, sheets)).not.toContain('data-out-held');
  });
});

describe('looks-like-i2c', () => {
  const digits = edited(
    stick(),
    sheets,
    add('s', 'oled-096-ssd1306-i2c', 'Screen'),
    wire('s:SDA', 'GP4'),
    wire('s:SCL', 'GP5'),
    add('d', 'digits-4-tm1637', 'Digits'),
    wire('d:DIO', 'GP4'),
    wire('d:CLK', 'GP5'),
  );

  test('a part with two lines of its own on an I2C bus is told as that, once, and both lines get pins of their own', () => {
    expectCheck('looks-like-i2c', digits, sheets, [
      {
        message: 'taken',
        level: 'clash',
        title: 'Digits is not an I2C device',
        remedies: [expect.stringMatching(/^Move Digits to dedicated pins: /) as string],
      },
    ]);
    expect(codesAfter(digits, sheets)).not.toContain('pin-shared');
    const apart = remedied('looks-like-i2c', digits, sheets);
    expect(codesAfter(apart, sheets)).not.toContain('looks-like-i2c');
    expect(apart.wires['d:DIO']!.end).not.toEqual(apart.wires['d:CLK']!.end);
  });
});

describe('address-impossible', () => {
  const sensors = (n: number) =>
    edited(
      stick(),
      sheets,
      ...Array.from({ length: n }, (_, at) => [
        add(`s${at}`, 'humidity-sht31', `Air ${at + 1}`),
        wire(`s${at}:SDA`, 'GP4'),
        wire(`s${at}:SCL`, 'GP5'),
      ]).flat(),
    );

  test('three sensors with two addresses: no straps part them, said once; one on its own bus leaves two that can be', () => {
    const plan = sensors(3);
    expectCheck('address-impossible', plan, sheets, [
      {
        message: 'none',
        level: 'clash',
        title: 'No combination of address straps separates 3 I2C devices',
        remedies: [expect.stringMatching(/^Move Air 3 to I2C1/) as string],
      },
    ]);
    expect(codesAfter(plan, sheets)).not.toContain('address-shared');
    const after = remedied('address-impossible', plan, sheets);
    expect(codesAfter(after, sheets)).not.toContain('address-impossible');
    expect(codesAfter(after, sheets)).toContain('address-shared');
  });

  test('two with two addresses can be parted, and are an ordinary clash', () => {
    expect(codesAfter(sensors(2), sheets)).not.toContain('address-impossible');
    expect(codesAfter(sensors(2), sheets)).toContain('address-shared');
  });

  test('a locked strap takes its address away', () => {
    const strap = sheets.parts.get('humidity-sht31')!.sheet.bus.straps![0]!;
    expect(strap.by).toBe('terminal');
    const terminal = strap.terminal ?? strap.id;
    const locked = [0, 1].flatMap((at): Edit[] => [
      wire(`s${at}:${terminal}`, 'ground'),
      { kind: 'lock', placement: `s${at}`, terminal, locked: true },
    ]);
    expect(codesAfter(edited(sensors(2), sheets, ...locked), sheets)).toContain('address-impossible');
  });
});

describe('adc-unavailable', () => {
  const knob = sheets.parts.get('potentiometer')!.sheet.terminals.list.find((t) => t.role === 'adc.in')!.id;
  const blocked = sheets.boards.get('esp32-stick-38')!.ioPins.find((p) => p.adc?.unit === 'adc2' && p.grade === 'free')!.id;
  const plan = edited(on('esp32-stick-38'), sheets, add('k', 'potentiometer', 'Knob'), wire(`k:${knob}`, blocked));

  test('an input of the unit that the radio uses; it moves to the other unit, or the radio stays off', () => {
    expectCheck('adc-unavailable', plan, sheets, [
      {
        message: 'radio',
        level: 'clash',
        title: expect.stringMatching(/^Knob \S+: analog input unavailable while the radio is on$/) as string,
        remedies: [expect.stringMatching(/^Move Knob/) as string, 'Mark the radio as not used'],
      },
    ]);
    expect(codesAfter(plan, sheets, { kind: 'radio', on: false })).not.toContain('adc-unavailable');
    const moved = remedied('adc-unavailable', plan, sheets).wires[`k:${knob}`]!.end as { pin: string };
    expect(sheets.boards.get('esp32-stick-38')!.pins.get(moved.pin)!.adc!.unit).toBe('adc1');
  });

  test('settling never uses them with the radio, and does without it', () => {
    const knobs = (radio: boolean, n: number) => ({
      ...edited(on('esp32-stick-38'), sheets, ...Array.from({ length: n }, (_, at) => add(`k${at}`, 'potentiometer'))),
      radio,
    });
    const units = (p: Plan) =>
      Object.values(p.wires).flatMap(({ end }) =>
        end.to === 'pin' ? [sheets.boards.get('esp32-stick-38')!.pins.get(end.pin)!.adc!.unit] : [],
      );
    const usable = sheets.boards.get('esp32-stick-38')!.ioPins.filter((p) => p.adc?.unit === 'adc1' && p.grade !== 'reserved').length;
    const withRadio = assignPins(knobs(true, usable + 1), sheets)!;
    expect([withRadio.costs.unwired, new Set(units(withRadio.plan))]).toEqual([1, new Set(['adc1'])]);
    expect(assignPins(knobs(false, usable + 1), sheets)!.costs.unwired).toBe(0);
  });
});

describe('address-shared behind a multiplexer', () => {
  const clock = (id: string, ...at: readonly [string, string]): Edit[] => [
    add(id, 'clock-ds3231-mini', `Clock ${id}`),
    wire(`${id}:SDA`, at[0]),
    wire(`${id}:SCL`, at[1]),
  ];
  const mux = [add('m', 'multiplexer-tca9548a', 'Switch'), wire('m:SDA', 'GP4'), wire('m:SCL', 'GP5')];
  const plan = (...clocks: readonly Edit[]) => edited(stick(), sheets, ...mux, ...clocks);
  const shared = (of: Plan) => codesAfter(of, sheets).includes('address-shared');

  test('on two channels they may be alike; on one channel, or with one before the multiplexer, they meet', () => {
    expect(shared(plan(...clock('a', 'm:SD0', 'm:SC0'), ...clock('b', 'm:SD1', 'm:SC1')))).toBe(false);
    expect(shared(plan(...clock('a', 'm:SD0', 'm:SC0'), ...clock('b', 'm:SD0', 'm:SC0')))).toBe(true);
    expect(shared(plan(...clock('a', 'm:SD0', 'm:SC0'), ...clock('b', 'GP4', 'GP5')))).toBe(true);
  });

  test('behind a multiplexer behind a multiplexer: with all that is open on the way, and with nobody beside it', () => {
    const inner = [add('n', 'multiplexer-tca9548a', 'Inner'), wire('n:SDA', 'm:SD0'), wire('n:SCL', 'm:SC0'), wire('n:A0', 'rail 3v3')];
    const deep = clock('a', 'n:SD2', 'n:SC2');
    expect(shared(plan(...inner, ...deep))).toBe(false);
    expect(shared(plan(...inner, ...deep, ...clock('b', 'GP4', 'GP5')))).toBe(true);
    expect(shared(plan(...inner, ...deep, ...clock('b', 'm:SD0', 'm:SC0')))).toBe(true);
    expect(shared(plan(...inner, ...deep, ...clock('b', 'm:SD1', 'm:SC1')))).toBe(false);
    expect(shared(plan(...inner, ...deep, ...clock('b', 'n:SD3', 'n:SC3')))).toBe(false);
  });

  test('who is strapped away goes where nobody answers, behind any channel either', () => {
    const motion = (id: string, at: readonly [string, string], ...more: readonly Edit[]): Edit[] => [
      add(id, 'motion-mpu6050', `Motion ${id}`),
      wire(`${id}:SDA`, at[0]),
      wire(`${id}:SCL`, at[1]),
      ...more,
    ];
    const low = motion('a', ['m:SD0', 'm:SC0'], wire('a:AD0', 'ground'));
    const high = motion('b', ['m:SD1', 'm:SC1'], wire('b:AD0', 'rail 3v3'));
    const met = plan(...low, ...high, ...motion('c', ['GP4', 'GP5'], wire('c:AD0', 'ground')));
    const labels = findingsOf(met, sheets)
      .filter((f) => f.code === 'address-shared')
      .flatMap((f) => f.remedies.map((r) => describeFix(met, sheets, f.code, r)));
    // 0x69 is taken behind the other channel for the one before it, but not for the one on its own channel.
    expect(labels.filter((label) => label.startsWith('Tie'))).toEqual([expect.stringMatching(/^Tie Motion a AD0 to .* \(address 0x69\)$/)]);
  });
});
