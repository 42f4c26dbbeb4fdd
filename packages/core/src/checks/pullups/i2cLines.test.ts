import fc from 'fast-check';
import { shippedSheets } from '../../../tests/catalogue';
import { codesAfter, expectCheck, findingsOf, remedied } from '../../../tests/checkHarness';
import { member, plan, pullUpCodes, said } from '../../../tests/i2cPlans';
import { add, edited, shield, stick, wire } from '../../../tests/makePlan';
import { runs } from '../../../tests/runs';
import { behindShifter } from '../../assign/behindShifter';
import { sinkOf } from '../../electrics/reports/busInputs';
import type { Edit } from '../../plan/edit';
import { type BusSettings, newPlan } from '../../plan/plan';
import { reviewPlan } from '../../review/review';
import { describeFinding } from '../../text/describe';

const sheets = shippedSheets();
const settings = (of: BusSettings | null, segment = 'i2c0'): Edit => ({ kind: 'bus-settings', segment, settings: of });

describe('pullup-too-strong', () => {
  const many = plan(...Array.from({ length: 6 }, (_, at) => member(`e${at}`, 'oled-096-ssd1306-i2c', `Drive ${at}`)).flat());

  test('the sum of the currents is told, and the fewest cut that help; the cut ones no longer pull', () => {
    expect(said('pullup-too-strong', many)[0]).toMatch(
      /^Worst-case sink current [\d.]+ mA; (Drive 0 is specified for 3 mA at 400 mV\. VOL reaches [\d.]+ m?V, limit [\d.]+ m?V\.$|the board is specified)/,
    );
    const after = remedied('pullup-too-strong', many, sheets);
    expect(after.placements.filter((p) => p.pullUpsCut).length).toBeGreaterThan(0);
    expect(said('pullup-too-strong', after)).toEqual([]);
  });

  test('both sides of a level shifter sink one current: it is told once', () => {
    const own = member('l', 'lcd-2004-pcf8574', 'Text', 'vbus');
    const screens = Array.from({ length: 4 }, (_, at) => member(`s${at}`, 'oled-096-ssd1306-i2c', `Screen ${at}`)).flat();
    const before = plan(...own, ...screens);
    const across = behindShifter({ plan: before, sheets, board: sheets.boards.get('rp2040-stick-40')! }, ['l'], 'i2c')!;
    expect(said('pullup-too-strong', edited(before, sheets, ...across.edits))).toHaveLength(1);
  });

  test('what the builder added too much is taken away', () => {
    const added = plan(...member('a', 'oled-096-ssd1306-i2c'), settings({ addedOhms: 680 }));
    expectCheck('pullup-too-strong', added, sheets, [
      { message: 'strong', level: 'risk', title: 'I2C0: pull-ups too strong', remedies: ['Remove the added pull-ups'] },
    ]);
  });

  test('an accepted finding stays accepted while parts come: its place is the bus', () => {
    const [found] = findingsOf(many, sheets).filter((f) => f.code === 'pullup-too-strong');
    const accepted = edited(
      many,
      sheets,
      { kind: 'accept', finding: found!.id, reason: 'short wires' },
      ...member('z', 'oled-096-ssd1306-i2c'),
    );
    expect(findingsOf(accepted, sheets).find((f) => f.code === 'pullup-too-strong')!.accepted).toBe('short wires');
  });
});

describe('pullup-too-weak and the clock', () => {
  const one = plan(...member('a', 'humidity-sht31', 'Air'));

  test('a clock that nobody set is what the rise allows; one that is set is held against it', () => {
    expect(codesAfter(one, sheets)).toEqual([]);
    const set = edited(one, sheets, settings({ hz: 400_000 }));
    expect(said('pullup-too-weak', set)[0]).toMatch(/^Worst-case rise time [\d.]+ ns, limit 300 ns\.$/);
    expectCheck('pullup-too-weak', set, sheets, [
      {
        message: 'weak',
        level: 'risk',
        title: 'I2C0: pull-ups too weak for 400 kHz',
        remedies: [expect.stringMatching(/^Add [\d.]+ kΩ pull-ups to each line$/) as string, 'Set the bus clock to 100 kHz'],
      },
    ]);
  });

  test('with 5 V, 400 pF and 400 kHz the window is empty, and it says so with both ends', () => {
    const full = edited(
      shield(),
      sheets,
      add('a', 'lcd-2004-pcf8574', 'Text'),
      wire('a:SDA', 'A4'),
      wire('a:SCL', 'A5'),
      wire('a:VCC', 'rail 5v'),
      settings({ picofarads: 400, hz: 400_000 }),
    );
    // 885 Ω at most by hand: 300 ns / (0.8473 · 400 pF).
    expect(said('pullup-too-weak', full)[0]).toMatch(/at least 1\.\d+ kΩ, the rise time at most 885 Ω\.$/);
  });

  test('values come from those on hand: none that helps, none offered', () => {
    const set = edited(one, sheets, settings({ hz: 400_000 }));
    const onHand = (own: readonly number[]): Edit => ({ kind: 'values-on-hand', valuesOnHand: { series: 'own', own } });
    const offered = (own: readonly number[]) =>
      findingsOf(edited(set, sheets, onHand(own)), sheets)
        .find((f) => f.code === 'pullup-too-weak')!
        .remedies.map((r) => r.label);
    expect([offered([5100, 47]), offered([47])]).toEqual([['add', 'slower'], ['slower']]);
  });
});

describe('pullup-missing', () => {
  test('a bus without any: one is named, and with it all is well', () => {
    const bare = plan(...member('x', 'expander-mcp23017', 'Ports'));
    expectCheck('pullup-missing', bare, sheets, [
      {
        message: 'bus',
        level: 'clash',
        title: 'I2C0: no pull-up resistors',
        remedies: [expect.stringMatching(/^Add [\d.]+ kΩ pull-ups to each line$/) as string],
      },
    ]);
    expect(said('pullup-missing', remedied('pullup-missing', bare, sheets))).toEqual([]);
  });

  test('where the board’s supply is too much for a part, it gets a level shifter and no resistor', () => {
    const alone = edited(
      shield(),
      sheets,
      add('s', 'touch-cst816s', 'Touch'),
      wire('s:SDA', 'A4'),
      wire('s:SCL', 'A5'),
      wire('s:VCC', 'rail 3v3'),
      wire('s:GND', 'ground'),
    );
    expectCheck('pullup-missing', alone, sheets, [
      {
        message: 'bus',
        level: 'clash',
        title: 'I2C: no pull-up resistors',
        remedies: ['Connect Touch through a level shifter (Level shifter, 4 channels, MOSFET, both ways)'],
      },
    ]);
    expect(pullUpCodes(remedied('pullup-missing', alone, sheets))).toEqual([]);
  });

  test('a 1-Wire line needs one resistor for all; a module brings it, unless it is cut', () => {
    const probe = (id: string, sheet: string): Edit[] => [add(id, sheet, id), wire(`${id}:DQ`, 'GP2')];
    const line = plan(...probe('a', 'temperature-ds18b20'), ...probe('b', 'temperature-ds18b20-probe'));
    expectCheck('pullup-missing', line, sheets, [
      { message: 'one-wire', level: 'clash', title: 'GP2: no pull-up resistor', remedies: ['Add 4.7 kΩ from a DQ to the supply'] },
    ]);
    expect(remedied('pullup-missing', line, sheets).pulls).toEqual({ 'a:DQ': { ohms: 4700, to: 'supply' } });
    const module = edited(line, sheets, ...probe('m', 'temperature-ds18b20-module'));
    expect(said('pullup-missing', module)).toEqual([]);
    expect(said('pullup-missing', edited(module, sheets, { kind: 'cut-pull-ups', placement: 'm', cut: true }))).toHaveLength(1);
  });
});

describe('capacitance, clock, time, enabling', () => {
  const screens = plan(...member('a', 'oled-096-ssd1306-i2c', 'Screen'), ...member('l', 'lcd-2004-pcf8574', 'Text'));

  test('more than 400 pF on a line, measured or estimated', () => {
    expect(said('capacitance-over', edited(screens, sheets, settings({ picofarads: 401 })))).toEqual(['Measured value.']);
    expect(said('capacitance-over', edited(screens, sheets, settings({ wireCm: 400 })))).toEqual([
      'Estimated from inputs, wire length and connections.',
    ]);
    expect(said('capacitance-over', screens)).toEqual([]);
  });

  test('a clock faster than somebody follows', () => {
    const fast = edited(screens, sheets, settings({ hz: 400_000 }));
    expectCheck('bus-too-fast', fast, sheets, [
      {
        message: 'one',
        level: 'risk',
        title: 'I2C0: 400 kHz exceeds the maximum of Text',
        remedies: ['Set the bus clock to 100 kHz', 'Move Text to I2C1 (GP6 and GP7)'],
      },
    ]);
    expect(said('bus-too-fast', remedied('bus-too-fast', fast, sheets))).toEqual([]);
  });

  test('too much for a second, and what a bus of its own or asking less often gives', () => {
    const often = edited(screens, sheets, { kind: 'rate', placement: 'a', perSecond: 20 });
    expectCheck('bus-overloaded', often, sheets, [
      {
        message: 'over',
        level: 'risk',
        title: expect.stringMatching(/^I2C0 overloaded: 2\d\d % utilisation$/) as string,
        remedies: [expect.stringMatching(/^Read Screen \d\.?\d* times per second$/) as string, 'Move Screen to I2C1 (GP6 and GP7)'],
      },
    ]);
    expectCheck('bus-mixed-modes', often, sheets, [
      { message: 'held', level: 'hint', title: 'Text limits I2C0 to 100 kHz', remedies: ['Move Text to I2C1 (GP6 and GP7)'] },
    ]);
    // With so much capacitance the lines would not rise for more, and nothing is lost by the slow part.
    expect(said('bus-mixed-modes', edited(often, sheets, settings({ picofarads: 390 })))).toEqual([]);
    expect(said('bus-mixed-modes', often)[0]).toMatch(
      /^The other devices support 400 kHz\. Bus load 2\d\d %; without this device 5\d %\.$/,
    );
  });

  test('a bus that is asked for little too much has its remedies, too', () => {
    // 10 496 bits a picture at 100 kHz: 45 % for the first, 42 % for each of the others.
    const rates = { a: 4.3, b: 4, c: 4 };
    const three = plan(
      ...Object.keys(rates).flatMap((id) => member(id, 'oled-096-ssd1306-i2c', id)),
      ...Object.entries(rates).map(([placement, perSecond]): Edit => ({ kind: 'rate', placement, perSecond })),
      settings({ hz: 100_000 }),
    );
    const [found] = findingsOf(three, sheets).filter((f) => f.code === 'bus-overloaded');
    expect([found!.level, found!.remedies.map((r) => r.label)]).toEqual(['risk', ['less-often', 'own-bus']]);
    expect(said('bus-overloaded', edited(three, sheets, ...found!.remedies[0]!.edits))).toEqual([
      expect.stringContaining('little bandwidth is left'),
    ]);
  });

  test('a board with a system says what must be switched on, and it can be accepted', () => {
    const linux = edited(
      { ...stick(), board: { id: 'bcm2711-sbc-40', version: 1 } },
      sheets,
      add('s', 'oled-096-ssd1306-i2c'),
      wire('s:SDA', 'GPIO2'),
      wire('s:SCL', 'GPIO3'),
    );
    const [hint] = findingsOf(linux, sheets).filter((f) => f.code === 'bus-not-enabled');
    expect([hint!.level, said('bus-not-enabled', linux)[0]]).toEqual(['hint', expect.stringContaining('dtparam=i2c_arm=on')]);
  });
});

test('any settings of a bus, however absurd, give findings and numbers and never a crash', () => {
  const parts = ['oled-096-ssd1306-i2c', 'lcd-2004-pcf8574', 'humidity-sht31', 'multiplexer-tca9548a', 'expander-mcp23017'];
  const value = (values: readonly number[]) => fc.option(fc.constantFrom(...values), { nil: undefined });
  fc.assert(
    fc.property(
      fc.subarray(parts),
      fc.record({ hz: value([1, 1e5, 5e6]), addedOhms: value([100, 1e6]), wireCm: value([0, 1e4]), picofarads: value([1, 1e5]) }),
      fc.boolean(),
      (ids, given, high) => {
        const own = Object.fromEntries(Object.entries(given).filter(([, v]) => v !== undefined)) as BusSettings;
        const made = plan(
          ...ids.flatMap((id, at) => member(`p${at}`, id, `p${at}`, high ? 'vbus' : '3v3')),
          settings(Object.keys(own).length > 0 ? own : null),
        );
        const result = reviewPlan(made, sheets);
        expect(result.ok).toBe(true);
        for (const finding of findingsOf(made, sheets))
          expect(JSON.stringify(describeFinding(made, sheets, finding))).not.toMatch(/NaN|Infinity|undefined/);
      },
    ),
    { numRuns: runs(60) },
  );
});

test('112 addresses taken: a bus that is full is reviewed like any other', () => {
  const full = plan(...Array.from({ length: 112 }, (_, at) => member(`p${at}`, 'expander-pcf8574', `P${at}`)).flat());
  const result = reviewPlan(full, sheets);
  const codes = new Set(result.ok ? result.review.findings.map((f) => f.code) : []);
  expect([codes.has('address-impossible') || codes.has('address-shared'), codes.has('capacitance-over')]).toEqual([true, true]);
});

test('two channels of one multiplexer are two places: what is done about one leaves the other’s finding', () => {
  const behind = (id: string, channel: number) => [wire(`${id}:SDA`, `mux:SD${channel}`), wire(`${id}:SCL`, `mux:SC${channel}`)];
  const plan = edited(
    shield(),
    sheets,
    add('mux', 'multiplexer-tca9548a', 'Mux'),
    add('a', 'pressure-bmp280', 'First'),
    add('b', 'pressure-bmp280', 'Second'),
    add('c', 'clock-ds1307', 'First clock'),
    add('d', 'clock-ds1307', 'Second clock'),
    wire('mux:SDA', 'A4'),
    wire('mux:SCL', 'A5'),
    wire('mux:VCC', 'rail 5v'),
    ...behind('a', 0),
    ...behind('c', 0),
    ...behind('b', 1),
    ...behind('d', 1),
    wire('a:VCC', 'rail 3v3'),
    wire('b:VCC', 'rail 3v3'),
    wire('c:VCC', 'rail 5v'),
    wire('d:VCC', 'rail 5v'),
  );
  const found = findingsOf(plan, sheets).filter((f) => f.code === 'pullup-wrong-rail');
  expect(found.map((f) => f.id.split('|').at(-1))).toEqual(['channel-0', 'channel-1']);
});

describe('sinking is judged by the resistance of the output', () => {
  const screen = (board: string, pins: readonly [string, string], part = 'oled-096-ssd1306-i2c') =>
    edited(
      newPlan('p', 'P', { id: board, version: 1 }),
      sheets,
      add('x', part, 'Screen'),
      wire('x:SDA', pins[0]),
      wire('x:SCL', pins[1]),
      wire('x:VCC', 'rail 3v3'),
      wire('x:GND', 'ground'),
    );

  test('a level below the one asked lets more through, one without noise margin counts with less, a limit is a limit', () => {
    const at = (volts: number, atMilliamps: number, most?: number) => sinkOf('x', { volts, atMilliamps }, 3.3, most);
    expect(at(0.4, 3)).toEqual({ id: 'x', volts: 0.4, amps: 0.003 });
    expect(at(0.14, 2)).toMatchObject({ volts: 0.4, amps: expect.closeTo(0.00571, 5) });
    expect(at(0.66, 3)).toMatchObject({ volts: expect.closeTo(0.66, 9), amps: expect.closeTo(0.003, 9) });
    expect(at(0.9, 20)).toMatchObject({ volts: expect.closeTo(0.66, 9), amps: expect.closeTo(0.01467, 5) });
    expect(at(0.14, 2, 4e-3).amps).toBe(4e-3);
  });

  test('a module on the pins of the BCM2711 that have 1.8 kΩ is well', () => {
    expect(pullUpCodes(screen('bcm2711-sbc-40', ['GPIO2', 'GPIO3']))).toEqual([]);
  });

  test('where a stronger setting of the pins is all that lacks, it is named as a note', () => {
    const plan = screen('nrf52840-stamp-14', ['D4', 'D5'], 'compass-hmc5883l');
    const [finding] = findingsOf(plan, sheets).filter((f) => f.code === 'pullup-too-strong');
    expect([finding?.level, finding?.message]).toEqual(['hint', 'strength']);
    expect(describeFinding(plan, sheets, finding!).title).toContain('high drive');
  });
});
