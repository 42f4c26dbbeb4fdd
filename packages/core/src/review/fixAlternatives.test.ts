import { shippedSheets } from '../../tests/catalogue';
import { applyEdits } from '../plan/applyEdits';
import { newPlan, type Plan } from '../plan/plan';
import { additionOf } from './addition';
import { type FixAlternative, fixAlternatives } from './fixAlternatives';
import { startPlan } from '../plan/startPlan';
import { findingsOf } from './review';
import { formsOf } from './variants';

const sheets = shippedSheets();

/** A part alone on a board, wired as the product proposes. */
function alone(board: string, part: string): Plan {
  const empty = newPlan('p', 'P', { id: board, version: sheets.boards.get(board)!.sheet.version });
  const added = applyEdits(empty, additionOf(empty, sheets, sheets.parts.get(part)!.sheet)!.edits, sheets);
  if (!added.ok) throw new Error(part);
  return added.plan;
}

const grave = (plan: Plan) => findingsOf(plan, sheets).filter((f) => f.level !== 'hint' && f.code !== 'sheet-unverified');

test.each<[string, string, FixAlternative['kind'], string]>([
  ['atmega32a-5v-dip-40', 'climate-bme280-6pin', 'form', 'climate-bme280'],
  ['pic16f1829-5v-dip-20', 'motion-pir', 'board', ''],
  ['bcm2711-sbc-40', 'rgb-led-cc', 'board', ''],
])('%s with %s: what is offered rids the plan of the finding', (board, part, kind, form) => {
  const plan = alone(board, part);
  const [finding] = grave(plan);
  const found = fixAlternatives(plan, sheets, finding!, { nodes: 2000 });
  expect(found.map((one) => one.kind)).toContain(kind);
  if (form) expect(found.find((one) => one.kind === 'form')).toMatchObject({ form });
  for (const one of found) {
    const after = applyEdits(plan, one.edits, sheets);
    expect(after.ok).toBe(true);
    if (after.ok) {
      expect(grave(after.plan).map((f) => f.code)).not.toContain(finding!.code);
      expect(grave(after.plan).length).toBeLessThan(grave(plan).length);
    }
  }
});

test('nothing is offered for what no board and no form mends, and a search that is stopped ends', () => {
  const strip = alone('rp2040-stick-40', 'servo-micro');
  const [over] = grave(strip).filter((f) => f.code === 'supply-over');
  expect(new Set(fixAlternatives(strip, sheets, over!, { nodes: 500 }).map((one) => one.kind))).toEqual(new Set(['board']));
  expect(fixAlternatives(strip, sheets, over!, { stop: () => true })).toEqual([]);
});

test('what is soldered to the board is not exchanged for another form', () => {
  const soldered = [...sheets.boards.values()].flatMap(({ sheet }) => {
    const plan = startPlan('p', 'P', sheet.id, sheets);
    return plan.placements.some((p) => p.onBoard && formsOf(sheets, sheets.parts.get(p.sheet.id)!.sheet).length > 1) ? [plan] : [];
  });
  expect(soldered.length).toBeGreaterThan(0);
  for (const plan of soldered.slice(0, 2)) {
    const own = plan.placements.filter((p) => p.onBoard).map((p) => p.id);
    const made = { ...findingsOf(plan, sheets)[0], level: 'clash', place: { placements: own } } as Parameters<typeof fixAlternatives>[2];
    expect(fixAlternatives(plan, sheets, made, { nodes: 200 }).filter((one) => one.kind === 'form')).toEqual([]);
  }
});
