import fc from 'fast-check';
import { shippedSheets } from '../../../tests/catalogue';
import { add, edited, shield, stick, wire } from '../../../tests/makePlan';
import { runs } from '../../../tests/runs';
import { behindShifter } from '../../assign/behindShifter';
import { assignPins } from '../../assign/assignPins';
import { boardOf } from '../../plan/edit';
import { newPlan, type Plan } from '../../plan/plan';
import { levelPairs } from './levels';

const sheets = shippedSheets();
const pairs = (plan: Plan) => levelPairs(plan, sheets);
const verdicts = (plan: Plan) => pairs(plan).map((p) => [p.key, p.way, p.verdict]);

test('3.3 V into a CMOS input at 5 V has no margin: it asks 0.7 of 5.25 V', () => {
  const strip = edited(stick(), sheets, add('s', 'strip-ws2812b'), wire('s:DIN', 'GP2'), wire('s:VCC', 'rail vbus'));
  const [pair] = pairs(strip);
  expect([pair!.verdict, pair!.crosses]).toEqual(['none', true]);
  expect(pair!.vihVolts).toBeCloseTo(0.7 * 5.25, 6);
  // At least 3.2 V, less what the output drops at a tenth of a milliampere.
  expect(pair!.highVolts).toBeGreaterThan(3.15);
  expect(pair!.marginHigh).toBeLessThan(-0.4);
  const low = edited(strip, sheets, wire('s:VCC', 'rail 3v3'));
  expect(verdicts(low)).toEqual([['s:DIN', 'to-part', 'good']]);
});

test('5 V out of a part into a pin of 3.3 V is damage; into one of 5 V it is good', () => {
  const echo = (plan: Plan, rail: string, pin: string) =>
    edited(plan, sheets, add('d', 'distance-ultrasonic-5v'), wire('d:ECHO', pin), wire('d:VCC', rail));
  const high = pairs(echo(stick(), 'rail vbus', 'GP2'))[0]!;
  expect([high.way, high.verdict]).toEqual(['to-board', 'damage']);
  expect(high.mostVolts - high.standsVolts).toBeCloseTo(-high.room, 9);
  expect(verdicts(echo(shield(), 'rail 5v', 'D2'))).toEqual([['d:ECHO', 'to-board', 'good']]);
});

describe('I2C', () => {
  const lcd = edited(
    stick(),
    sheets,
    add('l', 'lcd-2004-pcf8574', 'Text'),
    add('s', 'humidity-sht31', 'Air'),
    ...['l', 's'].flatMap((id) => [wire(`${id}:SDA`, 'GP4'), wire(`${id}:SCL`, 'GP5')]),
    wire('l:VCC', 'rail vbus'),
    wire('s:VCC', 'rail 3v3'),
    { kind: 'cut-pull-ups', placement: 'l', cut: true },
  );

  test('a line at 3.3 V is no high for a part at 5 V that asks 0.7 of it, while parts of one rail agree at every corner', () => {
    const all = pairs(lcd);
    expect(all.filter((p) => p.placement === 'l' && p.way === 'to-part').map((p) => p.verdict)).toEqual(['none', 'none']);
    expect(all.filter((p) => p.placement === 's').every((p) => p.verdict === 'good')).toBe(true);
  });

  test('pulled to 5 V by its own resistors the line is too high for the board; behind a level shifter all is good', () => {
    const high = edited(
      lcd,
      sheets,
      { kind: 'cut-pull-ups', placement: 'l', cut: false },
      { kind: 'cut-pull-ups', placement: 's', cut: true },
    );
    expect(
      pairs(high)
        .filter((p) => p.placement === 'l' && p.way === 'to-board')
        .map((p) => p.verdict),
    ).toEqual(['damage', 'damage']);
    const shifted = edited(high, sheets, ...behindShifter({ plan: high, sheets, board: boardOf(high, sheets)! }, ['l'], 'i2c')!.edits);
    const back = edited(shifted, sheets, { kind: 'cut-pull-ups', placement: 's', cut: false });
    expect(pairs(back).map((p) => p.verdict)).toEqual(['good', 'good', 'good', 'good', 'good', 'good']);
  });
});

test('a module with a shifter of its own is left to it; buttons and lamps have no levels', () => {
  const plan = edited(
    stick(),
    sheets,
    add('c', 'sd-card-5v-module'),
    wire('c:MOSI', 'GP19'),
    wire('c:VCC', 'rail vbus'),
    add('b', 'button-push'),
    wire('b:C1', 'GP2'),
    add('l', 'led-red-5mm'),
    wire('l:A', 'GP3'),
  );
  expect(pairs(plan)).toEqual([]);
});

test('on any board with any parts every number is one, and verdicts follow from them', () => {
  const ids = [...sheets.parts.keys()];
  fc.assert(
    fc.property(
      fc.constantFrom(...sheets.boards.keys()),
      fc.array(fc.constantFrom(...ids), { minLength: 1, maxLength: 6 }),
      (board, chosen) => {
        const plan = assignPins(
          edited(newPlan('plan-1', 'Test', { id: board, version: 1 }), sheets, ...chosen.map((id, at) => add(`p${at}`, id))),
          sheets,
          { nodes: 300 },
        )!.plan;
        for (const pair of pairs(plan)) {
          for (const value of [pair.highVolts, pair.mostVolts, pair.lowVolts, pair.vihVolts, pair.vilVolts, pair.standsVolts])
            expect(Number.isFinite(value)).toBe(true);
          expect(pair.marginHigh).toBeCloseTo(pair.highVolts - pair.vihVolts, 9);
          expect(pair.room).toBeCloseTo(pair.standsVolts - pair.mostVolts, 9);
          expect(pair.vihVolts).toBeGreaterThan(pair.vilVolts - 1e-9);
          expect(pair.verdict === 'damage').toBe(pair.room < -1e-9);
        }
      },
    ),
    { numRuns: runs(80) },
  );
});
