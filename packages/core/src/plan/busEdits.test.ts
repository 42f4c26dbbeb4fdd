import { shippedSheets } from '../../tests/catalogue';
import { add, edited, stick, wire } from '../../tests/makePlan';
import { applyEdit, applyEdits } from './applyEdits';
import { diffPlans } from './diffPlans';
import type { Edit } from './edit';
import { editSchema } from './editSchema';
import { planSchema } from './planSchema';
import { upgradePlan } from './upgradePlan';

const sheets = shippedSheets();
const plan = edited(
  stick(),
  sheets,
  add('s', 'oled-096-ssd1306-i2c', 'Screen'),
  add('x', 'expander-mcp23017', 'Ports'),
  wire('s:SDA', 'GP4'),
  wire('s:SCL', 'GP5'),
);
const cut: Edit = { kind: 'cut-pull-ups', placement: 's', cut: true };
const pull: Edit = { kind: 'pull', placement: 's', terminal: 'SDA', pull: { ohms: 4700, to: 'supply' } };

describe('what an edit may carry', () => {
  test.each([
    [{ kind: 'bus-settings', segment: 'i2c0', settings: { picofarads: -5 } }, 'picofarads'],
    [{ kind: 'bus-settings', segment: 'i2c0', settings: { wireCm: 1e9 } }, 'wireCm'],
    [{ kind: 'bus-settings', segment: 'i2c0', settings: { addedOhms: 0 } }, 'addedOhms'],
    [{ kind: 'bus-settings', segment: 'i2c0', settings: { hz: 'fast' } }, 'hz'],
    [{ kind: 'bus-settings', segment: '../etc', settings: null }, 'segment'],
    [{ kind: 'bus-settings', segment: 'i2c0', settings: {} }, 'settings'],
    [{ kind: 'pull', placement: 's', terminal: 'SDA', pull: { ohms: -1, to: 'supply' } }, 'ohms'],
    [{ kind: 'pull', placement: 's', terminal: 'SDA', pull: { ohms: 1, to: 'sky' } }, 'to'],
    [{ kind: 'values-on-hand', valuesOnHand: { series: 'E7' } }, 'series'],
    [{ kind: 'values-on-hand', valuesOnHand: { series: 'own' } }, 'own'],
    [{ kind: 'values-on-hand', valuesOnHand: { series: 'own', own: [] } }, 'own'],
    [{ kind: 'values-on-hand', valuesOnHand: { series: 'own', own: [10, 10] } }, 'own'],
    [{ kind: 'cut-pull-ups', placement: 's', cut: 'yes' }, 'cut'],
  ])('%j is refused and its place is named', (edit, place) => {
    expect(editSchema.validate(edit, { convert: false }).error?.message).toContain(place);
  });

  test('a name that an object has of itself is no segment', () => {
    expect(applyEdit(plan, { kind: 'bus-settings', segment: 'constructor', settings: { hz: 1e5 } }, sheets)).toMatchObject({
      ok: false,
      problem: { path: 'segment' },
    });
  });
});

describe('cut pull-ups, resistors, values on hand', () => {
  test('only a module that has pull-ups can have them cut; what is cut is put back by undo', () => {
    expect(applyEdit(plan, { ...cut, placement: 'x' }, sheets)).toMatchObject({
      ok: false,
      problem: { expected: 'a part with pull-ups on its module' },
    });
    expect(applyEdit(plan, { ...cut, placement: 'nobody' }, sheets)).toMatchObject({ ok: false, problem: { path: 'placement' } });
    const result = applyEdits(plan, [cut, pull], sheets);
    expect(result.ok && applyEdits(result.plan, result.inverse, sheets)).toMatchObject({ ok: true, plan });
  });

  test('a resistor sits at a terminal that is there', () => {
    expect(applyEdit(plan, { ...pull, terminal: 'NOPE' }, sheets)).toMatchObject({ ok: false, problem: { path: 'terminal' } });
    expect(edited(plan, sheets, pull).pulls).toEqual({ 's:SDA': { ohms: 4700, to: 'supply' } });
  });

  test('all of it goes with its part, and comes back with it', () => {
    const full = edited(plan, sheets, cut, pull, { kind: 'bus-settings', segment: 's', settings: { wireCm: 30 } });
    const result = applyEdits(full, [{ kind: 'remove-placement', placement: 's' }], sheets);
    if (!result.ok) throw new Error(JSON.stringify(result.problem));
    expect([result.plan.pulls, result.plan.busSettings]).toEqual([{}, {}]);
    expect(applyEdits(result.plan, result.inverse, sheets)).toMatchObject({ ok: true, plan: full });
  });

  test('one plan becomes another by the edits between them, both ways', () => {
    const full = edited(
      plan,
      sheets,
      cut,
      pull,
      { kind: 'values-on-hand', valuesOnHand: { series: 'own', own: [330, 4700] } },
      {
        kind: 'bus-settings',
        segment: 'i2c0',
        settings: { addedOhms: 4700 },
      },
    );
    const states = () => 'open';
    expect(edited(plan, sheets, ...diffPlans(plan, full, states))).toEqual(full);
    expect(edited(full, sheets, ...diffPlans(full, plan, states))).toEqual(plan);
  });
});

test('a plan kept before there was any of this gets what is empty, and is valid', () => {
  const { pulls: _pulls, valuesOnHand: _valuesOnHand, ...before } = plan;
  const upgraded = upgradePlan(before as never);
  expect([upgraded.pulls, upgraded.valuesOnHand]).toEqual([{}, { series: 'E12' }]);
  expect(planSchema.validate(upgraded).error).toBeUndefined();
  expect((planSchema.validate(before).value as { valuesOnHand: unknown }).valuesOnHand).toEqual({ series: 'E12' });
});
