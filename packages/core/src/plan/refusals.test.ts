import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { shippedSheets } from '../../tests/catalogue';
import { CORPUS, corpusPlans } from '../../tests/corpus';
import { add, stick } from '../../tests/makePlan';
import { EVERY_EDIT, everyPart } from '../../tests/everyEdit';
import { refusals } from '../../tests/refusals';
import { applyEdit, EDIT_KINDS } from './applyEdits';
import type { Edit } from './edit';
import { editSchema } from './editSchema';
import { PLAN_LIMITS, type Plan } from './plan';
import { planFault, readPlanFile } from './planFile';

const sheets = shippedSheets();
const plan = everyPart(sheets);

/** Why an edit is refused: its shape first, then what the plan says. */
function editFaults(edit: unknown): readonly string[] {
  const { error } = editSchema.validate(edit, { convert: false });
  if (error) return [error.message];
  const result = applyEdit(plan, edit as Edit, sheets);
  return result.ok ? [] : [`${result.problem.path} must be ${result.problem.expected}, not ${result.problem.got}`];
}

function fileFaults(document: unknown): readonly string[] {
  const read = readPlanFile(document);
  if (!read.ok) return [`${read.path}: ${read.fault}`];
  const fault = planFault(read.file.plan, sheets);
  return fault ? [`${fault.path}: ${fault.fault}`] : [];
}

function expectAsRead(file: string, lines: readonly string[]): void {
  const path = join(CORPUS, file);
  const text = lines.join('\n').trim();
  if (process.env['ROOF_CHART_WRITE']) writeFileSync(path, `${text}\n`);
  expect(text.split('\n')).toEqual(readFileSync(path, 'utf8').trimEnd().split('\n'));
}

test('the edits are of every kind, and all of them apply', () => {
  expect([...new Set(EVERY_EDIT.map(({ kind }) => kind))].toSorted()).toEqual([...EDIT_KINDS].toSorted());
  expect(EVERY_EDIT.flatMap((edit) => editFaults(edit).map((fault) => ({ edit, fault })))).toEqual([]);
});

test('what an edit is refused for, at every place that it can have, is as it was read', () => {
  const lines = EVERY_EDIT.flatMap((edit, n) => refusals(new Map([[`${edit.kind} (${n + 1})`, edit]]), editFaults));
  expectAsRead('refusals-edit.txt', lines);
});

test('what a plan file is refused for, at every place that one of the corpus has, is as it was read', () => {
  const whole = EVERY_EDIT.filter(({ kind }) => kind !== 'remove-placement' && kind !== 'switch-board').reduce<Plan>((before, edit) => {
    const result = applyEdit(before, edit, sheets);
    return result.ok ? result.plan : before;
  }, plan);
  const documents = [['with something of every kind', whole] as const, ...corpusPlans()];
  expectAsRead('refusals-plan.txt', refusals(new Map(documents), fileFaults));
});

describe('how many a plan holds', () => {
  const at = (placement: string, terminal: string) => ({ placement, terminal });
  const day = '2026-11-30';
  const many = <T>(count: number, value: T): { [key: string]: T } =>
    Object.fromEntries(Array.from({ length: count }, (_, n) => [`x${n}:A`, value]));
  const note = { end: { to: 'ground' as const }, words: 'tested', date: day };
  test.each<[keyof Plan, number, unknown, Edit, Edit]>([
    ['series', PLAN_LIMITS.series, 330, { kind: 'series', ...at('l', 'A'), ohms: 1 }, { kind: 'series', ...at('l', 'A'), ohms: null }],
    [
      'pulls',
      PLAN_LIMITS.pulls,
      { ohms: 4700, to: 'supply' },
      { kind: 'pull', ...at('s', 'SDA'), pull: { ohms: 1, to: 'ground' } },
      { kind: 'pull', ...at('s', 'SDA'), pull: null },
    ],
    [
      'drivers',
      PLAN_LIMITS.drivers,
      { kind: 'npn', ohms: 1000 },
      { kind: 'driver', ...at('m', 'A1'), driver: { kind: 'npn', ohms: 1 } },
      { kind: 'driver', ...at('m', 'A1'), driver: null },
    ],
    [
      'softwarePwm',
      PLAN_LIMITS.series,
      true,
      { kind: 'software-pwm', ...at('c', 'R'), on: true },
      { kind: 'software-pwm', ...at('c', 'R'), on: false },
    ],
    [
      'wireNotes',
      PLAN_LIMITS.wireNotes,
      note,
      { kind: 'wire-note', ...at('s', 'SDA'), note },
      { kind: 'wire-note', ...at('s', 'SDA'), note: null },
    ],
    [
      'wishes',
      PLAN_LIMITS.wishes,
      { pin: 'GP1' },
      { kind: 'wish', ...at('s', 'SDA'), wish: { pin: 'GP8' } },
      { kind: 'wish', ...at('s', 'SDA'), wish: null },
    ],
    [
      'steps',
      PLAN_LIMITS.steps,
      'done',
      { kind: 'step', step: 'part:s:seat', done: 'yes' },
      { kind: 'step', step: 'part:s:seat', done: null },
    ],
    [
      'references',
      PLAN_LIMITS.references,
      'R1',
      { kind: 'reference', component: 'l:series.A', name: 'Q9' },
      { kind: 'reference', component: 'l:series.A', name: null },
    ],
    [
      'benchNotes',
      PLAN_LIMITS.benchNotes,
      { sheet: 'x', fact: 'y', words: 'measured', date: day },
      { kind: 'bench-note', sheet: 'led-red-5mm', fact: 'polarity/forwardVolts/max', note: { value: 2.4, words: 'measured', date: day } },
      { kind: 'bench-note', sheet: 'led-red-5mm', fact: 'polarity/forwardVolts/max', note: null },
    ],
  ])('%s: one below the limit is taken, one more is not; what is there can be changed and taken away', (map, limit, value, put, remove) => {
    const below = { ...plan, [map]: many(limit - 1, value) } as Plan;
    const filled = applyEdit(below, put, sheets);
    if (!filled.ok) throw new Error(JSON.stringify(filled.problem));
    expect(Object.keys(filled.plan[map] as object)).toHaveLength(limit);
    // The same once more is a change of one that is there.
    expect(applyEdit(filled.plan, put, sheets)).toMatchObject({ ok: true, plan: filled.plan });
    const full = { ...plan, [map]: many(limit, value) } as Plan;
    expect(applyEdit(full, put, sheets)).toMatchObject({
      ok: false,
      problem: { expected: expect.stringMatching(new RegExp(`^at most ${limit} `)) as string, got: 'one more' },
    });
    // What was put there is taken away, and each is taken back by its inverse.
    for (const [from, edit] of [
      [below, put],
      [filled.plan, remove],
    ] as const) {
      const done = applyEdit(from, edit, sheets);
      if (!done.ok) throw new Error(JSON.stringify(done.problem));
      expect(done.inverse.reduce((now, one) => (applyEdit(now, one, sheets) as { plan: Plan }).plan, done.plan)).toEqual(from);
    }
  });

  test('parts', () => {
    const placements = Array.from({ length: PLAN_LIMITS.placements - 1 }, (_, n) => ({ ...plan.placements[2]!, id: `x${n}` }));
    const filled = applyEdit({ ...stick(), placements }, add('l', 'led-red-5mm'), sheets);
    expect(filled).toMatchObject({ ok: true });
    expect(filled.ok && applyEdit(filled.plan, add('l2', 'led-red-5mm'), sheets)).toMatchObject({
      ok: false,
      problem: { path: 'placement', expected: 'at most 200 parts in a plan', got: 'one more' },
    });
  });
});
