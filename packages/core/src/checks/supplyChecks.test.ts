import { shippedSheets } from '../../tests/catalogue';
import { codesAfter, expectCheck, findingsOf, remedied } from '../../tests/checkHarness';
import { add, edited, stick, wire } from '../../tests/makePlan';
import { lampsOf } from '../electrics/lamps';
import { supplySheets, wantedCapacitors } from '../electrics/supplySheet';
import type { Edit } from '../plan/edit';
import { newPlan, type Plan } from '../plan/plan';
import { additionOf } from '../review/addition';

const sheets = shippedSheets();
const power = (id: string, rail: string): Edit[] => [wire(`${id}:GND`, 'ground'), wire(`${id}:VCC`, `rail ${rail}`)];
const railOf = (plan: Plan, id: string) => supplySheets(plan, sheets).find((one) => one.rail.id === id)!;

const servos = edited(stick(), sheets, ...['a', 'b'].flatMap((id) => [add(id, 'servo-micro', `Servo ${id}`), ...power(id, 'vbus')]));

describe('the current of a rail', () => {
  test('is that of all its parts at their peaks, and over what it gives is told with who takes most', () => {
    expect(railOf(servos, 'vbus')).toMatchObject({ typicalMilliamps: 300, peakMilliamps: 1400 });
    expectCheck('supply-over', servos, sheets, [
      { message: 'peak', level: 'risk', title: 'VBUS has to give up to 1.4 A and can 500 mA', remedies: [] },
    ]);
    const more = edited(servos, sheets, add('c', 'servo-micro'), ...power('c', 'vbus'), add('d', 'servo-micro'), ...power('d', 'vbus'));
    expect(findingsOf(more, sheets).find((f) => f.code === 'supply-over')).toMatchObject({ level: 'risk', message: 'average' });
  });

  test('counts what is on at once, never less than the average, and units by their number', () => {
    const quiet = edited(
      servos,
      sheets,
      { kind: 'load', placement: 'a', load: { share: 0.3 } },
      { kind: 'load', placement: 'b', load: { share: 0.1 } },
    );
    expect(railOf(quiet, 'vbus').peakMilliamps).toBeCloseTo(0.3 * 700 + 150, 9);
    expect(codesAfter(quiet, sheets)).not.toContain('supply-over');
    const strip = edited(stick(), sheets, add('s', 'strip-ws2812b'), ...power('s', 'vbus'), {
      kind: 'load',
      placement: 's',
      load: { units: 30, share: 0.5 },
    });
    expect(railOf(strip, 'vbus')).toMatchObject({ typicalMilliamps: 600, peakMilliamps: 900 });
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
    expect([railOf(eased, '3v3').peakMilliamps, railOf(eased, 'vbus').peakMilliamps]).toEqual([300, 100]);
  });

  test('LEDs take from the rail of who drives them; what a regulator makes is taken from its input, too', () => {
    const board = newPlan('p', 'P', { id: 'esp32-stick-38', version: 1 });
    const lamp = additionOf(board, sheets, sheets.parts.get('led-red-5mm')!.sheet)!.plan;
    const [one] = lampsOf(lamp, sheets);
    const [low, high] = [railOf(lamp, '3v3'), railOf(lamp, 'vbus')];
    expect(low.lines).toMatchObject([{ what: 'lamps', placement: 'light-1' }]);
    expect(low.peakMilliamps).toBeCloseTo(one!.amps.max * 1000, 9);
    expect(high.lines).toMatchObject([{ what: 'rail', rail: '3v3' }]);
    expect(high.peakMilliamps).toBeCloseTo(low.peakMilliamps, 9);
  });
});

test('a linear regulator turns its drop into heat, and is told where that is too hot', () => {
  const board = newPlan('p', 'P', { id: 'esp32-c3-stick-16', version: 1 });
  const hot = edited(board, sheets, ...['a', 'b', 'c', 'd'].flatMap((id) => [add(id, 'oled-15-ssd1351-spi', id), ...power(id, '3v3')]));
  const { regulator, typicalMilliamps } = railOf(hot, '3v3');
  // (5.25 V − 3.3 V) · I at 200 K/W.
  expect(regulator!.watts).toBeCloseTo((1.95 * typicalMilliamps) / 1000, 9);
  expect(regulator!.kelvin).toBeCloseTo(regulator!.watts * 200, 9);
  expect(regulator!.kelvin).toBeGreaterThan(85);
  expect(codesAfter(hot, sheets)).toContain('regulator-hot');
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
