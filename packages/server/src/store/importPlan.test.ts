import { newPlan } from '@roof-chart/core/plan/plan';
import { getOrThrow } from '@roof-chart/core/collections/orThrow';
import { serve, type Served } from '../../tests/serve';
import { importPlan } from './importPlan';

let served: Served;
beforeEach(async () => {
  served = await serve();
});
afterEach(() => served.close());

test('a file with a sheet whose id is of another kind here is refused whole: neither its plan nor its sheets are kept', async () => {
  const { store, shelf, sheets } = served;
  const led = getOrThrow(sheets.parts, 'led-red-5mm').sheet;
  const stick = getOrThrow(sheets.boards, 'rp2040-stick-40').sheet;
  expect(store.transactions.write((statements) => shelf.keepWithin(statements, [{ ...led, id: 'my-own', version: 1 }])).kind).not.toBe(
    'taken',
  );
  shelf.load();
  const before = shelf.list.length;
  const file = {
    plan: newPlan('plan-1', 'Own board', { id: 'my-own', version: 1 }),
    sheets: [{ ...stick, id: 'my-own', version: 1 }],
  };
  expect(importPlan(store, shelf, file)).toEqual({
    ok: false,
    path: 'sheets',
    fault: 'the ID my-own is used by a sheet of another kind',
  });
  expect([(await store.list(10, 0)).total, shelf.list.length]).toEqual([0, before]);
  // Under an id of its own it comes in with its sheet.
  const other = {
    plan: newPlan('plan-1', 'Own board', { id: 'my-board', version: 1 }),
    sheets: [{ ...stick, id: 'my-board', version: 1 }],
  };
  expect(importPlan(store, shelf, other)).toMatchObject({ ok: true, kept: [{ version: 1 }] });
  expect([(await store.list(10, 0)).total, shelf.list.length]).toEqual([1, before + 1]);
});
