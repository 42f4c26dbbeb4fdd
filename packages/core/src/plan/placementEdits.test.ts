import { shippedSheets } from '../../tests/catalogue';
import { add, edited, stick, wire, wired } from '../../tests/makePlan';
import { applyEdit, applyEdits } from './applyEdits';
import { diffPlans } from './diffPlans';
import type { Edit } from './edit';
import { editsSchema } from './editSchema';
import { PLAN_LIMITS, type Plan } from './plan';
import { solderedIn } from './soldered';
import { startPlan } from './startPlan';
import { ontoBoard } from '../assign/ontoBoard';
import { newPlacement } from './newPlacement';
import { shortPlace } from './findingPlace';
import { isAbout, isOfBoard, isTraced, nothingDone, stepOwner } from './ofPart';
import { swapPart } from './swapPart';

const sheets = shippedSheets();
const done = (step: string, value = 'done'): Edit => ({ kind: 'step', step, done: value });
const tick = (placement: string, terminal: string, end: Extract<Edit, { kind: 'tick' }>['end']): Edit => ({
  kind: 'tick',
  placement,
  terminal,
  end,
});
const back = (plan: Plan, edit: Edit): Plan => {
  const result = applyEdit(plan, edit, sheets);
  if (!result.ok) throw new Error(JSON.stringify(result.problem));
  return edited(result.plan, sheets, ...result.inverse);
};
const refused = (plan: Plan, edit: Edit) => {
  const result = applyEdit(plan, edit, sheets);
  return result.ok ? undefined : result.problem;
};

test('steps of the build are of a part, of the board, or of the whole', () => {
  expect(['light:a', 'found:a:DS3231', 'component:a:series.K', 'wire:a:K', 'strap:a:A0'].map(stepOwner)).toEqual(['a', 'a', 'a', 'a', 'a']);
  expect(['safety:board', 'rail:1-f-to-2-g', 'chip:C1', 'enable:i2c1', 'setting:GP4', 'joint:ground'].map(stepOwner)).toEqual(
    Array.from({ length: 6 }, () => undefined),
  );
});

test('a finding is about the parts and terminals that its id names', () => {
  const parts = (finding: string) => ['a', 'ab', 'b', 'over'].filter((part) => isAbout(finding, (id) => id === part));
  expect(parts('level-damage/over/GP4||a:SDA,b:SDA')).toEqual(['a', 'b']);
  expect(parts('name-shared/both/|ab,b|')).toEqual(['ab', 'b']);
  expect(parts('pin-shared/clash/GP4||')).toEqual([]);
  const ofBoard = ['pin-caution/strap/GP4||', 'level-no-margin/thin/||a:SDA', 'supply-over/peak/|||5v', 'sheet-unverified/typical/|a|'];
  expect(ofBoard.map(isOfBoard)).toEqual([true, true, true, false]);
  // A place of 200 characters tells all that it names; what a longer one names may have been cut off.
  const long = (length: number) => `supply-over/over/${shortPlace(`|${'n'.repeat(length - 2)}|`)}`;
  expect([200, 201].map((length) => parts(long(length)))).toEqual([[], ['a', 'ab', 'b', 'over']]);
  expect([200, 201].map((length) => isOfBoard(long(length)))).toEqual([false, true]);
  expect(new Set([201, 202, 203].map(long)).size).toBe(3);
});

const bench = edited(
  stick(),
  sheets,
  ...wired('display-1', 'oled-096-ssd1306-i2c', { SDA: 'GP4', SCL: 'GP5', VCC: 'rail 3v3', GND: 'ground' }),
  ...wired('light-1', 'led-red-5mm', { A: 'GP15', K: 'ground' }),
  tick('display-1', 'SDA', { to: 'pin', pin: 'GP4' }),
  tick('light-1', 'A', { to: 'pin', pin: 'GP15' }),
  { kind: 'lock', placement: 'display-1', terminal: 'GND', locked: true },
  { kind: 'series', placement: 'light-1', terminal: 'A', ohms: 330 },
  { kind: 'load', placement: 'display-1', load: { share: 0.5 } },
  done('light:display-1', 'seen'),
  done('plug:display-1', 'ae 4'),
  done('light:light-1', 'seen'),
  done('safety:board'),
  { kind: 'accept', finding: 'level-no-margin/thin/||display-1:SDA', reason: 'measured' },
  { kind: 'accept', finding: 'led-dim/dim/|light-1|', reason: 'dim is enough' },
);

test('a part goes with its ticks and loads, those of others stay; undo brings all of it back', () => {
  const without = edited(bench, sheets, { kind: 'remove-placement', placement: 'display-1' });
  expect(Object.keys(without.ticks)).toEqual(['light-1:A']);
  expect(without.loads).toEqual({});
  expect(back(bench, { kind: 'remove-placement', placement: 'display-1' })).toEqual(bench);
});

test('the id of a part that has gone is not given to another one as long as something is kept of it', () => {
  const display = sheets.parts.get('lcd-2004-pcf8574')!.sheet;
  const idOf = (plan: Plan) => newPlacement(plan, display).id;
  const without = edited(bench, sheets, { kind: 'remove-placement', placement: 'display-1' });
  // Its steps are done, and a finding of it is accepted: both would be of the other one.
  expect([idOf(stick()), idOf(bench), idOf(without)]).toEqual(['display-1', 'display-2', 'display-2']);
  const left = edited(without, sheets, ...nothingDone(without, 'display-1'));
  expect([idOf(left), Object.keys(left.steps), Object.keys(left.accepted)]).toEqual([
    'display-1',
    ['light:light-1', 'safety:board'],
    ['led-dim/dim/|light-1|'],
  ]);
  const traced = (own: Partial<Plan>) => isTraced({ ...left, ...own }, 'display-1');
  expect([
    traced({}),
    traced({ steps: { 'light:display-1': 'seen' } }),
    traced({ steps: { 'safety:board': 'done' } }),
    traced({ accepted: { 'level-no-margin/thin/||display-1:SDA': 'measured' } }),
    traced({ ticks: { 'display-1:SDA': { to: 'ground' } } }),
    traced({ built: { date: '2026-11-26', wires: { 'display-1:SDA': { name: 'OLED SDA', end: { to: 'ground' }, to: 'GND' } } } }),
    traced({ built: { date: '2026-11-26', wires: {} } }),
  ]).toEqual([false, true, false, true, true, true, false]);
});

test('the first part of a plan has a load, too', () => {
  expect(edited(bench, sheets, { kind: 'load', placement: 'display-1', load: { share: 0.2 } }).loads['display-1']).toEqual({ share: 0.2 });
  expect(refused(bench, { kind: 'load', placement: 'nothing', load: { share: 0.2 } })).toMatchObject({ path: 'placement' });
});

test('another form of a part: its settings that stay are set again, none of another part', () => {
  const plan = edited(
    bench,
    sheets,
    { kind: 'together', placement: 'display-1', how: 'adjacent' },
    {
      kind: 'wish',
      placement: 'display-1',
      terminal: 'SDA',
      wish: { pin: 'GP4' },
    },
  );
  const [from, to] = ['oled-096-ssd1306-i2c', 'oled-096-ssd1306-spi'].map((id) => sheets.parts.get(id)!.sheet);
  const edits = swapPart(plan, plan.placements[0]!, from!, to!);
  // Nothing of the other form was seen, plugged in or accepted.
  expect(edits.map((edit) => ('terminal' in edit ? `${edit.kind} ${edit.placement}:${edit.terminal}` : edit.kind))).toEqual([
    'step',
    'step',
    'accept',
    'remove-placement',
    'add-placement',
    'wire display-1:VCC',
    'wire display-1:GND',
    'lock display-1:GND',
    'together',
    'load',
  ]);
  expect(edited(plan, sheets, ...edits).series).toEqual({ 'light-1:A': 330 });
});

const dial = edited(
  startPlan('plan-1', 'Dial', 'round-dial-s3', sheets),
  sheets,
  add('light-1', 'led-red-5mm'),
  wire('light-1:K', 'ground'),
  tick('light-1', 'K', { to: 'ground' }),
  tick('display-1', 'GND', { to: 'ground' }),
  { kind: 'wish', placement: 'light-1', terminal: 'A', wish: { not: ['IO1'] } },
  done('light:display-1', 'seen'),
  done('light:light-1', 'seen'),
  { kind: 'accept', finding: 'pin-caution/strap/IO3||', reason: 'checked' },
  { kind: 'accept', finding: 'level-no-margin/thin/||light-1:A', reason: 'measured' },
  { kind: 'accept', finding: 'supply-over/peak/|||5v', reason: 'never all at once' },
  { kind: 'accept', finding: 'sheet-unverified/typical/|light-1|', reason: 'datasheet read' },
);
const toStick: Edit = { kind: 'switch-board', board: { id: 'rp2040-stick-40', version: 1 }, soldered: [] };

test('another board: what is soldered goes with its ticks, parts keep theirs; undo brings all of it back', () => {
  const there = edited(dial, sheets, toStick);
  expect(there.placements.map(({ id }) => id)).toEqual(['light-1']);
  expect(there.ticks).toEqual({ 'light-1:K': { to: 'ground' } });
  // A wish for or against pins that the board does not have goes.
  expect(there.wishes).toEqual({});
  // What was accepted of pins, levels and rails was accepted on that board.
  expect(ontoBoard(dial, sheets, 'rp2040-stick-40')!.plan.accepted).toEqual({ 'sheet-unverified/typical/|light-1|': 'datasheet read' });
  expect(Object.keys(ontoBoard(dial, sheets, 'round-dial-s3')!.plan.accepted)).toHaveLength(4);
  expect(back(dial, toStick)).toEqual(dial);
});

test('a soldered part cannot come under the id of one that is there', () => {
  const soldered = solderedIn(dial);
  const plan = edited(stick(), sheets, add(soldered[0]!.placement.id, 'led-red-5mm'));
  expect(refused(plan, { kind: 'switch-board', board: dial.board, soldered })).toMatchObject({
    path: 'soldered/0/placement/id',
    got: soldered[0]!.placement.id,
  });
  const twice: Edit = {
    kind: 'switch-board',
    board: dial.board,
    soldered: [soldered[0]!, { ...soldered[1]!, placement: soldered[0]!.placement }],
  };
  expect(refused(stick(), twice)).toMatchObject({ path: 'soldered/1/placement/id' });
});

test('the difference of two plans names no tick and no step that stays', () => {
  const state = (): string => 'open';
  const there = edited(dial, sheets, toStick);
  const kinds = (edits: readonly Edit[]) => edits.map(({ kind }) => kind).filter((kind) => ['tick', 'step', 'accept'].includes(kind));
  expect(kinds(diffPlans(dial, there, state))).toEqual([]);
  expect(edited(dial, sheets, ...diffPlans(dial, there, state))).toEqual(there);
  const without = edited(bench, sheets, { kind: 'remove-placement', placement: 'display-1' });
  expect(kinds(diffPlans(bench, without, state))).toEqual([]);
  expect(kinds(diffPlans(without, bench, state))).toEqual(['tick']);
  expect(edited(without, sheets, ...diffPlans(without, bench, state))).toEqual(bench);
  // The wire of a part that is another one now is made anew, and its steps are not done.
  const replaced = edited(without, sheets, add('display-1', 'lcd-2004-pcf8574'));
  expect(edited(bench, sheets, ...diffPlans(bench, replaced, state))).toEqual(replaced);
});

test('a batch has between one edit and the most that the server takes', () => {
  const edits = (count: number): Edit[] => Array.from({ length: count }, () => ({ kind: 'rename-plan', name: 'A' }));
  const isTaken = (count: number) => editsSchema.validate(edits(count)).error === undefined;
  expect([0, 1, PLAN_LIMITS.editsPerBatch, PLAN_LIMITS.editsPerBatch + 1].map(isTaken)).toEqual([false, true, true, false]);
  expect(applyEdits(bench, [], sheets)).toMatchObject({ ok: true, plan: bench });
});
