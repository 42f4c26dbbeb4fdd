import fc from 'fast-check';
import { arbitraryEdit } from '../../tests/arbitraryEdits';
import { shippedSheets, versionedSheets } from '../../tests/catalogue';
import { add, edited, shield, stick, wire } from '../../tests/makePlan';
import { corruptedPlan } from '../../tests/corruptedPlan';
import { runs } from '../../tests/runs';
import type { FindingDraft } from '../checks/engine/check';
import { CHECKS } from '../checks/engine/registry';
import { connectedComponents } from '../nets/connectedComponents';
import { applyEdit } from '../plan/applyEdits';
import type { Plan } from '../plan/plan';
import { contextOf, reviewPlan } from './review';

const sheets = shippedSheets();
const spoilt = corruptedPlan(sheets);
const said = ({ level, message, place, data, source }: FindingDraft) => JSON.stringify([level, message, place, data, source]);

test('component by component the same is found as in the whole plan, by every check that does not ask for all of it', () => {
  fc.assert(
    fc.property(spoilt, (plan) => {
      const context = contextOf(plan, sheets)!;
      const components = connectedComponents(plan, sheets).map((component) => contextOf(component, sheets)!);
      for (const check of CHECKS) {
        if (check.planWide) continue;
        const [whole, cut] = [check.examine(context), components.flatMap((one) => check.examine(one))].map((drafts) =>
          drafts.map(said).sort(),
        );
        expect([check.code, cut]).toEqual([check.code, whole]);
      }
    }),
    { numRuns: runs(70) },
  );
}, 60_000);

test('a finding has the remedies that its check has for it in the whole plan', () => {
  fc.assert(
    fc.property(spoilt, (plan) => {
      const context = contextOf(plan, sheets)!;
      const review = reviewPlan(plan, sheets);
      if (!review.ok) throw new Error('no review');
      for (const finding of review.review.findings) {
        const check = CHECKS.find((one) => one.code === finding.code)!;
        const drafts = check
          .examine(context)
          .filter((one) => one.message === finding.message && said(one) === said(finding as unknown as FindingDraft));
        // Those that were tried and do not help, or harm, are left out.
        const proposed = drafts.map((one) => one.remedies().map((remedy) => JSON.stringify(remedy)));
        const kept = finding.remedies.map((remedy) => JSON.stringify(remedy));
        expect(proposed.some((all) => kept.every((one) => all.includes(one)))).toBe(true);
      }
    }),
    { numRuns: runs(20) },
  );
}, 60_000);

test.each([stick(), shield()])(
  'what is remembered of components is what would be found anew, after any edits on $board.id',
  (empty) => {
    const own = versionedSheets();
    fc.assert(
      fc.property(fc.array(arbitraryEdit(own, empty.board.id), { maxLength: 30 }), (edits) => {
        let plan: Plan = empty;
        for (const edit of edits) {
          const result = applyEdit(plan, edit, own);
          if (!result.ok) continue;
          plan = result.plan;
          expect(JSON.stringify(reviewPlan(plan, own))).toBe(JSON.stringify(reviewPlan(structuredClone(plan), own)));
        }
      }),
      { numRuns: runs(20) },
    );
  },
  60_000,
);

test('a component that an edit does not touch is the same plan as before; one that it touches is another', () => {
  const plan = edited(
    stick(),
    sheets,
    add('screen', 'oled-096-ssd1306-i2c'),
    add('light', 'light-bh1750'),
    add('lamp', 'led-red-5mm'),
    ...['screen', 'light'].flatMap((id) => [wire(`${id}:SDA`, 'GP4'), wire(`${id}:SCL`, 'GP5'), wire(`${id}:GND`, 'ground')]),
    wire('lamp:A', 'GP2'),
    wire('lamp:K', 'ground'),
  );
  const ids = (one: Plan) => connectedComponents(one, sheets).map((component) => component.placements.map((p) => p.id).join(' '));
  expect(ids(plan)).toEqual(['screen light', 'lamp']);
  const moved = edited(plan, sheets, wire('lamp:A', 'GP3'));
  expect(connectedComponents(moved, sheets)[0]).toBe(connectedComponents(plan, sheets)[0]);
  expect(connectedComponents(moved, sheets)[1]).not.toBe(connectedComponents(plan, sheets)[1]);
  // Back again is what it was.
  expect(connectedComponents(edited(moved, sheets, wire('lamp:A', 'GP2')), sheets)[0]).toBe(connectedComponents(plan, sheets)[0]);
  for (const edit of [
    wire('light:SDA', 'GP6'),
    { kind: 'series', placement: 'light', terminal: 'SDA', ohms: 330 },
    { kind: 'bus-settings', segment: 'i2c0', settings: { hz: 1e5 } },
    { kind: 'strap', placement: 'light', strap: 'ADDR', state: 'high' },
    { kind: 'rate', placement: 'light', perSecond: 9 },
  ] as const) {
    const changed = applyEdit(plan, edit, sheets);
    if (changed.ok)
      expect([edit.kind, connectedComponents(changed.plan, sheets)[0] === connectedComponents(plan, sheets)[0]]).toEqual([
        edit.kind,
        false,
      ]);
  }
  // A lamp on the bus joins it.
  expect(ids(edited(plan, sheets, wire('lamp:A', 'GP4')))).toEqual(['screen light lamp']);
});
