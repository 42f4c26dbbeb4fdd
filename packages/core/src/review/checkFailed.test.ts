import fc from 'fast-check';
import { shippedSheets } from '../../tests/catalogue';
import { add, edited, stick, wire } from '../../tests/makePlan';
import { cases, runs } from '../../tests/runs';
import { describeFinding } from '../text/describe';
import { CHECKS } from '../checks/engine/registry';
import type { Check } from '../checks/engine/check';
import { applyEdits } from '../plan/applyEdits';
import { newPlan } from '../plan/plan';
import { readPlanFile } from '../plan/planFile';
import { rescuePlanFile } from '../plan/rescuePlan';
import { editsSchema } from '../plan/editSchema';
import { readSheet } from '../sheets/readSheet';
import { indexSheets } from '../sheets/sheetIndex';
import { additionOf } from './addition';
import { contextOf, reviewPlan, runChecks } from './review';

const sheets = shippedSheets();
const plan = edited(stick(), sheets, add('a', 'led-red-5mm'), add('b', 'led-red-5mm'), wire('a:A', 'GP2'), wire('b:A', 'GP2'));

describe('a check that throws', () => {
  const broken: Check = {
    ...CHECKS.find((check) => check.code === 'pin-shared')!,
    examine: () => {
      throw new RangeError('Invalid volts 0: expected more');
    },
  };

  test('is reported with its code, and the rest of the review stands', () => {
    const context = contextOf(plan, sheets)!;
    const others = runChecks(context).filter((finding) => finding.code !== 'pin-shared');
    const found = runChecks(
      context,
      CHECKS.map((check) => (check.code === 'pin-shared' ? broken : check)),
    );
    const [failed] = found.filter((finding) => finding.code === 'check-failed');
    expect(found.filter((finding) => finding !== failed).map((finding) => finding.id)).toEqual(others.map((finding) => finding.id));
    expect([failed!.level, failed!.id, failed!.remedies]).toEqual(['risk', 'check-failed/failed/|||pin-shared', []]);
    expect(describeFinding(plan, sheets, failed!)).toMatchObject({
      title: 'Check failed: pin-shared',
      why: expect.stringContaining('Invalid volts 0: expected more'),
    });
  });
});

type Leaf = { readonly holder: Record<string, unknown>; readonly key: string };

/** Every number in a document. */
function numbersIn(node: unknown): readonly Leaf[] {
  if (node === null || typeof node !== 'object') return [];
  const holder = node as Record<string, unknown>;
  return Object.entries(holder).flatMap(([key, value]) => (typeof value === 'number' ? [{ holder, key }] : numbersIn(value)));
}

const numbersOf = (value: unknown): readonly number[] => {
  if (typeof value === 'number') return [value];
  return value !== null && typeof value === 'object' ? Object.values(value).flatMap(numbersOf) : [];
};

test('a fact of 0, or of a size that nothing has, is refused with the sheet, or every check stands it', () => {
  const all = [...sheets.boards.values(), ...sheets.parts.values()].map((indexed) => indexed.sheet);
  const boards = all.filter((sheet) => sheet.kind === 'board');
  const seen = { refused: 0, stood: 0 };
  fc.assert(
    fc.property(fc.nat(), fc.nat(), fc.constantFrom(0, 1e-12, 1e12), (which, place, value) => {
      const document = structuredClone(all[which % all.length]!) as unknown as Record<string, unknown>;
      const leaves = numbersIn(document).filter(({ key }) => key !== 'version' && key !== 'schema');
      const leaf = leaves[place % leaves.length]!;
      leaf.holder[leaf.key] = value;
      const read = readSheet(document);
      if (!read.ok) {
        seen.refused += 1;
        return;
      }
      seen.stood += 1;
      const own = indexSheets([...all.filter((sheet) => sheet.id !== read.sheet.id), read.sheet]);
      const board = read.sheet.kind === 'board' ? read.sheet : boards[which % boards.length]!;
      const part = read.sheet.kind === 'part' ? read.sheet : [...own.parts.values()][place % own.parts.size]!.sheet;
      const empty = newPlan('p', 'P', { id: board.id, version: board.version });
      const addition = additionOf(empty, own, part);
      const result = addition ? applyEdits(empty, addition.edits, own) : { ok: true as const, plan: empty };
      if (!result.ok) throw new Error(JSON.stringify(result.problem));
      const review = reviewPlan(result.plan, own);
      if (!review.ok) throw new Error('no review');
      const { findings, ledgers } = review.review;
      expect(findings.filter((finding) => finding.code === 'check-failed')).toEqual([]);
      expect(numbersOf([findings.map((finding) => finding.data), ledgers]).filter((number) => Number.isNaN(number))).toEqual([]);
    }),
    { numRuns: runs(250) },
  );
  expect([seen.refused > cases(20), seen.stood > cases(20)]).toEqual([true, true]);
}, 120_000);

describe('a part whose id reaches for the prototype of objects is refused at every door', () => {
  const placement = { id: 'constructor', sheet: { id: 'led-red-5mm', version: 1 }, name: 'Lamp', straps: {} };
  const document = { ...JSON.parse(JSON.stringify(stick())), placements: [placement] } as unknown;

  test('edits, plan files, and files that are rescued', () => {
    expect(editsSchema.validate([{ kind: 'add-placement', placement }]).error?.message).toMatch(/fails to match the id pattern/);
    expect(readPlanFile(document)).toMatchObject({ ok: false, path: 'placements.0.id' });
    const rescued = rescuePlanFile(document);
    expect(rescued.ok ? rescued.file.plan.placements : []).toEqual([]);
  });
});
