import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { shippedSheets } from '../../tests/catalogue';
import { CORPUS, corpusPlans, drawCorpus, notShown } from '../../tests/corpus';
import type { Plan } from '../plan/plan';
import { planReport } from '../../tests/planReport';

const sheets = shippedSheets();
const write = process.env['ROOF_CHART_WRITE'];
if (write === 'plans') {
  // One plan a line, to be looked at before those that are drawn.
  const given = process.env['ROOF_CHART_PLANS'];
  const first = given ? readFileSync(given, 'utf8').trim().split('\n') : [];
  const drawn = drawCorpus(
    sheets,
    first.map((line) => JSON.parse(line) as Plan),
    Number(process.env['ROOF_CHART_TRIES'] ?? 3000),
    7,
  );
  for (const [at, plan] of drawn.entries())
    writeFileSync(join(CORPUS, `${String(at + 1).padStart(3, '0')}.json`), `${JSON.stringify({ ...plan, name: `Corpus ${at + 1}` })}\n`);
}
const plans = corpusPlans();

test.each([...plans])('plan %s of the corpus: all that is worked out of it is as it was read', (name, plan) => {
  const file = join(CORPUS, `${name}.txt`);
  const report = planReport(plan, sheets);
  if (write) writeFileSync(file, `${report.join('\n')}\n`);
  expect(report).toEqual(readFileSync(file, 'utf8').trimEnd().split('\n'));
});

/** What only facts of other sheets bring about, or plans that are seldom: the tests of the checks have these. */
const ELSEWHERE = [
  'address-reserved: strap-wire',
  'capacitance-over: own-bus',
  'chain-order/read',
  'check-failed/failed',
  'data-out-held: off',
  'drive-over: fit-each',
  'driver-wiring/doubled',
  'driver-wiring/together',
  'ladder-ambiguous/thin',
  'led-never-off/glows',
  'led-never-off/on',
  'led-never-off: to-rail',
  'led-over-current/few',
  'led-over-current: set',
  'level-no-margin/low-to-board',
  'level-no-margin/low-to-part',
  'level-no-margin/thin-low-to-board',
  'level-no-margin: divide',
  'package-current-over/one',
  'package-current-over: fit-each',
  'pin-cannot/output-only',
  'polarity-mismatch/driver',
  'pullup-too-weak/never',
  'pullup-too-weak: shift',
  'supply-wrong/led-between-pins',
  'timer-shared: software-pwm',
];

test('every message and every fix of every check is in a plan of the corpus, or in the tests of its check', () => {
  expect(notShown([...plans.values()], sheets).toSorted()).toEqual(ELSEWHERE);
});
