import fc from 'fast-check';
import { shippedSheets } from '../../tests/catalogue';
import { add, edited, stick, wire } from '../../tests/makePlan';
import { runs } from '../../tests/runs';
import { assignPins } from '../assign/assignPins';
import { addressesOf } from '../nets/addresses';
import { findBuses } from '../nets/buses';
import { applyEdits } from '../plan/applyEdits';
import type { Edit } from '../plan/edit';
import { newPlan, type Plan } from '../plan/plan';
import { clearAddresses } from './clearAddresses';
import { planFindingsOf } from './review';
import { compareForms, formsOf } from './variants';

const sheets = shippedSheets();
const settled = (...ids: readonly string[]): Plan =>
  assignPins(edited(stick(), sheets, ...ids.map((id, at) => add(`p${at}`, id, `Part ${at}`))), sheets)!.plan;

test('a screen by I2C and by SPI: pins against frames, each as it would stand in this plan', () => {
  const plan = settled('oled-096-ssd1306-i2c', 'humidity-sht31');
  const rows = compareForms(plan, sheets, 'p0')!;
  const by = (id: string) => rows.find((row) => row.part.id === id)!;
  const [here, other] = [by('oled-096-ssd1306-i2c'), by('oled-096-ssd1306-spi')];
  expect([here.current, here.privatePins, here.sharedPins, here.wires]).toEqual([true, 0, 2, 4]);
  expect([other.current, other.sharedPins, other.privatePins >= 4, other.addresses]).toEqual([false, 0, true, undefined]);
  // 400 kHz / 10 496 bits against a picture of 1024 bytes at 10 MHz.
  expect(here.mostPerSecond!).toBeCloseTo(400e3 / 10_496, 1);
  expect(other.mostPerSecond!).toBeGreaterThan(1000);
});

test('swapping is one step that gives what was told, and undo gives the plan back', () => {
  const withForms = [...sheets.parts.values()].map((p) => p.sheet).filter((p) => formsOf(sheets, p).length > 1);
  fc.assert(
    fc.property(fc.constantFrom(...withForms), fc.constantFrom(...withForms), (one, beside) => {
      const plan = settled(one.id, beside.id);
      for (const row of compareForms(plan, sheets, 'p0')!) {
        const result = applyEdits(plan, row.edits, sheets);
        if (!result.ok) throw new Error(JSON.stringify(result.problem));
        expect(result.plan.placements.map((p) => [p.id, p.name])).toEqual(plan.placements.map((p) => [p.id, p.name]));
        expect(result.plan.placements[0]!.sheet.id).toBe(row.part.id);
        const had = new Set(planFindingsOf(plan, sheets).map((f) => f.id));
        expect(
          planFindingsOf(result.plan, sheets)
            .filter((f) => !had.has(f.id))
            .map((f) => f.id),
        ).toEqual(row.added.map((f) => f.id));
        const back = applyEdits(result.plan, result.inverse, sheets);
        expect(back.ok && back.plan).toEqual(plan);
      }
    }),
    { numRuns: runs(25) },
  );
});

describe('straps for a whole bus at once', () => {
  const bus = (...ids: readonly string[]) =>
    edited(
      newPlan('plan-1', 'Test', { id: 'rp2040-stick-40', version: 1 }),
      sheets,
      ...ids.flatMap((id, at): Edit[] => [
        add(`p${at}`, id, `Part ${at}`),
        wire(`p${at}:SDA`, 'GP4'),
        wire(`p${at}:SCL`, 'GP5'),
        wire(`p${at}:VCC`, 'rail 3v3'),
      ]),
    );
  const cleared = (plan: Plan) => clearAddresses(plan, sheets, findBuses(plan, sheets)[0]!)!;

  test('one strap is enough for a clock and a motion sensor, and it is that of the one that can', () => {
    const plan = bus('clock-ds3231-mini', 'motion-mpu6050');
    const result = cleared(plan);
    expect(result).toMatchObject({ ok: true, changes: 1 });
    if (!result.ok) throw new Error();
    const after = edited(plan, sheets, ...result.edits);
    const all = after.placements.flatMap((p) => addressesOf(after, p, sheets).map((a) => a.address));
    expect(new Set(all).size).toBe(all.length);
  });

  test('three of two addresses cannot be kept apart: those three are named, and nobody else', () => {
    expect(cleared(bus('humidity-sht31', 'oled-096-ssd1306-i2c', 'humidity-sht31', 'humidity-sht31'))).toEqual({
      ok: false,
      stuck: ['p0', 'p2', 'p3'],
    });
    expect(cleared(bus('humidity-sht31', 'oled-096-ssd1306-i2c'))).toEqual({ ok: true, changes: 0, edits: [] });
  });
});

test('wires are counted, not terminals: one that is open counts in none of the forms', () => {
  const plan = edited(
    stick(),
    sheets,
    add('p0', 'oled-096-ssd1306-i2c'),
    wire('p0:SDA', 'GP4'),
    wire('p0:SCL', 'GP5'),
    wire('p0:VCC', 'rail 3v3'),
  );
  const here = compareForms(plan, sheets, 'p0')!.find((row) => row.current)!;
  expect([here.wires, here.sharedPins + here.privatePins, here.open]).toEqual([3, 2, ['p0:GND']]);
});
