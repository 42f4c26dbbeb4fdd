import fc from 'fast-check';
import { shippedSheets } from '../../tests/catalogue';
import { corruptedPlan } from '../../tests/corruptedPlan';
import { runs } from '../../tests/runs';
import { CALCULATIONS } from '../electrics/calculations/calculations';
import { reviewPlan } from '../review/review';
import type { Data } from './engine/check';
import { CHECKS, checkOf } from './engine/registry';
import { fillTemplate, describeFinding, describeFix } from '../text/describe';

const sheets = shippedSheets();

/** Phrases that people had to translate; the trade's own words stand in their place. */
const OLD =
  /\b(asks?|stands?|lives?|rests|wants?|hangs? (on|at|under)|comes (in|out|there)|leans on|content with|nobody|letters|remed(y|ies)|clash(es)?|told apart|(times|of) a second|at the most|at the least|takes most|has to (carry|give)|as much as|drawer|settl(ed|ing) plan)\b/i;

const texts = [
  ...CHECKS.flatMap((check) => [
    check.question,
    ...Object.values(check.messages).flatMap(({ title, text, why }) => [title, text, why]),
    ...Object.values(check.remedies),
    check.otherwise ?? '',
  ]),
  ...CALCULATIONS.flatMap(({ words, inputs, outputs }) => [words, ...inputs.map((one) => one.words), ...outputs.map((one) => one.words)]),
];

test('findings and calculators use the words of the trade', () => {
  expect(texts.length).toBeGreaterThan(600);
  expect(texts.filter((text) => OLD.test(text.replace(/\{\w+\}/g, '')))).toEqual([]);
});

test('titles are no sentences, texts and reasons are; fixes begin with a verb', () => {
  for (const { code, messages, remedies } of CHECKS) {
    for (const { title, text, why } of Object.values(messages)) {
      expect([code, title]).toEqual([code, expect.not.stringMatching(/[.!]$/)]);
      expect([code, text]).toEqual([code, expect.stringMatching(/[.:}]$/)]);
      expect([code, why]).toEqual([code, expect.stringMatching(/\.$/)]);
    }
    for (const fix of Object.values(remedies)) expect([code, fix]).toEqual([code, expect.stringMatching(/^[A-Z][a-z]+(-[a-z]+)? /)]);
  }
});

test('what is said of any spoilt plan has no hole and no plural of one', () => {
  fc.assert(
    fc.property(corruptedPlan(sheets), (plan) => {
      const result = reviewPlan(plan, sheets);
      if (!result.ok) return;
      for (const finding of result.review.findings) {
        const { title, text, why } = describeFinding(plan, sheets, finding);
        const fixes = finding.remedies.map((remedy) => describeFix(plan, sheets, finding.code, remedy));
        for (const said of [title, text, why, ...fixes]) {
          expect([finding.code, said]).toEqual([finding.code, expect.not.stringMatching(/[{}]|undefined|NaN|\bnull\b|\[object/)]);
          expect([finding.code, said]).toEqual([
            finding.code,
            expect.not.stringMatching(/(^|[ (])1 (wires|lines|parts|devices|pins|digits|signals|characters|rows)\b/),
          ]);
        }
      }
    }),
    { numRuns: runs(40) },
  );
});

/** The data with every counted noun counted differently. */
const recounted = (data: Data, value: number): Data =>
  Object.fromEntries(
    Object.entries(data).map(([name, datum]) => [name, datum.is === 'count' && datum.noun !== undefined ? { ...datum, value } : datum]),
  );

test('counted nouns read right for none, one and many', () => {
  const seen = new Set<string>();
  fc.assert(
    fc.property(corruptedPlan(sheets), (plan) => {
      const result = reviewPlan(plan, sheets);
      if (!result.ok) return;
      for (const { code, message, data } of result.review.findings) {
        const nouns = Object.values(data).flatMap((datum) => (datum.is === 'count' && datum.noun !== undefined ? [datum.noun] : []));
        const { title, text, why } = checkOf(code).messages[message]!;
        for (const value of [0, 1, 12])
          for (const said of [title, text, why].map((one) => fillTemplate(plan, sheets, one, recounted(data, value))))
            for (const noun of nouns) {
              seen.add(noun);
              expect([code, said]).toEqual([code, expect.not.stringMatching(new RegExp(`\\b1 ${noun}s\\b|\\b(0|12) ${noun}\\b`))]);
            }
      }
    }),
    { numRuns: runs(60) },
  );
  expect(seen.size).toBeGreaterThan(0);
});
