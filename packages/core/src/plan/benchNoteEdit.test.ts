import { shippedSheets, versionedSheets } from '../../tests/catalogue';
import { add, edited, stick } from '../../tests/makePlan';
import { applyEdit } from './applyEdits';
import type { Edit } from './edit';
import type { Plan } from './plan';

const sheets = shippedSheets();
const OLED = 'oled-096-ssd1306-i2c';
const note = (sheet: string, fact: string, value?: number | string): Edit => ({
  kind: 'bench-note',
  sheet,
  fact,
  note: { ...(value === undefined ? {} : { value }), words: 'measured', date: '2026-11-25' },
});
const oled = edited(stick(), sheets, add('oled', OLED));
const done = (plan: Plan, edit: Edit) => applyEdit(plan, edit, sheets);

test.each([
  ['a sheet that nobody knows', note('no-such-part', 'supply/typicalMilliamps', 1), 'sheet', 'no-such-part'],
  ['what names the sheet', note(OLED, 'version', 2), 'fact', 'version'],
  ['the id of a member', note(OLED, 'terminals/SDA/id', 'X'), 'fact', 'terminals/SDA/id'],
  ['the source itself', note(OLED, 'supply/source/trust', 'bench'), 'fact', 'supply/source/trust'],
  ['a path that leads nowhere', note(OLED, 'supply/heat/most', 2), 'fact', 'supply/heat/most'],
  ['a group that is not there', note(OLED, 'polarity'), 'fact', 'polarity'],
  ['a value of another kind', note(OLED, 'supply/typicalMilliamps', 'much'), 'note.value', 'much'],
  ['a least above the most', note(OLED, 'supply/volts/min', 9), 'note.value', '9'],
  ['no note to take away', { kind: 'bench-note', sheet: OLED, fact: 'supply', note: null } as const, 'fact', `${OLED}:supply`],
])('refused: %s', (_, edit, path, got) => {
  expect(done(oled, edit)).toMatchObject({ ok: false, problem: { path, got: expect.stringContaining(got) as string } });
});

test('the place of the fault is in what is expected', () => {
  const refused = done(oled, note(OLED, 'supply/typicalMilliamps', 'much'));
  expect(refused).toMatchObject({
    problem: { expected: expect.stringMatching(/^a value for which the sheet is valid \(supply\.typ/) as string },
  });
});

test('a note belongs to a sheet of the plan, or to the newest of a part that is not in it', () => {
  expect(done(oled, note('humidity-sht31', 'supply/typicalMilliamps', 1)).ok).toBe(true);
  expect(done(oled, note('esp32-stick-38', 'rails/3v3/budgetMilliamps', 200)).ok).toBe(true);
});

test('a sheet that the plan uses counts in the version that it uses', () => {
  const all = versionedSheets();
  const [older] = [...all.versions.values()].flatMap((sheet) => {
    const ref = 'sheet' in sheet ? sheet.sheet : sheet;
    const newest = all.parts.get(ref.id)?.sheet;
    return newest && newest.version > ref.version ? [ref] : [];
  });
  // Without an older version in the catalogue there is nothing to tell apart.
  if (!older) return;
  const plan = { ...oled, placements: [{ ...oled.placements[0]!, sheet: { id: older.id, version: older.version } }] };
  expect(applyEdit(plan, note(older.id, 'version', 9), all)).toMatchObject({ ok: false, problem: { path: 'fact' } });
});

test('undo restores the note that was there, with its words and without a value where it had none', () => {
  for (const before of [note(OLED, 'supply'), note(OLED, 'supply/typicalMilliamps', 22)]) {
    const noted = done(oled, before);
    if (!noted.ok || before.kind !== 'bench-note') throw new Error('refused');
    const again = done(noted.plan, { ...before, note: { words: 'once more', date: '2026-11-26' } });
    if (!again.ok) throw new Error('refused');
    expect(again.plan).not.toEqual(noted.plan);
    const undone = done(again.plan, again.inverse[0]!);
    expect(undone.ok && undone.plan).toEqual(noted.plan);
    expect(again.inverse[0]).toEqual(before);
  }
});
