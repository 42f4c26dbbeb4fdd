import { shippedSheets } from '../../../core/tests/catalogue';
import { add, edited, stick, wire } from '../../../core/tests/makePlan';
import { additionOf } from '@roof-chart/core/review/addition';
import { editPlan, redoStep, undoStep } from './commands';
import { type Batch, documentActions, type DocumentState, documentSlice, type Step } from './documentSlice';
import { sessionActions, sessionSlice, type SessionState } from './sessionSlice';
import { createStore } from './store';

const sheets = shippedSheets();
const plan = stick();
const other = edited(plan, sheets, add('a', 'led-red-5mm'));
const batch = (id: string): Batch => ({ id, edits: [] });
const step = (label: string): Step => ({ label, edits: [], inverse: [] });
const { reducer } = documentSlice;
const empty: DocumentState = {
  plan: null,
  ground: null,
  revision: 0,
  epoch: '',
  waiting: [],
  save: 'saved',
  choice: null,
  past: [],
  future: [],
};
const open: DocumentState = {
  ...empty,
  plan,
  ground: plan,
  revision: 3,
  epoch: 'first',
  waiting: [batch('b1')],
  past: [step('s1')],
  future: [step('f1')],
};
const after = (action: Parameters<typeof reducer>[1], state = open) => reducer(state, action);

test('at first no document is open', () => expect(reducer(undefined, { type: '' })).toEqual(empty));

test.each([
  [
    'an opened plan is its own ground, with nothing waiting',
    documentActions.opened({ plan: other, revision: 7 }),
    { ...empty, plan: other, ground: other, revision: 7 },
  ],
  ['a closed one leaves nothing', documentActions.closed(), empty],
  [
    'an edit waits, can be undone, and ends what could be done again',
    documentActions.did({ plan: other, batch: batch('b2'), step: step('s2') }),
    { ...open, plan: other, waiting: [batch('b1'), batch('b2')], past: [step('s1'), step('s2')], future: [] },
  ],
  [
    'undo waits as an edit does',
    documentActions.undid({ plan: other, batch: batch('b2') }),
    { ...open, plan: other, waiting: [batch('b1'), batch('b2')], past: [], future: [step('f1'), step('s1')] },
  ],
  [
    'redo goes the other way',
    documentActions.redid({ plan: other, batch: batch('b2') }),
    { ...open, plan: other, waiting: [batch('b1'), batch('b2')], past: [step('s1'), step('f1')], future: [] },
  ],
  ['under way', documentActions.saving(), { ...open, save: 'saving' }],
  ['held', documentActions.held('full'), { ...open, save: 'full' }],
  ['saved', documentActions.saved({ revision: 4, batches: 1 }), { ...open, revision: 4, waiting: [], save: 'saved' }],
  [
    'none of them saved',
    documentActions.saved({ revision: 4, batches: 0, ground: other }),
    { ...open, revision: 4, ground: other, save: 'saving' },
  ],
  ['a step back that no longer fits', documentActions.stepDropped('past'), { ...open, past: [] }],
  ['a step forward that no longer fits', documentActions.stepDropped('future'), { ...open, future: [] }],
  [
    'on top of another revision, with nothing left waiting',
    documentActions.rebased({ plan: other, ground: other, revision: 9, epoch: 'second', waiting: [] }),
    { ...open, plan: other, ground: other, revision: 9, epoch: 'second', waiting: [], save: 'saved' },
  ],
  [
    'on top of another revision, with more to send',
    documentActions.rebased({ plan: other, ground: plan, revision: 9, epoch: 'first', waiting: [batch('b1')] }),
    { ...open, plan: other, revision: 9, save: 'saving' },
  ],
  ['a choice between two plans', documentActions.choiceAsked('gone'), { ...open, choice: 'gone', save: 'choice' }],
])('%s', (_, action, expected) => expect(after(action)).toEqual(expected));

test('a choice that was made is over', () => {
  const asked = after(documentActions.choiceAsked('gone'));
  expect(after(documentActions.rebased({ plan, ground: plan, revision: 1, epoch: 'second', waiting: [] }), asked).choice).toBeNull();
});

test('500 steps can be undone, the last ones', () => {
  let state: DocumentState = { ...open, past: [] };
  for (let n = 0; n < 510; n += 1) state = after(documentActions.did({ plan, batch: batch('b'), step: step(String(n)) }), state);
  expect([state.past.length, state.past[0]!.label, state.past.at(-1)!.label]).toEqual([500, '10', '509']);
});

describe('edits of the open plan', () => {
  const opened = () => {
    const store = createStore();
    store.dispatch(documentActions.opened({ plan: other, revision: 1 }));
    return store;
  };
  test('go to the server with what was done, and so do undo and redo', () => {
    const store = opened();
    store.dispatch(editPlan(sheets, [wire('a:A', 'GP2')], 'wire A'));
    store.dispatch(undoStep(sheets));
    store.dispatch(redoStep(sheets));
    expect(store.getState().document.waiting.map(({ label }) => label)).toEqual(['wire A', 'Undo: wire A', 'Redo: wire A']);
    expect(new Set(store.getState().document.waiting.map(({ id }) => id)).size).toBe(3);
  });
  test('none, or without a plan, are none', () => {
    const none = { ok: false, words: 'Nothing to change.' };
    expect(opened().dispatch(editPlan(sheets, [], 'nothing'))).toEqual(none);
    expect(createStore().dispatch(editPlan(sheets, [wire('a:A', 'GP2')], 'wire'))).toEqual(none);
    expect([createStore().dispatch(undoStep(sheets)), createStore().dispatch(redoStep(sheets))]).toEqual([
      { kind: 'none' },
      { kind: 'none' },
    ]);
  });
  test('are 5 000 at once and no more', () => {
    const many = (count: number) => Array.from({ length: count }, () => wire('a:A', 'GP2'));
    expect(opened().dispatch(editPlan(sheets, many(5000), 'many'))).toEqual({ ok: true, label: 'many' });
    expect(opened().dispatch(editPlan(sheets, many(5001), 'too many'))).toEqual({
      ok: false,
      words: 'Not done: 5001 edits at once, the limit is 5000.',
    });
  });
  test('bring the values that follow from them, as one step with one way back', () => {
    const lit = additionOf(plan, sheets, sheets.parts.get('led-red-5mm')!.sheet)!.plan;
    const store = createStore();
    store.dispatch(documentActions.opened({ plan: lit, revision: 1 }));
    expect(store.dispatch(editPlan(sheets, [{ kind: 'values-on-hand', valuesOnHand: { series: 'E96' } }], 'E96 on hand'))).toEqual({
      ok: true,
      label: 'E96 on hand',
    });
    const { document } = store.getState();
    expect(document.plan!.series['light-1:A']).not.toBe(lit.series['light-1:A']);
    expect(document.waiting).toMatchObject([
      { label: 'E96 on hand, 1 value recalculated', edits: [{ kind: 'values-on-hand' }, { kind: 'series', placement: 'light-1' }] },
    ]);
    store.dispatch(undoStep(sheets));
    expect(store.getState().document.plan).toEqual(lit);
  });
});

describe('what the user looks at', () => {
  const first: SessionState = {
    terminal: null,
    pin: null,
    finding: null,
    scope: 'signals',
    roomy: false,
    auto: false,
    signedOut: false,
    announcement: '',
  };
  const seen: SessionState = {
    terminal: 'a:A',
    pin: 'GP2',
    finding: 'f',
    scope: 'all',
    roomy: true,
    auto: true,
    signedOut: true,
    announcement: 'Undone',
  };
  test.each([
    [sessionActions.focused({ pin: 'GP3' }), { ...seen, pin: 'GP3' }],
    [sessionActions.focused({ terminal: null }), { ...seen, terminal: null }],
    [sessionActions.findingChosen({ finding: 'g' }), { ...seen, finding: 'g' }],
    [
      sessionActions.findingChosen({ finding: 'g', terminal: 'b:B', pin: 'GP4', scope: 'supplies' }),
      { ...seen, finding: 'g', terminal: 'b:B', pin: 'GP4', scope: 'supplies' },
    ],
    [sessionActions.scopeChosen('signals'), { ...seen, scope: 'signals' }],
    [sessionActions.densityChosen(false), { ...seen, roomy: false }],
    [sessionActions.autoChosen(false), { ...seen, auto: false }],
    [sessionActions.signedOutChanged(false), { ...seen, signedOut: false }],
    [sessionActions.announced('Redone'), { ...seen, announcement: 'Redone' }],
    // Said twice it is said twice: the text differs by a mark that is not read.
    [sessionActions.announced('Undone'), { ...seen, announcement: 'Undone\u200b' }],
    [sessionActions.sessionCleared(), { ...first, roomy: true, auto: true, signedOut: true, announcement: 'Undone' }],
  ])('%o', (action, expected) => expect(sessionSlice.reducer(seen, action)).toEqual(expected));
  test('at first nothing', () => expect(sessionSlice.reducer(undefined, { type: '' })).toEqual(first));
});
