import { logicVolts } from '../../electrics/reports/busInputs';
import fc from 'fast-check';
import { shippedSheets } from '../../../tests/catalogue';
import { codesAfter, expectCheck, findingsOf, remedied } from '../../../tests/checkHarness';
import { add, edited, shield, stick, wire } from '../../../tests/makePlan';
import { runs } from '../../../tests/runs';
import { baseAmps, digitAmps, ledReports, loadsOf, togetherAmps } from '../../electrics/reports/ledReport';
import { driverAmps } from '../../electrics/formulas/currentSet';
import { setDriversOf } from '../../electrics/reports/setDrivers';
import { railReports } from '../../electrics/reports/railReport';
import { planComponents } from '../../electrics/reports/components';
import { assignPins } from '../../assign/assignPins';
import { applyEdits } from '../../plan/applyEdits';
import { boardOf, type Edit } from '../../plan/edit';
import { newPlan, type Plan } from '../../plan/plan';
import { valuesWithin } from '../../quantity/series';
import { additionOf } from '../../review/addition';
import { isAmong } from '../power/portCurrentOver';

const sheets = shippedSheets();
const series = (placement: string, terminal: string, ohms: number): Edit => ({ kind: 'series', placement, terminal, ohms });
const lamp = (plan: Plan, sheet = 'led-red-5mm') => edited(plan, sheets, add('l', sheet, 'Lamp'), wire('l:K', 'ground'));
const red = edited(lamp(stick()), sheets, wire('l:A', 'GP2'));

describe('a lamp at a pin', () => {
  test('without a resistor is a clash, with the next value up as its remedy', () => {
    expectCheck('led-no-resistor', red, sheets, [
      { message: 'none', level: 'clash', title: 'Lamp: no series resistor', remedies: ['Add 180 Ω in 1 wire'] },
    ]);
    // (3.3 V − 2 V) / 5 mA less half of what the pin may drop: 170 Ω is 0.68 V at 4 mA.
    const [one] = ledReports(red, sheets);
    expect(one!.exactOhms).toBeCloseTo(1.3 / 5e-3 - 0.68 / 4e-3 / 2, 9);
    const own = edited(red, sheets, { kind: 'values-on-hand', valuesOnHand: { series: 'own', own: [100, 1000] } });
    expect(remedied('led-no-resistor', own, sheets).series).toEqual({ 'l:A': 1000 });
    expect(
      findingsOf(edited(red, sheets, { kind: 'values-on-hand', valuesOnHand: { series: 'own', own: [100] } }), sheets)[0]!.remedies,
    ).toEqual([]);
  });

  test('a resistor at the cathode limits the current as one at the anode does, also for another LED at the same cathode', () => {
    const atCathode = edited(red, sheets, series('l', 'K', 220));
    expectCheck('led-no-resistor', atCathode, sheets, []);
    const [there] = ledReports(atCathode, sheets);
    const [here] = ledReports(edited(red, sheets, series('l', 'A', 220)), sheets);
    expect([there!.amps, there!.ohms, there!.resistorAt]).toEqual([here!.amps, 220, 'l:K']);
    // One on either side: their sum counts.
    const [both] = ledReports(edited(atCathode, sheets, series('l', 'A', 100)), sheets);
    expect(both!.amps.typ).toBeCloseTo(1.3 / (320 + both!.driveOhms.typ! - 220), 9);
    expect(both!.driveOhms.typ! - there!.driveOhms.typ!).toBeCloseTo(220, 9);
    const joined = edited(atCathode, sheets, add('m', 'led-red-5mm'), wire('m:A', 'GP3'), wire('m:K', 'l:K'));
    expect(ledReports(joined, sheets).map(({ ohms, resistorAt }) => [ohms, resistorAt])).toEqual([
      [220, 'l:K'],
      [220, 'l:K'],
    ]);
  });

  test('with one that is too small is over its limit, and the pin over its own', () => {
    const strong = edited(red, sheets, series('l', 'A', 47));
    expectCheck('led-over-current', strong, sheets, [
      { message: 'over', level: 'risk', title: 'LED over-current: Lamp up to 38.1 mA, maximum 20 mA', remedies: ['Add 180 Ω in 1 wire'] },
    ]);
    expectCheck('drive-over', strong, sheets, [
      { message: 'over', level: 'risk', title: 'GP2: 38.1 mA exceeds the pin’s 12 mA', remedies: ['Add 180 Ω in 1 wire'] },
    ]);
    expect((3.4 - 1.7) / (47 * 0.95)).toBeCloseTo(38.07e-3, 4);
  });

  test('that wants more than the supply has may stay dark; a board of 5 V lights it', () => {
    const blue = edited(lamp(stick(), 'led-blue-5mm'), sheets, wire('l:A', 'GP2'), series('l', 'A', 330));
    expect(codesAfter(blue, sheets)).toContain('led-dim');
    const bright = edited(lamp(shield(), 'led-blue-5mm'), sheets, wire('l:A', 'D2'), series('l', 'A', 330));
    expect(codesAfter(bright, sheets)).not.toContain('led-dim');
    // 3.4 V at most of a pin at 3.3 V and no resistor to speak of: at 3.2 V and 3.4 V of forward voltage nothing flows.
    const bare = edited(lamp(stick(), 'led-blue-5mm'), sheets, wire('l:A', 'GP2'), series('l', 'A', 33));
    expectCheck('led-dim', bare, sheets, [
      {
        message: expect.stringMatching(/^(dim|worst)$/) as string,
        level: 'hint',
        title: expect.stringMatching(/may (not light|be dim)/) as string,
        remedies: [],
      },
    ]);
  });

  test('one in series with another adds its forward voltage; where that is too much both go side by side', () => {
    const two = edited(shield(), sheets, add('a', 'led-red-5mm', 'One'), add('b', 'led-red-5mm', 'Two'), wire('a:A', 'D2'));
    const inSeries = edited(two, sheets, wire('b:A', 'a:K'), wire('b:K', 'ground'));
    for (const plan of [inSeries, edited(two, sheets, wire('a:K', 'b:A'), wire('b:K', 'ground'))]) {
      const [string, ...more] = ledReports(plan, sheets);
      expect([string!.anodes, string!.forwardVolts, more]).toEqual([['a:A', 'b:A'], { min: 3.4, typ: 4, max: 4.8 }, []]);
      expect(string!.exactOhms).toBeCloseTo(Math.max((5 - 4) / 5e-3 - 0.8 / 20e-3 / 2, 0), 9);
      expectCheck('led-no-resistor', plan, sheets, [
        { message: 'none', level: 'clash', title: 'One and Two: no series resistor', remedies: ['Add 180 Ω in 1 wire'] },
      ]);
    }
    // One resistor, wherever it is in the string; what others there are counts as well.
    const between = ledReports(edited(inSeries, sheets, series('b', 'A', 220)), sheets)[0]!;
    expect([between.resistorAt, between.ohms]).toEqual(['b:A', 220]);
    const both = ledReports(edited(inSeries, sheets, series('a', 'A', 100), series('b', 'A', 120)), sheets)[0]!;
    expect([both.resistorAt, both.ohms, both.amps.typ]).toEqual(['a:A', 100, between.amps.typ]);
    const dark = edited(lamp(stick()), sheets, add('m', 'led-red-5mm', 'More'), wire('l:A', 'GP2'), series('l', 'A', 180));
    const string = edited(dark, sheets, wire('l:K', 'm:A'), wire('m:K', 'ground'));
    expectCheck('led-dim', string, sheets, [
      {
        message: 'dark',
        level: 'clash',
        title: 'Lamp and More will not light: supply 3.3 V, forward voltage 4 V',
        remedies: ['Connect More anode to GP2, each LED with its own resistor'],
      },
    ]);
    expect(codesAfter(remedied('led-dim', string, sheets), sheets)).toEqual([]);
  });

  test('several at one output have a resistor each; one for all is told, by forward voltage', () => {
    const two = (kind: string) => edited(red, sheets, series('l', 'A', 330), add('m', `led-${kind}-5mm`, 'More'), wire('m:K', 'ground'));
    const each = edited(two('red'), sheets, wire('m:A', 'GP2'), series('m', 'A', 330));
    expect([codesAfter(each, sheets), ledReports(each, sheets).map((one) => one.fitOhms)]).toEqual([[], [330, 330]]);
    const strong = edited(each, sheets, series('l', 'A', 180), series('m', 'A', 180));
    expectCheck('drive-over', strong, sheets, [
      { message: 'over', level: 'risk', title: 'GP2: 19.9 mA exceeds the pin’s 12 mA', remedies: ['Add 330 Ω in 2 wires'] },
    ]);
    for (const [kind, message, level] of [
      ['red', 'uneven', 'risk'],
      ['blue', 'dark', 'clash'],
    ] as const) {
      const shared = edited(two(kind), sheets, wire('m:A', 'l:A'));
      const [found] = findingsOf(shared, sheets).filter((f) => f.code !== 'led-dim');
      expect([found!.code, found!.message, found!.level]).toEqual(['led-shared-resistor', message, level]);
      const apart = remedied('led-shared-resistor', shared, sheets);
      expect([apart.wires['m:A']!.end, apart.series['m:A'] !== undefined]).toEqual([{ to: 'pin', pin: 'GP2' }, true]);
    }
    // Both at one pin are one signal for assigning, too: they stay, or move together.
    expect(assignPins(each, sheets)!.edits).toEqual([]);
    const met = edited(each, sheets, add('k', 'button-push', 'Key'), wire('k:C1', 'GP2'), wire('k:C2', 'ground'), {
      kind: 'lock',
      placement: 'k',
      terminal: 'C1',
      locked: true,
    });
    const apart = assignPins(met, sheets)!.plan.wires;
    expect(apart['m:A']!.end).toEqual(apart['l:A']!.end);
    expect(apart['m:A']!.end).not.toEqual({ to: 'pin', pin: 'GP2' });
    // Wires in a circle share nothing.
    expect(codesAfter(edited(two('red'), sheets, wire('m:A', 'l:A'), wire('l:A', 'm:A')), sheets)).not.toContain('led-shared-resistor');
    // Two behind the cathode of a third: the fix goes to the pin that drives it.
    const branched = edited(
      two('red'),
      sheets,
      add('n', 'led-red-5mm', 'Third'),
      wire('n:K', 'ground'),
      wire('m:A', 'l:K'),
      wire('n:A', 'l:K'),
    );
    expect(codesAfter(edited(branched, sheets, { kind: 'unwire', placement: 'l', terminal: 'K' }), sheets)).toContain(
      'led-shared-resistor',
    );
  });

  test('one that is added with its wires has its resistor', () => {
    const addition = additionOf(stick(), sheets, sheets.parts.get('led-red-5mm')!.sheet)!;
    expect([Object.values(addition.plan.series), addition.added]).toEqual([[180], []]);
  });
});

describe('digits that are lit in turn', () => {
  const segments = ['a', 'b', 'c', 'd', 'e', 'f', 'g', 'dp'];
  const digits = (kind: 'ca' | 'cc') =>
    edited(
      stick(),
      sheets,
      add('d', `seven-segment-4-${kind}`, 'Score'),
      ...segments.map((t, at) => wire(`d:${t}`, `GP${2 + at}`)),
      ...[1, 2, 3, 4].map((n) => wire(`d:DIG${n}`, `GP${15 + n}`)),
      ...segments.map((t) => series('d', t, 220)),
    );

  test('need transistors of the right kind, whose base the pin can drive', () => {
    for (const [kind, right, wrong] of [
      ['ca', 'pnp', 'npn'],
      ['cc', 'npn', 'pnp'],
    ] as const) {
      const plan = digits(kind);
      const carried = digitAmps(plan, sheets, 'd');
      expect(carried).toBeCloseTo(
        ledReports(plan, sheets).reduce((sum, one) => sum + one.amps.max, 0),
        12,
      );
      const driven = remedied('digit-driver-missing', plan, sheets);
      const drivers = Object.values(driven.drivers);
      expect(drivers.map((d) => d.kind)).toEqual([right, right, right, right]);
      const base = baseAmps(logicVolts(boardOf(plan, sheets)!).max, drivers[0]!);
      // Enough to switch it on for certain, at most what the pin gives.
      expect([base >= carried / 20, base <= 12e-3]).toEqual([true, true]);
      const crossed = edited(driven, sheets, { kind: 'driver', placement: 'd', terminal: 'DIG1', driver: { kind: wrong, ohms: 1000 } });
      const found = findingsOf(crossed, sheets).find((f) => f.code === 'polarity-mismatch')!;
      expect([found.level, found.message]).toEqual(['clash', kind === 'ca' ? 'anode' : 'cathode']);
      expect(remedied('polarity-mismatch', crossed, sheets).drivers['d:DIG1']!.kind).toBe(right);
    }
  });

  test('flicker when their rounds are few', () => {
    const slow = edited(digits('cc'), sheets, { kind: 'rate', placement: 'd', perSecond: 50 });
    expectCheck('refresh-low', slow, sheets, [
      {
        message: 'flickers',
        level: 'hint',
        title: 'Score: refresh rate 50 Hz, flicker below 70 Hz',
        remedies: ['Set the refresh rate to 100 Hz'],
      },
    ]);
  });

  test('a shift register carries no more than its package', () => {
    const outputs = ['QA', 'QB', 'QC', 'QD', 'QE', 'QF', 'QG', 'QH'];
    const plan = edited(
      digits('ca'),
      sheets,
      add('r', 'shift-out-74hc595', 'Register'),
      wire('r:VCC', 'rail 3v3'),
      ...segments.map((t, at) => wire(`d:${t}`, `r:${outputs[at]}`)),
      ...segments.map((t) => series('d', t, 100)),
    );
    const found = findingsOf(plan, sheets).find((f) => f.code === 'package-current-over')!;
    const sum = loadsOf(plan, sheets)
      .filter((load) => load.driver.by === 'part')
      .reduce((all, load) => all + load.amps, 0);
    expect([found.message, found.data['amps'], found.data['limit']]).toMatchObject(['all', { value: sum }, { value: 0.07 }]);
    expect(sum).toBeCloseTo((8 * (3.4 - 1.8)) / 95, 9);
    expect(codesAfter(remedied('package-current-over', plan, sheets), sheets)).not.toContain('package-current-over');
  });
});

test('a driver of many segments wants the resistor that sets their current: the next value up from its table', () => {
  const plan = edited(stick(), sheets, add('d', 'driver-max7219-dip24', 'Driver'));
  expectCheck('led-no-resistor', plan, sheets, [
    { message: 'set', level: 'clash', title: 'Driver: no current-setting resistor at ISET', remedies: ['Add 33 kΩ at ISET'] },
  ]);
  const set = remedied('led-no-resistor', plan, sheets);
  expect(set.series).toEqual({ 'd:ISET': 33_000 });
  const [driver] = setDriversOf(set, sheets);
  // One current in every view: the chip's 8 mA and eight segments, as its datasheet adds them up (330 mA at 40 mA).
  expect(driver!.totalAmps!.max).toBeCloseTo(8e-3 + 8 * driver!.amps!.max, 12);
  expect(driverAmps({ segments: 8, ownMilliamps: 8 }, { min: 0.04, max: 0.04 }).max).toBeCloseTo(0.328, 12);
  const fed = edited(set, sheets, wire('d:VCC', 'rail vbus'));
  expect(railReports(fed, sheets).flatMap(({ lines }) => lines.filter((line) => line.placement === 'd'))).toMatchObject([
    { typicalMilliamps: driver!.totalAmps!.typ! * 1000, peakMilliamps: driver!.totalAmps!.max * 1000 },
  ]);
  const at = (terminal: string) => ({ at: { to: 'terminal', placement: 'd', terminal } });
  expect(planComponents(set, sheets)).toEqual([
    { id: 'd:series.ISET', role: 'series', name: 'R1', kind: 'resistor', value: 33_000, key: 'd:ISET', ends: [at('ISET'), at('VCC')] },
  ]);
  // Between 20 mA (28 kΩ) and 10 mA (63.7 kΩ), and never above 20 mA with a resistor of 5 %.
  expect([driver!.amps!.min > 0.01, driver!.amps!.max < 0.02]).toEqual([true, true]);
  expect(additionOf(stick(), sheets, sheets.parts.get('driver-max7219-dip24')!.sheet)!.added.map((f) => f.code)).not.toContain(
    'led-no-resistor',
  );
});

test('a load that a pin cannot carry gets a transistor', () => {
  const plan = edited(stick(), sheets, add('b', 'buzzer-active', 'Buzzer'), wire('b:PLUS', 'GP2'), wire('b:GND', 'ground'));
  expectCheck('drive-over', plan, sheets, [
    {
      message: 'over',
      level: 'clash',
      title: 'GP2: 30 mA exceeds the pin’s 12 mA',
      remedies: ['Add a transistor (NPN transistor, 820 Ω)'],
    },
  ]);
  expect(remedied('drive-over', plan, sheets).drivers).toEqual({ 'b:PLUS': { kind: 'npn', ohms: 820 } });
});

test('many lamps are more than all pins together carry', () => {
  const pins = ['GP2', 'GP3', 'GP4', 'GP5', 'GP6', 'GP7', 'GP8'];
  const many = pins.reduce(
    (plan, pin, at) =>
      edited(plan, sheets, add(`l${at}`, 'led-red-5mm'), wire(`l${at}:K`, 'ground'), wire(`l${at}:A`, pin), series(`l${at}`, 'A', 180)),
    stick(),
  );
  const told = findingsOf(many, sheets).find((f) => f.code === 'port-current-over')!;
  expect([told.message, told.data['limit']]).toMatchObject(['chip', { value: 0.05 }]);
  expect([
    isAmong('PD3', 'PB0-PB5, PD0-PD4'),
    isAmong('PD5', 'PB0-PB5, PD0-PD4'),
    isAmong('ADC6', 'PC0-PC5, ADC6'),
    isAmong('PC10', 'PC0-PC5'),
  ]).toEqual([true, false, true, false]);
});

test('on any board the value that fits is from the values on hand, the worst case encloses the nominal, and no limit is passed', () => {
  const ids = [...sheets.parts.values()].filter(({ sheet }) => sheet.terminals.list.some((t) => t.led)).map(({ sheet }) => sheet.id);
  fc.assert(
    fc.property(
      fc.constantFrom(...sheets.boards.keys()),
      fc.constantFrom(...ids),
      fc.constantFrom('E3' as const, 'E12' as const, 'E96' as const),
      (board, id, kind) => {
        const empty = {
          ...newPlan('p', 'P', { id: board, version: sheets.boards.get(board)!.sheet.version }),
          valuesOnHand: { series: kind },
        };
        const addition = additionOf(empty, sheets, sheets.parts.get(id)!.sheet);
        if (!addition) return;
        const values = valuesWithin({ series: kind }, 10, 1e6);
        for (const one of ledReports(addition.plan, sheets)) {
          expect(values).toContain(one.ohms);
          expect(one.amps.min <= one.amps.typ! && one.amps.typ! <= one.amps.max).toBe(true);
          expect(one.amps.max).toBeLessThanOrEqual(one.maxAmps * (1 + 1e-9));
        }
        const codes = addition.added.map((f) => f.code);
        expect(
          codes.filter((code) => ['led-no-resistor', 'led-over-current', 'drive-over', 'package-current-over'].includes(code)),
        ).toEqual([]);
      },
    ),
    { numRuns: runs(80) },
  );
});

describe('what is multiplexed takes turns', () => {
  const board = 'stm32f103-stick-40';
  const digits = newPlan('p', 'P', { id: board, version: 1 });
  const added = applyEdits(digits, additionOf(digits, sheets, sheets.parts.get('seven-segment-4-ca')!.sheet)!.edits, sheets);
  if (!added.ok) throw new Error('no digits');
  const { plan } = added;

  test('segments of one digit and its common line count once, whatever the number of digits', () => {
    const loads = loadsOf(plan, sheets);
    const segments = loads.filter((load) => load.turn === undefined);
    const commons = loads.filter((load) => load.turn !== undefined);
    expect([segments.length, commons.length]).toEqual([8, 4]);
    const all = segments.reduce((sum, load) => sum + load.amps, 0);
    expect(togetherAmps(loads).peak).toBeCloseTo(all + Math.max(...commons.map((load) => load.amps)), 9);
    // On average every common line is on for a quarter of the time.
    expect(togetherAmps(commons).mean).toBeCloseTo(commons[0]!.amps, 9);
    expect(togetherAmps([]).peak).toBe(0);
  });

  test('too much for the chip is mended by larger resistors, at every corner', () => {
    const finding = findingsOf(plan, sheets).find((f) => f.code === 'port-current-over');
    expect(finding?.message).toBe('chip');
    const after = edited(plan, sheets, ...finding!.remedies[0]!.edits);
    expect(togetherAmps(loadsOf(after, sheets)).peak).toBeLessThanOrEqual(0.15);
    expect(findingsOf(after, sheets).map((f) => f.code)).not.toContain('port-current-over');
  });
});
