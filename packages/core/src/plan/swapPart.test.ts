import fc from 'fast-check';
import { shippedSheets } from '../../tests/catalogue';
import { add, edited } from '../../tests/makePlan';
import { runs } from '../../tests/runs';
import { assignPins } from '../assign/assignPins';
import { applyEdits } from './applyEdits';
import { newPlan, type Plan, splitKey } from './plan';
import { swapPart } from './swapPart';

const sheets = shippedSheets();
const parts = [...sheets.parts.values()].map((p) => p.sheet);
const forms = (id: string) =>
  parts.filter((p) => p.variantOf !== undefined && p.variantOf === sheets.parts.get(id)!.sheet.variantOf && p.id !== id);
const withForms = parts.filter((p) => forms(p.id).length > 0).map((p) => p.id);

const settled = (ids: readonly string[]): Plan =>
  assignPins(
    edited(
      newPlan('plan-1', 'Test', { id: 'atmega2560-5v-shield', version: 1 }),
      sheets,
      ...ids.map((id, at) => add(`p${at}`, id, `Name ${at}`)),
    ),
    sheets,
    { nodes: 500 },
  )!.plan;

test('another form takes the place of a part: id, name, place in the list and all wires that both have stay; undo brings all back', () => {
  fc.assert(
    fc.property(fc.array(fc.constantFrom(...withForms), { minLength: 1, maxLength: 4 }), fc.nat(), fc.nat(), (ids, which, form) => {
      const plan = settled(ids);
      const at = which % ids.length;
      const placement = plan.placements[at]!;
      const from = sheets.parts.get(placement.sheet.id)!.sheet;
      const to = forms(from.id)[form % forms(from.id).length]!;
      const result = applyEdits(plan, swapPart(plan, placement, from, to), sheets);
      if (!result.ok) throw new Error(JSON.stringify(result.problem));
      expect(result.plan.placements.map((p) => [p.id, p.name])).toEqual(plan.placements.map((p) => [p.id, p.name]));
      expect(result.plan.placements[at]!.sheet.id).toBe(to.id);
      const common = Object.keys(plan.wires).filter((key) => {
        const { placement: id, terminal } = splitKey(key);
        const role = from.terminals.list.find((t) => t.id === terminal)?.role;
        return id !== placement.id || to.terminals.list.some((t) => t.id === terminal && t.role === role);
      });
      for (const key of common) expect(result.plan.wires[key]).toEqual(plan.wires[key]);
      expect(Object.keys(result.plan.wires)).toHaveLength(common.length);
      expect(applyEdits(result.plan, result.inverse, sheets)).toMatchObject({ ok: true, plan });
    }),
    { numRuns: runs(60) },
  );
});

test('locks and wishes of terminals that both forms have stay', () => {
  const plan = edited(
    settled(['oled-096-ssd1306-i2c']),
    sheets,
    { kind: 'lock', placement: 'p0', terminal: 'GND', locked: true },
    { kind: 'together', placement: 'p0', how: 'adjacent' },
  );
  const [from, to] = ['oled-096-ssd1306-i2c', 'oled-096-ssd1306-spi'].map((id) => sheets.parts.get(id)!.sheet);
  const swapped = edited(plan, sheets, ...swapPart(plan, plan.placements[0]!, from!, to!));
  expect([swapped.wires['p0:GND']?.locked, swapped.together, swapped.wires['p0:SDA']]).toEqual([true, { p0: 'adjacent' }, undefined]);
});
