import fc from 'fast-check';
import { shippedSheets } from '../../tests/catalogue';
import { corruptedPlan } from '../../tests/corruptedPlan';
import { cases, runs } from '../../tests/runs';
import { policeRemedies } from './policeRemedies';
import { reviewPlan } from './review';

const sheets = shippedSheets();

test('whatever is wrong with a plan, every remedy that is offered applies, changes something, takes its finding away, harms nothing and has words', () => {
  let offered = 0;
  fc.assert(
    fc.property(corruptedPlan(sheets), (plan) => {
      const result = reviewPlan(plan, sheets);
      if (!result.ok) throw new Error('no review');
      const { findings } = result.review;
      offered += findings.reduce((sum, finding) => sum + finding.remedies.length, 0);
      expect(policeRemedies(plan, sheets, findings)).toEqual([]);
    }),
    { numRuns: runs(50) },
  );
  // Plans without a remedy would prove nothing.
  expect(offered).toBeGreaterThan(cases(120));
}, 60_000);
