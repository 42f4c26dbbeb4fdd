import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { shippedSheets } from '../../tests/catalogue';
import { CORPUS, corpusPlans, drawCorpus, messagesNotShown } from '../../tests/corpus';
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

/** Messages that only facts of other sheets bring about: their checks have tests with such sheets. */
const ELSEWHERE = [
  'chain-order/read',
  'check-failed/failed',
  'driver-wiring/together',
  'driver-wiring/doubled',
  'ladder-ambiguous/thin',
  'led-over-current/few',
  'level-no-margin/low-to-part',
  'level-no-margin/low-to-board',
  'level-no-margin/thin-low-to-board',
  'package-current-over/one',
  'pin-cannot/output-only',
  'polarity-mismatch/driver',
  'port-current-over/port',
  'pullup-too-weak/never',
];

test('every message of every check is in a plan of the corpus, or in the tests of its check', () => {
  expect(messagesNotShown([...plans.values()], sheets)).toEqual(ELSEWHERE);
});
