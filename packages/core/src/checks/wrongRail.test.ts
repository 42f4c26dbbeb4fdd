import { shippedSheets } from '../../tests/catalogue';
import { expectCheck, findingsOf, remedied } from '../../tests/checkHarness';
import { member, plan, pullUpCodes, said } from '../../tests/i2cPlans';
import { add, edited, shield, stick, wire } from '../../tests/makePlan';
import { pullFeed } from '../electrics/reports/busInputs';
import { segmentReports } from '../electrics/reports/segmentReport';
import { findBuses } from '../nets/buses';
import { segmentsOf } from '../nets/segments';
import { boardOf, type Edit } from '../plan/edit';
import { newPlan, type Plan } from '../plan/plan';
import { additionOf } from '../review/addition';

const sheets = shippedSheets();

const clocks = (count: number): Edit[] =>
  Array.from({ length: count }, (_, at) => member(`c${at}`, 'clock-ds1307', `Clock ${at}`, 'vbus')).flat();

describe('pullup-wrong-rail', () => {
  const mixed = plan(...member('s', 'oled-096-ssd1306-i2c', 'Screen'), ...member('l', 'lcd-2004-pcf8574', 'Text', 'vbus'));

  test('who pulls higher, where the lines rest, and both ways out of it', () => {
    expectCheck('pullup-wrong-rail', mixed, sheets, [
      {
        message: 'several',
        level: 'clash',
        title: expect.stringMatching(/^I2C0: idle level up to 4\.\d+ V, the board tolerates 3\.7 V$/) as string,
        remedies: ['Remove the pull-ups of Text', 'Connect Text through a level shifter (Level shifter, 4 channels, MOSFET, both ways)'],
      },
    ]);
    expect(pullUpCodes(remedied('pullup-wrong-rail', mixed, sheets))).toEqual([]);
  });

  test('behind the shifter it may pull as it likes: the bus is whole and its two sides are looked at by themselves', () => {
    const shift = findingsOf(mixed, sheets).find((f) => f.code === 'pullup-wrong-rail')!.remedies[1]!;
    const after = edited(mixed, sheets, ...shift.edits);
    expect(pullUpCodes(after)).toEqual([]);
    expect(segmentsOf(after, sheets, findBuses(after, sheets)[0]!).map((s) => s.members.map((m) => m.name))).toEqual([
      ['Screen'],
      ['Text'],
    ]);
  });

  test.each(['SDA', 'SCL'])('a resistor of the builder on %s goes to the supply that everybody takes', (terminal) => {
    const one = edited(
      mixed,
      sheets,
      { kind: 'cut-pull-ups', placement: 'l', cut: true },
      { kind: 'pull', placement: 'l', terminal, pull: { ohms: 2200, to: 'supply' } },
    );
    expect(pullFeed(one, sheets, `l:${terminal}`)?.rail).toBe('3v3');
    expect(pullUpCodes(one)).not.toContain('pullup-wrong-rail');
  });

  test('pull-ups with a supply terminal of their own go where that does', () => {
    const letters = (rail: string) =>
      edited(
        plan(...member('s', 'oled-096-ssd1306-i2c', 'Screen'), add('w', 'seg14-4-ht16k33', 'Words')),
        sheets,
        ...[wire('w:SDA', 'GP4'), wire('w:SCL', 'GP5'), wire('w:VIN', 'rail vbus'), wire('w:GND', 'ground')],
        wire('w:VI2C', `rail ${rail}`),
      );
    expect([said('pullup-wrong-rail', letters('3v3')), said('pullup-wrong-rail', letters('vbus')).length]).toEqual([[], 1]);
    const addition = additionOf(stick(), sheets, sheets.parts.get('seg14-4-ht16k33')!.sheet)!;
    expect(Object.entries(addition.plan.wires).find(([key]) => key.endsWith(':VI2C'))![1].end).toEqual({ to: 'rail', rail: '3v3' });
  });

  test('where tolerant pins idle above their supply, the pull-up in the chip must be off and does not count', () => {
    const on = (rail: string) =>
      edited(
        newPlan('plan-1', 'Test', { id: 'stm32f103-stick-40', version: 1 }),
        sheets,
        add('l', 'lcd-2004-pcf8574', 'Text'),
        ...[wire('l:SDA', 'B7'), wire('l:SCL', 'B6'), wire('l:VCC', `rail ${rail}`), wire('l:GND', 'ground')],
      );
    const lineOf = (of: Plan) => {
      const board = boardOf(of, sheets)!;
      return segmentReports(of, sheets, board, findBuses(of, sheets)[0]!)[0].input;
    };
    const [high, low] = [lineOf(on('5v')), lineOf(on('3v3'))];
    expect([high.internalOff, high.internal, low.internalOff, low.internal?.id]).toEqual([true, undefined, undefined, 'internal']);
  });

  test('on a board of 5 V it is the part of 3.3 V that must be kept apart; two clocks on 5 V pull a bus of 3.3 V together', () => {
    expect(said('pullup-wrong-rail', plan(...clocks(2)))[0]).toMatch(/Pulled up by Clock 0 and Clock 1\.$/);
    const alone = edited(
      shield(),
      sheets,
      add('l', 'lcd-2004-pcf8574'),
      wire('l:SDA', 'A4'),
      wire('l:SCL', 'A5'),
      wire('l:VCC', 'rail 5v'),
    );
    expect(said('pullup-wrong-rail', alone)).toEqual([]);
  });
});
