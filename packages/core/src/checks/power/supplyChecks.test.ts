import { shippedSheets } from '../../../tests/catalogue';
import { codesAfter, expectCheck, findingsOf, remedied } from '../../../tests/checkHarness';
import { add, edited, stick, wire } from '../../../tests/makePlan';
import { ledReports } from '../../electrics/reports/ledReport';
import { railReports, wantedCapacitors } from '../../electrics/reports/railReport';
import type { Edit } from '../../plan/edit';
import { newPlan, type Plan } from '../../plan/plan';
import { additionOf } from '../../review/addition';

const sheets = shippedSheets();
const power = (id: string, rail: string): Edit[] => [wire(`${id}:GND`, 'ground'), wire(`${id}:VCC`, `rail ${rail}`)];
const railOf = (plan: Plan, id: string) => railReports(plan, sheets).find((one) => one.rail.id === id)!;

/** Of an RP2040 stick on USB: 35 mA and 120 mA at 3.3 V, through a converter of 85 % fed with 4.7 V. */
const OWN = { typical: (35 * 3.3) / (4.7 * 0.85), peak: (120 * 3.3) / (4.7 * 0.85) };

const servos = edited(stick(), sheets, ...['a', 'b'].flatMap((id) => [add(id, 'servo-micro', `Servo ${id}`), ...power(id, 'vbus')]));

describe('the current of a rail', () => {
  test('is that of all its parts at their peaks, and over what it gives is told with who takes most', () => {
    expect(railOf(servos, 'vbus').typicalMilliamps).toBeCloseTo(300 + OWN.typical, 9);
    expect(railOf(servos, 'vbus').peakMilliamps).toBeCloseTo(1400 + OWN.peak, 9);
    expectCheck('supply-over', servos, sheets, [
      { message: 'peak', level: 'risk', title: 'VBUS overloaded: 1.5 A peak, limit 500 mA', remedies: [] },
    ]);
    const more = edited(servos, sheets, add('c', 'servo-micro'), ...power('c', 'vbus'), add('d', 'servo-micro'), ...power('d', 'vbus'));
    expect(findingsOf(more, sheets).find((f) => f.code === 'supply-over')).toMatchObject({ level: 'clash', message: 'average' });
  });

  test('counts what is on at once, never less than the average, and units by their number', () => {
    const quiet = edited(
      servos,
      sheets,
      { kind: 'load', placement: 'a', load: { share: 0.3 } },
      { kind: 'load', placement: 'b', load: { share: 0.1 } },
    );
    expect(railOf(quiet, 'vbus').peakMilliamps).toBeCloseTo(0.3 * 700 + 150 + OWN.peak, 9);
    expect(codesAfter(quiet, sheets)).not.toContain('supply-over');
    const strip = edited(stick(), sheets, add('s', 'strip-ws2812b'), ...power('s', 'vbus'), {
      kind: 'load',
      placement: 's',
      load: { units: 30, share: 0.5 },
    });
    expect(railOf(strip, 'vbus').typicalMilliamps).toBeCloseTo(600 + OWN.typical, 9);
    expect(railOf(strip, 'vbus').peakMilliamps).toBeCloseTo(900 + OWN.peak, 9);
  });

  test('a part that another rail can feed as well is offered to go there', () => {
    const full = edited(
      stick(),
      sheets,
      ...['a', 'b', 'c', 'd'].flatMap((id) => [add(id, 'oled-15-ssd1327-i2c', id), ...power(id, '3v3')]),
    );
    expect(railOf(full, '3v3').peakMilliamps).toBe(400);
    const found = findingsOf(full, sheets).find((f) => f.code === 'supply-over')!;
    expect(found.remedies.length).toBeGreaterThan(0);
    const eased = remedied('supply-over', full, sheets);
    expect(railOf(eased, '3v3').peakMilliamps).toBe(300);
    // The display at VBUS, and the three at 3V3 through the converter.
    expect(railOf(eased, 'vbus').peakMilliamps).toBeCloseTo(100 + (300 * 3.3) / (4.7 * 0.85) + OWN.peak, 9);
  });

  test('LEDs take from the rail of who drives them; what a regulator makes is taken from its input, too', () => {
    const board = newPlan('p', 'P', { id: 'esp32-stick-38', version: 1 });
    const lamp = additionOf(board, sheets, sheets.parts.get('led-red-5mm')!.sheet)!.plan;
    const [one] = ledReports(lamp, sheets);
    const [low, high] = [railOf(lamp, '3v3'), railOf(lamp, 'vbus')];
    expect(low.lines).toMatchObject([{ what: 'leds', placement: 'light-1' }]);
    expect(low.peakMilliamps).toBeCloseTo(one!.amps.max * 1000, 9);
    expect(high.lines).toMatchObject([{ what: 'rail', rail: '3v3' }]);
    // With the radio on: 100 mA, and 240 mA in bursts; the limit of 3V3 leaves it out, that of USB does not.
    expect(low.besides).toMatchObject({ typicalMilliamps: 100, peakMilliamps: 240 });
    expect(high.peakMilliamps).toBeCloseTo(low.peakMilliamps + 100, 9);
    const silent = railOf(edited(lamp, sheets, { kind: 'radio', on: false }), 'vbus');
    expect(silent.peakMilliamps).toBeCloseTo(low.peakMilliamps + 70, 9);
  });
});

test('a linear regulator turns its drop into heat, and is told where that is too hot', () => {
  const board = newPlan('p', 'P', { id: 'esp32-c3-stick-16', version: 1 });
  const hot = edited(board, sheets, ...['a', 'b', 'c', 'd'].flatMap((id) => [add(id, 'oled-15-ssd1351-spi', id), ...power(id, '3v3')]));
  const { regulator, typicalMilliamps } = railOf(hot, '3v3');
  // (5.25 V − 3.3 V) · I at 200 K/W, with the 90 mA of the chip and its radio.
  expect(regulator!.watts).toBeCloseTo((1.95 * (typicalMilliamps + 90)) / 1000, 9);
  expect(regulator!.kelvin).toBeCloseTo(regulator!.watts * 200, 9);
  expect(regulator!.kelvin).toBeGreaterThan(85);
  expect(codesAfter(hot, sheets)).toContain('regulator-hot');
});

test('a converter takes power, not current, and heats by its efficiency', () => {
  const plan = edited(stick(), sheets, ...['a', 'b'].flatMap((id) => [add(id, 'oled-15-ssd1327-i2c', id), ...power(id, '3v3')]));
  const { regulator, typicalMilliamps } = railOf(plan, '3v3');
  expect(regulator).toMatchObject({ kind: 'converter', dropVolts: 0, kelvin: undefined });
  expect(regulator!.watts).toBeCloseTo(3.3 * ((typicalMilliamps + 35) / 1000) * (1 / 0.85 - 1), 12);
  expect(railOf(plan, 'vbus').lines).toMatchObject([{ what: 'rail', rail: 'vsys' }]);
});

test('a part on an input of the board is counted there and where that is fed from', () => {
  const plan = edited(stick(), sheets, add('s', 'servo-micro', 'Servo'), ...power('s', 'vsys'));
  expect(railOf(plan, 'vsys').peakMilliamps).toBeCloseTo(700 + OWN.peak, 9);
  expect(railOf(plan, 'vbus').peakMilliamps).toBeCloseTo(700 + OWN.peak, 9);
});

test('an input of the board gives nothing by itself', () => {
  const plan = edited(stick(), sheets, add('s', 'servo-micro', 'Servo'), wire('s:GND', 'ground'), wire('s:VCC', 'rail vsys'));
  expect(codesAfter(plan, sheets)).toContain('supply-missing');
});

test('further grounds and capacitors are hints that one click mends, and come with a part that is added', () => {
  const bare = edited(stick(), sheets, add('r', 'radio-lora-sx1276', 'Radio'), wire('r:VCC', 'rail 3v3'), wire('r:GND', 'ground'));
  const codes = codesAfter(bare, sheets);
  expect(codes).toEqual(expect.arrayContaining(['ground-missing', 'decoupling-missing']));
  expect(codesAfter(remedied('ground-missing', bare, sheets), sheets)).not.toContain('ground-missing');
  expect(codesAfter(remedied('decoupling-missing', bare, sheets), sheets)).not.toContain('decoupling-missing');
  const added = additionOf(stick(), sheets, sheets.parts.get('radio-lora-sx1276')!.sheet)!;
  expect(added.added.map((f) => f.code)).not.toEqual(expect.arrayContaining(['ground-missing']));
  expect(wantedCapacitors(added.plan, sheets)).toMatchObject([{ there: true, list: [{ farads: 1e-5 }] }]);
});
