import { shippedSheets } from '../../../tests/catalogue';
import { expectCheck, findingsOf } from '../../../tests/checkHarness';
import { add, edited, shield, stick, wire } from '../../../tests/makePlan';
import { refeed } from '../../assign/fit/railFit';
import { strapEdits } from '../../assign/addresses/strapEdits';
import { boardOf, type Edit } from '../../plan/edit';
import type { Plan } from '../../plan/plan';

const sheets = shippedSheets();
const power = (id: string, rail = '3v3'): Edit[] => [wire(`${id}:GND`, 'ground'), wire(`${id}:VCC`, `rail ${rail}`)];

describe('supply-wrong', () => {
  const register = (supply: string, clear: string): Edit[] => [
    add('x', 'shift-out-74hc595'),
    wire('x:VCC', supply),
    wire('x:SRCLR', clear),
  ];
  const about = (plan: Plan) =>
    findingsOf(plan, sheets)
      .filter((f) => f.code === 'supply-wrong')
      .map((f) => [f.message, f.level, f.remedies.length]);

  test.each<[string, Edit[], (string | number)[][]]>([
    ['5 V on a 3.6 V part', [add('x', 'sd-card-3v3'), wire('x:VCC', 'rail vbus')], [['too-high', 'clash', 1]]],
    ['3.3 V on a 5 V part', [add('x', 'lcd-2004-pcf8574'), wire('x:VCC', 'rail 3v3')], [['too-low', 'clash', 1]]],
    ['a rail that may sag below the range', [add('x', 'lcd-2004-pcf8574'), wire('x:VCC', 'rail vsys')], [['sags-low', 'risk', 1]]],
    ['pull-ups above the logic supply', [add('x', 'encoder-rotary-switch'), wire('x:VCC', 'rail vbus')], [['not-logic', 'clash', 1]]],
    ['a supply on ground', [add('x', 'sd-card-3v3'), wire('x:VCC', 'ground')], [['supply-on-ground', 'clash', 1]]],
    ['a supply on a pin', [add('x', 'sd-card-3v3'), wire('x:VCC', 'GP2')], [['fed-from-pin', 'risk', 1]]],
    ['a ground on a rail', [add('x', 'sd-card-3v3'), wire('x:GND', 'rail 3v3')], [['ground-on-rail', 'clash', 1]]],
    ['a ground on a pin', [add('x', 'sd-card-3v3'), wire('x:GND', 'GP2')], [['ground-on-pin', 'clash', 1]]],
    ['a strap above what it takes', [add('x', 'motion-mpu6050'), wire('x:AD0', 'rail vbus')], [['strap-too-high', 'clash', 1]]],
    ['a signal tied to a rail', [add('x', 'load-cell-hx711'), wire('x:DT', 'rail 3v3')], [['signal-on-rail', 'clash', 1]]],
    ['a mode that must stay low', [add('x', 'orientation-bno055'), wire('x:PS0', 'rail 3v3')], [['signal-on-rail', 'clash', 1]]],
    ['an input above its part’s supply', register('rail 3v3', 'rail vbus'), [['tied-too-high', 'clash', 1]]],
    ['an input below what is high at its part’s supply', register('rail vbus', 'rail 3v3'), [['tied-too-low', 'risk', 1]]],
    ['an input at its part’s supply, wherever that is', register('rail vbus', 'rail vbus'), []],
    ['a part that lives on its signal line', [add('x', 'temperature-ds18b20'), wire('x:VCC', 'ground')], [['fed-by-signal', 'risk', 1]]],
    ['a supply output at ground', [add('x', 'light-tsl2591'), wire('x:3Vo', 'ground')], [['output-on-ground', 'clash', 1]]],
    ['a supply output at a rail', [add('x', 'light-tsl2591'), wire('x:3Vo', 'rail 3v3')], [['output-on-rail', 'risk', 1]]],
    ['a supply output at a pin', [add('x', 'light-tsl2591'), wire('x:3Vo', 'GP2')], [['output-on-pin', 'risk', 1]]],
    ['all as it should be', [add('x', 'sd-card-3v3'), ...power('x')], []],
  ])('%s', (_, edits, expected) => {
    expect(about(edited(stick(), sheets, ...edits))).toEqual(expected);
  });

  test('what is tied to a part’s supply follows it to another rail; a strap above what it takes does not', () => {
    const high = edited(shield(), sheets, add('x', 'shift-out-74hc595'), wire('x:VCC', 'rail vin'), wire('x:SRCLR', 'rail vin'));
    const [remedy] = findingsOf(high, sheets).find((f) => f.code === 'supply-wrong')!.remedies;
    expect(about(edited(high, sheets, ...remedy!.edits))).toEqual([]);
    const mux = edited(stick(), sheets, add('x', 'multiplexer-tca9548a'), ...power('x', 'vbus'));
    const { sheet } = sheets.parts.get('multiplexer-tca9548a')!;
    const a0 = sheet.bus.straps!.find((s) => s.terminal === 'A0' || s.id === 'A0')!;
    const high0 = { [a0.id]: a0.states.find((s) => s.tie === 'supply')!.id };
    const strapped = strapEdits({ plan: mux, board: boardOf(mux, sheets)! }, { placement: mux.placements[0]!, part: sheet }, high0)!;
    expect(strapped).toEqual([wire('x:A0', 'rail vbus')]);
    expect(
      refeed(
        edited(mux, sheets, ...strapped),
        { placement: mux.placements[0]!, part: sheet },
        'VCC',
        boardOf(mux, sheets)!.sheet.rails.list[0]!,
      ),
    ).toEqual([wire('x:VCC', 'rail 3v3'), wire('x:A0', 'rail 3v3')]);
    const motion = edited(stick(), sheets, add('x', 'motion-mpu6050'), ...power('x', 'vbus'));
    const part = sheets.parts.get('motion-mpu6050')!.sheet;
    const ad0 = part.bus.straps![0]!;
    const up = { [ad0.id]: ad0.states.find((s) => s.tie === 'supply')!.id };
    expect(strapEdits({ plan: motion, board: boardOf(motion, sheets)! }, { placement: motion.placements[0]!, part }, up)).toEqual([
      wire('x:AD0', 'rail 3v3'),
    ]);
  });

  test('a mode that must not be high is tied low again; what a part makes is taken off', () => {
    const plan = edited(stick(), sheets, add('x', 'orientation-bno055', 'Compass'), wire('x:PS0', 'rail 3v3'), wire('x:3Vo', 'ground'));
    expectCheck('supply-wrong', plan, sheets, [
      {
        message: 'output-on-ground',
        level: 'clash',
        title: 'Compass 3Vo: supply output shorted to ground',
        remedies: ['Disconnect Compass 3Vo'],
      },
      {
        message: 'signal-on-rail',
        level: 'clash',
        title: 'Compass PS0: signal connected to 3V3',
        remedies: ['Connect Compass PS0 to GND'],
      },
    ]);
  });

  test('what a terminal hangs on is found through other terminals', () => {
    const plan = edited(
      stick(),
      sheets,
      add('a', 'humidity-sht31'),
      add('c', 'sd-card-3v3'),
      wire('a:VCC', 'rail vbus'),
      wire('c:VCC', 'a:VCC'),
    );
    expect(about(plan)).toEqual([['too-high', 'clash', 1]]);
  });
});

describe('terminals that are left open', () => {
  const lcd = edited(shield(), sheets, add('t', 'lcd-1602-parallel', 'Text'), wire('t:VDD', 'rail 5v'), wire('t:VSS', 'ground'));
  const told = (plan: Plan, code: string) =>
    findingsOf(plan, sheets)
      .filter((f) => f.code === code)
      .map((f) => [f.level, f.message, f.remedies.length]);

  test('a backlight without one of its ends is a warning, without both a note, each with its fix', () => {
    expect(told(lcd, 'terminal-needs-tie')).toEqual([
      ['hint', 'open', 1],
      ['hint', 'open', 1],
    ]);
    const half = edited(lcd, sheets, wire('t:A', 'rail 5v'));
    expect(told(half, 'terminal-needs-tie')).toEqual([['risk', 'half', 1]]);
    const [fix] = findingsOf(half, sheets).find((f) => f.code === 'terminal-needs-tie')!.remedies;
    expect(told(edited(half, sheets, ...fix!.edits), 'terminal-needs-tie')).toEqual([]);
  });

  test('without contrast or light nothing is to be seen: that is an error', () => {
    expect(findingsOf(lcd, sheets).find((f) => f.code === 'terminal-unwired')!.place.terminals).toContain('t:V0');
    const tft = edited(stick(), sheets, add('d', 'tft-28-ili9341-spi', 'Picture'));
    expect(findingsOf(tft, sheets).find((f) => f.code === 'terminal-unwired')!.place.terminals).toContain('d:LED');
  });
});
