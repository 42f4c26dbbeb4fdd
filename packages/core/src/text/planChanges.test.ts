import { isDeepStrictEqual } from 'node:util';
import fc from 'fast-check';
import { arbitraryEdit } from '../../tests/arbitraryEdits';
import { shippedSheets } from '../../tests/catalogue';
import { add, edited, stick, wire } from '../../tests/makePlan';
import { runs } from '../../tests/runs';
import { applyEdits } from '../plan/applyEdits';
import type { Edit } from '../plan/edit';
import type { Plan } from '../plan/plan';
import { startPlan } from '../plan/startPlan';
import { changeText, planChanges } from './planChanges';

const sheets = shippedSheets();
const plan = edited(
  stick(),
  sheets,
  add('k', 'encoder-rotary-switch', 'Knob'),
  add('t', 'lcd-2004-pcf8574', 'Text'),
  add('l', 'led-red-5mm', 'Lamp'),
  wire('k:SW', 'GP22'),
  wire('l:A', 'GP2'),
);
const told = (from: Plan, ...edits: readonly Edit[]) => planChanges(from, edited(from, sheets, ...edits), sheets);

test.each<[Edit, string]>([
  [{ kind: 'radio', on: false }, 'radio not in use'],
  [{ kind: 'remove-placement', placement: 'k' }, 'Knob removed'],
  [{ kind: 'load', placement: 't', load: { units: 2, share: 0.5 } }, 'Text: quantity 2, 50 % on at once'],
  [{ kind: 'wish', placement: 'l', terminal: 'A', wish: { pin: 'GP3' } }, 'Lamp anode: prefers GP3'],
  [{ kind: 'values-on-hand', valuesOnHand: { series: 'E24' } }, 'values on hand: E24'],
  [{ kind: 'strap', placement: 't', strap: 'A0', state: 'bridged' }, 'Text A0: open → bridged'],
  [{ kind: 'lock', placement: 'k', terminal: 'SW', locked: true }, 'wire of Knob SW locked'],
  [
    { kind: 'bus-settings', segment: 'i2c0', settings: { hz: 100_000, addedOhms: 4700 } },
    'I2C0: clock 100 kHz, 4.7 kΩ pull-up added per line',
  ],
])('%j', (edit, words) => expect(told(plan, edit)).toEqual(expect.arrayContaining([words])));

test('what is taken away is told as much as what comes', () => {
  const rich = edited(
    plan,
    sheets,
    { kind: 'pull', placement: 'k', terminal: 'SW', pull: { ohms: 10_000, to: 'supply' } },
    { kind: 'series', placement: 'l', terminal: 'A', ohms: 330 },
    { kind: 'cut-pull-ups', placement: 't', cut: true },
    { kind: 'rate', placement: 't', perSecond: 2 },
  );
  expect(planChanges(rich, plan, sheets)).toEqual([
    'pull-ups of Text connected',
    '10 kΩ at Knob SW removed',
    '330 Ω removed at Lamp anode',
    'Text: default update rate',
  ]);
});

const asJson = (plan: Plan): unknown => JSON.parse(JSON.stringify(plan));

test('no edit changes a plan without a word', () => {
  const boardId = 'rp2040-stick-40';
  fc.assert(
    fc.property(fc.array(arbitraryEdit(sheets, boardId), { minLength: 1, maxLength: 12 }), (edits) => {
      let now = startPlan('p', 'P', boardId, sheets);
      for (const edit of edits) {
        const next = applyEdits(now, [edit], sheets);
        if (!next.ok) continue;
        const silent = planChanges(now, next.plan, sheets).length === 0;
        // The order of entries is no change: a finding that is accepted anew becomes the last one.
        expect([edit.kind, silent]).toEqual([edit.kind, isDeepStrictEqual(asJson(now), asJson(next.plan))]);
        now = next.plan;
      }
    }),
    { numRuns: runs(400) },
  );
});

test('a change in one line: its first difference, and how many there are besides', () => {
  const after = (...edits: readonly Edit[]) => changeText(plan, edited(plan, sheets, ...edits), sheets);
  expect(after(wire('l:A', 'GP3'))).toBe('Lamp anode: GP2 → GP3');
  expect(after(wire('l:A', 'GP3'), wire('k:SW', 'GP4'))).toBe('Knob SW: GP22 → GP4, and 1 other change');
  expect(after({ kind: 'remove-placement', placement: 'l' })).toBe('Lamp removed, and 1 other change');
  expect(after({ kind: 'step', step: 'light:l', done: 'seen' })).toBe('Lamp marked as working');
  expect(changeText(plan, plan, sheets)).toBe('no change');
});
