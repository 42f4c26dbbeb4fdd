import fc from 'fast-check';
import { shippedSheets } from '../../../tests/catalogue';
import { expectCheck, findingsOf, remedied } from '../../../tests/checkHarness';
import { add, edited, shield, stick, wire } from '../../../tests/makePlan';
import { cases, runs } from '../../../tests/runs';
import { levelPairs } from '../../electrics/reports/levels';
import type { Edit } from '../../plan/edit';
import { boardOf } from '../../plan/edit';
import { newPlan, type Plan } from '../../plan/plan';
import { additionOf } from '../../review/addition';
import { policeRemedies } from '../../review/policeRemedies';
import { contextOf } from '../../review/review';
import { translateAll } from '../fixes/levelTranslation';

const sheets = shippedSheets();
const power = (id: string, rail: string): Edit[] => [wire(`${id}:GND`, 'ground'), wire(`${id}:VCC`, `rail ${rail}`)];
const codes = (plan: Plan) => findingsOf(plan, sheets).map((f) => f.code);
const modules = (plan: Plan) => plan.placements.filter((p) => p.id.startsWith('helper')).map((p) => p.sheet.id);
const bad = (plan: Plan) => levelPairs(plan, sheets).filter((p) => p.verdict === 'damage' || p.verdict === 'none');

const echo = edited(
  stick(),
  sheets,
  add('d', 'distance-ultrasonic-5v', 'Echo'),
  ...power('d', 'vbus'),
  wire('d:TRIG', 'GP2'),
  wire('d:ECHO', 'GP3'),
);

describe('5 V out of a part', () => {
  test('damages a pin of 3.3 V: two resistors or a shifter', () => {
    expectCheck('level-damage', echo, sheets, [
      {
        message: 'to-board',
        level: 'clash',
        title: 'Board input ECHO: up to 5.25 V from Echo, maximum 3.7 V',
        remedies: ['Add a voltage divider at ECHO', 'Level-shift 1 line with Level shifter, 4 channels, MOSFET, both ways'],
      },
    ]);
  });

  test('the two resistors are from the values on hand, and leave a high that is one at every corner and never too much', () => {
    const plan = remedied('level-damage', echo, sheets);
    const [top, bottom] = [plan.series['d:ECHO']!, plan.pulls['d:ECHO']!];
    expect(bottom.to).toBe('ground');
    const out = (volts: number, sign: 1 | -1) =>
      (volts * bottom.ohms * (1 + sign * 0.05)) / (bottom.ohms * (1 + sign * 0.05) + top * (1 - sign * 0.05));
    const pair = levelPairs(plan, sheets).find((p) => p.key === 'd:ECHO' && p.way === 'to-board')!;
    expect(pair.mostVolts).toBeCloseTo(out(5.25, 1), 9);
    expect([pair.verdict, out(5.25, 1) < 3.5, out(4.5, -1) > 2]).toEqual(['good', true, true]);
    const own = edited(echo, sheets, { kind: 'values-on-hand', valuesOnHand: { series: 'own', own: [1000, 2000, 5600] } });
    const from = remedied('level-damage', own, sheets);
    expect([from.series['d:ECHO'], from.pulls['d:ECHO']!.ohms].every((ohms) => [1000, 2000, 5600].includes(ohms!))).toBe(true);
    const none = edited(echo, sheets, { kind: 'values-on-hand', valuesOnHand: { series: 'own', own: [330] } });
    expect(
      findingsOf(none, sheets)
        .find((f) => f.code === 'level-damage')!
        .remedies.map((r) => r.label),
    ).toEqual(['shift']);
  });

  test('nothing is said of it on a board of 5 V', () => {
    const same = edited(
      shield(),
      sheets,
      add('d', 'distance-ultrasonic-5v'),
      ...power('d', '5v'),
      wire('d:TRIG', 'D2'),
      wire('d:ECHO', 'D3'),
    );
    expect(codes(same).filter((code) => code.startsWith('level'))).toEqual([]);
  });
});

describe('3.3 V into a part of 5 V', () => {
  const register = edited(
    stick(),
    sheets,
    add('r', 'shift-out-74hc595', 'Register'),
    ...power('r', 'vbus'),
    ...['SER', 'SRCLK', 'RCLK'].map((t, at) => wire(`r:${t}`, `GP${2 + at}`)),
  );

  test('has no margin: the lower supply where the part takes it, else a buffer', () => {
    expectCheck('level-no-margin', register, sheets, [
      {
        message: 'high-to-part',
        level: 'risk',
        title: 'High level too low for Register: VOH 3.18 V, VIH 3.67 V',
        remedies: ['Power Register from 3V3', 'Level-shift 3 lines with Buffer up to 5 V, 4 channels, 74AHCT125'],
      },
    ]);
    expect(bad(remedied('level-no-margin', register, sheets))).toEqual([]);
  });

  test('lines of several parts on one pin share a channel, also one that is there already', () => {
    const matrix = (id: string, cs: string) => [
      add(id, 'matrix-8x8-max7219', id),
      ...power(id, 'vbus'),
      wire(`${id}:DIN`, 'GP19'),
      wire(`${id}:CLK`, 'GP18'),
      wire(`${id}:CS`, cs),
    ];
    const two = edited(stick(), sheets, ...matrix('a', 'GP17').flat(), ...matrix('b', 'GP20').flat());
    const across = remedied('level-no-margin', two, sheets);
    // Clock, data and both selects: four channels for five lines and more of two parts.
    expect(modules(across)).toEqual(['buffer-74ahct125']);
    expect(across.wires['a:CLK']!.end).toEqual(across.wires['b:CLK']!.end);
    const one = remedied('level-no-margin', edited(stick(), sheets, ...matrix('a', 'GP17').flat()), sheets);
    const joined = remedied('level-no-margin', edited(one, sheets, ...matrix('b', 'GP20').flat()), sheets);
    expect([modules(joined), bad(joined)]).toEqual([['buffer-74ahct125'], []]);
  });
});

describe('a level shifter', () => {
  const strip = (through: Edit[]) =>
    edited(
      stick(),
      sheets,
      add('s', 'strip-ws2812b', 'Strip'),
      ...power('s', 'vbus'),
      ...through,
      wire('s:DIN', 'x:HV1'),
      wire('x:LV1', 'GP2'),
    );
  const mosfet = [add('x', 'shifter-mosfet-4', 'Shifter'), wire('x:LV', 'rail 3v3'), wire('x:HV', 'rail vbus'), wire('x:GND', 'ground')];

  test('that is too slow for lights is told, and the lights go through a buffer instead', () => {
    expectCheck('shifter-too-slow', strip(mosfet), sheets, [
      {
        message: 'cannot',
        level: 'clash',
        title: 'Shifter is too slow for Strip: 400 kHz, required 800 kHz',
        remedies: ['Use Buffer up to 5 V, 4 channels, 74AHCT125 for these lines'],
      },
    ]);
    expect(modules(remedied('shifter-too-slow', strip(mosfet), sheets))).toEqual(['buffer-74ahct125']);
  });

  test('that holds a display down is a hint', () => {
    const plan = edited(
      stick(),
      sheets,
      add('m', 'matrix-8x8-max7219', 'Matrix'),
      ...power('m', 'vbus'),
      ...mosfet,
      ...['DIN', 'CLK', 'CS'].flatMap((t, at) => [wire(`m:${t}`, `x:HV${at + 1}`), wire(`x:LV${at + 1}`, `GP${[19, 18, 17][at]}`)]),
    );
    expectCheck('shifter-too-slow', plan, sheets, [
      {
        message: 'holds',
        level: 'hint',
        title: 'Shifter limits Matrix to 400 kHz',
        remedies: ['Use Buffer up to 5 V, 4 channels, 74AHCT125 for these lines'],
      },
    ]);
  });

  test('that drives one way takes no line of the other, nor one of both ways', () => {
    const buffer = [add('x', 'buffer-74ahct125', 'Buffer'), wire('x:VCC', 'rail vbus'), wire('x:GND', 'ground')];
    const out = edited(echo, sheets, ...buffer, wire('d:ECHO', 'x:Y1'), wire('x:A1', 'GP3'));
    expectCheck('shifter-direction', out, sheets, [
      {
        message: 'against',
        level: 'clash',
        title: 'Buffer: wrong direction for Echo ECHO',
        remedies: ['Use Level shifter, 4 channels, MOSFET, both ways for these lines'],
      },
    ]);
    const trigger = edited(echo, sheets, ...buffer, wire('d:TRIG', 'x:Y1'), wire('x:A1', 'GP2'));
    expect(codes(trigger)).not.toContain('shifter-direction');
  });

  test('fed the wrong way round is told, and its supplies are exchanged', () => {
    const plan = strip([add('x', 'shifter-mosfet-4', 'Shifter'), wire('x:LV', 'rail vbus'), wire('x:HV', 'rail 3v3')]);
    expectCheck('shifter-direction', plan, sheets, [
      {
        message: 'backwards',
        level: 'clash',
        title: 'Shifter: supplies exchanged (LV has the higher voltage)',
        remedies: ['Exchange the two supplies'],
      },
    ]);
    const after = remedied('shifter-direction', plan, sheets);
    expect(codes(after)).not.toContain('shifter-direction');
    expect([after.wires['x:LV']!.end, after.wires['x:HV']!.end]).toEqual([plan.wires['x:HV']!.end, plan.wires['x:LV']!.end]);
  });

  test.each(['LV', 'HV'])('a supply that is locked is not exchanged: %s', (terminal) => {
    const plan = strip([add('x', 'shifter-mosfet-4', 'Shifter'), wire('x:LV', 'rail vbus'), wire('x:HV', 'rail 3v3')]);
    const locked = edited(plan, sheets, { kind: 'lock', placement: 'x', terminal, locked: true });
    const [found] = findingsOf(locked, sheets).filter((f) => f.code === 'shifter-direction');
    expect(found!.remedies).toEqual([]);
  });

  test('that finds the direction by itself is unsuitable for I2C', () => {
    const plan = edited(
      stick(),
      sheets,
      add('l', 'lcd-1602-pcf8574', 'Text'),
      ...power('l', 'vbus'),
      add('x', 'shifter-txs0108e', 'Translator'),
      wire('x:VA', 'rail 3v3'),
      wire('x:VB', 'rail vbus'),
      wire('l:SDA', 'x:B1'),
      wire('l:SCL', 'x:B2'),
      wire('x:A1', 'GP4'),
      wire('x:A2', 'GP5'),
    );
    expectCheck('shifter-unfit', plan, sheets, [
      {
        message: 'pulled',
        level: 'risk',
        title: 'Translator is unsuitable for Text SDA and Text SCL',
        remedies: ['Use Level shifter, 4 channels, MOSFET, both ways for these lines'],
      },
    ]);
    expect(modules(remedied('shifter-unfit', plan, sheets))).toEqual(['shifter-mosfet-4']);
  });
});

test('whatever parts are put across together, nothing: wrong direction for its direction, no level is bad, and every remedy keeps its word', () => {
  const ids = [...sheets.parts.values()].map((p) => p.sheet).filter((p) => p.supply && !p.levelShifter && p.bus.kind !== 'i2c');
  let packed = 0;
  fc.assert(
    fc.property(
      fc.constantFrom('rp2040-stick-40', 'esp32-stick-38', 'atmega328p-5v-shield'),
      fc.uniqueArray(fc.constantFrom(...ids.map((p) => p.id)), { minLength: 1, maxLength: 4 }),
      (board, parts) => {
        const plan = parts.reduce<Plan>(
          (now, id) => additionOf(now, sheets, sheets.parts.get(id)!.sheet)?.plan ?? now,
          newPlan('p', 'P', { id: board, version: sheets.boards.get(board)!.sheet.version }),
        );
        const across = translateAll(contextOf(plan, sheets)!);
        if (across) {
          packed += 1;
          const after = edited(plan, sheets, ...across.edits);
          expect(bad(after)).toEqual([]);
          expect(codes(after).filter((code) => code === 'shifter-direction')).toEqual([]);
          const used = across.modules.reduce((sum, module) => sum + module.used, 0);
          const room = across.modules.reduce((sum, module) => sum + module.part.levelShifter!.channels.length, 0);
          expect(used).toBeLessThanOrEqual(room);
        }
        const told = findingsOf(plan, sheets).filter((f) => /^(level|shifter)/.test(f.code));
        expect(policeRemedies(plan, sheets, told)).toEqual([]);
        expect(boardOf(plan, sheets)).toBeDefined();
      },
    ),
    { numRuns: runs(60) },
  );
  expect(packed).toBeGreaterThan(cases(4));
});
