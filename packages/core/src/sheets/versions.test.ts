import { versionedSheets } from '../../tests/catalogue';
import { add, edited, stick, wire } from '../../tests/makePlan';
import { applyEdit } from '../plan/applyEdits';
import { diffPlans } from '../plan/diffPlans';
import { applyEdits } from '../plan/applyEdits';
import { diffSheets } from './diffSheets';
import type { PartSheet } from './partSheet';
import { boardSheet, indexSheets, partSheet } from './sheetIndex';

const sheets = versionedSheets();
const oled = (version: number): PartSheet => partSheet(sheets, { id: 'oled-096-ssd1306-i2c', version })!.sheet;

test('a plan keeps to the version it was made with; new parts get the newest', () => {
  expect([oled(1).version, oled(2).version, sheets.parts.get('oled-096-ssd1306-i2c')!.sheet.version]).toEqual([1, 2, 2]);
  expect(boardSheet(sheets, { id: 'rp2040-stick-40', version: 1 })!.sheet.version).toBe(1);
  // A version that is not there any more is stood in for by the newest.
  expect(oled(7).version).toBe(2);
});

test('taking a version is undone by taking the old one back', () => {
  const plan = edited(stick(), sheets, add('oled', 'oled-096-ssd1306-i2c'), wire('oled:SDA', 'GP4'));
  const result = applyEdit(plan, { kind: 'take-sheet', placement: 'oled', version: 2 }, sheets);
  expect(result).toMatchObject({ ok: true, plan: { placements: [{ sheet: { version: 2 } }] } });
  expect(result.ok && applyEdits(result.plan, result.inverse, sheets)).toMatchObject({ ok: true, plan });
  const board = edited(plan, sheets, { kind: 'take-sheet', placement: null, version: 2 });
  expect(board.board.version).toBe(2);
  expect(
    applyEdits(
      plan,
      diffPlans(plan, board, () => ''),
      sheets,
    ),
  ).toMatchObject({ ok: true, plan: board });
});

test('a version without a wired terminal, or that is not there, is refused with its place', () => {
  const without = structuredClone(oled(2)) as unknown as { version: number; terminals: { list: { id: string; number: number }[] } };
  without.version = 3;
  without.terminals.list.pop();
  const three = indexSheets([...sheets.versions.values()].map((s) => s.sheet).concat(without as never));
  const plan = edited(stick(), three, add('oled', 'oled-096-ssd1306-i2c'), wire('oled:SDA', 'GP4'));
  const take = (version: number) => applyEdit(plan, { kind: 'take-sheet', placement: 'oled', version }, three);
  expect(take(3)).toMatchObject({ ok: false, problem: { path: 'version', expected: expect.stringContaining('wired terminal SDA') } });
  expect(take(9)).toMatchObject({ ok: false, problem: { got: '9' } });
});

test('the difference of two versions names facts, not places in lists', () => {
  const changed = structuredClone(oled(1)) as unknown as Record<string, any>; // eslint-disable-line @typescript-eslint/no-explicit-any
  changed['version'] = 2;
  changed['supply'].volts.max = 3.6;
  changed['terminals'].list[3].also = ['DAT', 'SDI'];
  changed['twins'] = [];
  delete changed['size'];
  const found = diffSheets(oled(1), changed);
  expect(found).toContainEqual({ path: 'supply.volts.max', before: '5.5', after: '3.6' });
  expect(found).toContainEqual({ path: 'terminals.SDA.also', before: 'DAT', after: 'DAT, SDI' });
  expect(found).toContainEqual({ path: 'size', before: '0.96 inch, 128×64', after: undefined });
  expect(diffSheets(oled(1), structuredClone(oled(1)))).toEqual([]);
});
