import fc from 'fast-check';
import { arbitraryEdit } from '../../tests/arbitraryEdits';
import { shippedSheets } from '../../tests/catalogue';
import { findingsOf } from '../../tests/checkHarness';
import { add, edited, stick, wire, wired } from '../../tests/makePlan';
import { runs } from '../../tests/runs';
import { applyEdit, applyEdits } from '../plan/applyEdits';
import type { Plan } from '../plan/plan';
import { fixSafe } from './fixSafe';
import { reviewPlan } from './review';

const sheets = shippedSheets();

const untidy = edited(
  stick(),
  sheets,
  add('c', 'clock-ds3231-eeprom'),
  add('m', 'motion-mpu6050'),
  ...['c', 'm'].flatMap((id) => [wire(`${id}:SDA`, 'GP4'), wire(`${id}:SCL`, 'GP5')]),
  add('sd', 'sd-card-3v3'),
  wire('sd:VCC', 'rail vbus'),
);

test('every safe remedy is taken, and the edits alone lead to the same plan', () => {
  const fix = fixSafe(untidy, sheets);
  expect(fix.end).toBe('done');
  expect(fix.plan.wires['m:AD0']!.end).toEqual({ to: 'rail', rail: '3v3' });
  expect(fix.plan.wires['sd:VCC']!.end).toEqual({ to: 'rail', rail: '3v3' });
  expect(applyEdits(untidy, fix.edits, sheets)).toMatchObject({ ok: true, plan: fix.plan });
  // What is left needs a decision: the signals of the card.
  expect(findingsOf(fix.plan, sheets).map((f) => f.code)).toEqual(['terminal-unwired']);
});

test('a ceiling stops it with what was done so far', () => {
  expect(fixSafe(untidy, sheets, 1)).toMatchObject({ end: 'ceiling', fixed: [{}] });
});

test('an accepted finding is left alone, comes last, and keeps its reason', () => {
  const bare = edited(stick(), sheets, ...wired('r', 'buffer-74ahct125', { VCC: 'rail 3v3', GND: 'ground' }));
  const missing = findingsOf(bare, sheets).find((f) => f.code === 'decoupling-missing')!;
  const plan = edited(bare, sheets, { kind: 'accept', finding: missing.id, reason: 'It is on the adapter.' });
  expect(findingsOf(plan, sheets).at(-1)).toMatchObject({ id: missing.id, accepted: 'It is on the adapter.' });
  const codes = (of: Plan) => fixSafe(of, sheets).fixed.map(({ finding }) => finding.code);
  expect([codes(bare).includes('decoupling-missing'), codes(plan).includes('decoupling-missing')]).toEqual([true, false]);
});

test('what was accepted as a warning and is an error now is open again, with the reason', () => {
  const clash = findingsOf(untidy, sheets).find((f) => f.level === 'clash')!;
  const plan = edited(untidy, sheets, { kind: 'accept', finding: clash.id, reason: 'Only one is powered at a time.' });
  const now = findingsOf(plan, sheets).find(({ id }) => id === clash.id)!;
  expect([now.accepted, now.acceptedBefore]).toEqual([undefined, 'Only one is powered at a time.']);
  expect(fixSafe(plan, sheets).plan.wires['m:AD0']!.end).toEqual({ to: 'rail', rail: '3v3' });
});

test('on random plans it ends, by itself, without a safe remedy left', () => {
  fc.assert(
    fc.property(fc.array(arbitraryEdit(sheets, 'rp2040-stick-40'), { minLength: 8, maxLength: 50 }), (edits) => {
      const plan = edits.reduce((now, edit) => {
        const result = applyEdit(now, edit, sheets);
        return result.ok ? result.plan : now;
      }, stick());
      const fix = fixSafe(plan, sheets);
      expect(fix.end).toBe('done');
      const after = reviewPlan(fix.plan, sheets);
      const open = after.ok
        ? after.review.findings.filter((f) => f.accepted === undefined && f.remedies.some((r) => r.grade === 'safe'))
        : [];
      expect(open).toEqual([]);
    }),
    { numRuns: runs(60) },
  );
});
