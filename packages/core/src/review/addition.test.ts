import fc from 'fast-check';
import { shippedSheets } from '../../tests/catalogue';
import { add, edited, stick, wire } from '../../tests/makePlan';
import { runs } from '../../tests/runs';
import { assignPins } from '../assign/assignPins';
import { applyEdits } from '../plan/applyEdits';
import { newPlan, type Plan, sameEnd } from '../plan/plan';
import { additionOf } from './addition';

const sheets = shippedSheets();
const ids = [...sheets.parts.keys()];
const part = (id: string) => sheets.parts.get(id)!.sheet;
const limit = { nodes: 1000 };
const grown = (board: string, parts: readonly string[]): Plan => {
  const bare = newPlan('plan-1', 'Test', { id: board, version: 1 });
  return assignPins(edited(bare, sheets, ...parts.map((id, at) => add(`p${at}`, id))), sheets, limit)!.plan;
};
const boards = fc.constantFrom('rp2040-stick-40', 'atmega328p-5v-shield', 'esp32-stick-38');

test('beside what is there a part costs exactly what it costs when everything is looked at', () => {
  fc.assert(
    fc.property(boards, fc.array(fc.constantFrom(...ids), { maxLength: 6 }), fc.constantFrom(...ids), (board, parts, id) => {
      const plan = edited(grown(board, parts), sheets, add('new', id));
      const beside = assignPins(plan, sheets, { only: 'new', freeze: true })!;
      const whole = assignPins(plan, sheets, { only: 'new', ...limit })!;
      // A strap of a part that is there is new wire where it had none: it moves nothing, but freezing leaves it alone.
      const strapped = whole.edits.some((edit) => 'placement' in edit && edit.placement !== 'new');
      if (beside.costs.unwired > 0 || !whole.proved || strapped) return;
      const before = assignPins(plan, sheets, { only: '', ...limit })!;
      if (before.costs.unwired > 0 || before.costs.moved > 0) return;
      // The frozen problem leaves the old parts out of its sums: its plan is weighed by the whole one.
      const weighed = assignPins(beside.plan, sheets, { only: 'new', ...limit })!;
      if (!weighed.proved) return;
      expect(weighed.costs).toEqual(whole.costs);
      expect(weighed.edits).toEqual([]);
      expect(beside.plan.wires).toEqual(expect.objectContaining(plan.wires));
    }),
    {
      numRuns: runs(80),
      // A bus with a part that holds its data line only where that part has one wired.
      examples: [['rp2040-stick-40', ['driver-max7219-dip24', 'tft-28-ili9341-touch'], 'sd-card-3v3']],
    },
  );
});

test('an addition is what it says: its edits lead to its plan, what it names is what moves, what it leaves open is open', () => {
  fc.assert(
    fc.property(boards, fc.array(fc.constantFrom(...ids), { maxLength: 7 }), fc.constantFrom(...ids), (board, parts, id) => {
      const plan = grown(board, parts);
      const addition = additionOf(plan, sheets, part(id))!;
      const result = applyEdits(plan, addition.edits, sheets);
      expect(result).toMatchObject({ ok: true, plan: addition.plan });
      const changed = Object.keys(plan.wires).filter((key) => !sameEnd(plan.wires[key]!.end, addition.plan.wires[key]?.end));
      expect([...addition.moved].sort()).toEqual(changed.sort());
      for (const key of addition.open) expect(key.startsWith(`${addition.placement}:`)).toBe(true);
    }),
    { numRuns: runs(60) },
  );
});

test('in a plan with a clash nothing is mended by the way: the new part goes beside it', () => {
  const clash = edited(
    stick(),
    sheets,
    add('lamp', 'led-red-5mm'),
    add('key', 'button-push'),
    wire('lamp:A', 'GP2'),
    wire('key:C1', 'GP2'),
  );
  const addition = additionOf(clash, sheets, part('servo-micro'))!;
  expect([addition.moved, addition.open]).toEqual([[], []]);
  expect(addition.plan.wires['lamp:A']!.end).toEqual({ to: 'pin', pin: 'GP2' });
});

test('a backlight is wired at both of its terminals, from the supply of its display; where that has no rail at neither', () => {
  const plan = additionOf(stick(), sheets, sheets.parts.get('lcd-1602-parallel')!.sheet)!;
  const end = (terminal: string) => plan.plan.wires[`${plan.placement}:${terminal}`]?.end;
  expect([end('A'), end('K')]).toEqual([end('VDD'), { to: 'ground' }]);
  expect(end('VDD')).toMatchObject({ to: 'rail' });
});
