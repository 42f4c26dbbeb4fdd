import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { CHECKS } from '../src/checks/engine/registry';
import { applyEdits } from '../src/plan/applyEdits';
import type { Edit } from '../src/plan/edit';
import { type Plan, PLAN_DEFAULTS, splitKey } from '../src/plan/plan';
import { readPlanFile } from '../src/plan/planFile';
import { reviewPlan } from '../src/review/review';
import type { Sheets } from '../src/sheets/sheetIndex';
import { corruptedPlan } from './corruptedPlan';

export const CORPUS = join(__dirname, 'corpus');

const DEMOS = join(__dirname, '../../../demo/plans');

/** The plans of a folder, by the names of their files. */
export const plansIn = (folder: string): readonly (readonly [string, Plan])[] =>
  readdirSync(folder)
    .filter((file) => file.endsWith('.json'))
    .map((file) => [
      file.slice(0, -'.json'.length),
      { ...PLAN_DEFAULTS, ...(JSON.parse(readFileSync(join(folder, file), 'utf8')) as Plan) },
    ]);

/** The plans of the corpus and those of the demo, by name. */
export const corpusPlans = (): ReadonlyMap<string, Plan> =>
  new Map([...plansIn(CORPUS), ...plansIn(DEMOS).map(([name, document]) => [name, planOfFile(document)] as const)]);

function planOfFile(document: unknown): Plan {
  const read = readPlanFile(document);
  if (!read.ok) throw new Error(read.fault);
  return read.file.plan;
}

/** What a plan shows: each message of each check, and each kind of fix. */
function shownBy(plan: Plan, sheets: Sheets): ReadonlySet<string> {
  const reviewed = reviewPlan(plan, sheets);
  const findings = reviewed.ok ? reviewed.review.findings : [];
  return new Set(
    findings.flatMap(({ code, message, level, remedies }) => [
      `${code}/${message}/${level}`,
      ...remedies.map(({ label }) => `${code}: ${label}`),
    ]),
  );
}

/** The same with as little as shows it: parts, wires and values that are not needed are left out. */
function shrunk(plan: Plan, wanted: readonly string[], sheets: Sheets): Plan {
  let least = plan;
  const without = (edits: readonly Edit[]) => {
    const result = applyEdits(least, edits, sheets);
    if (!result.ok) return;
    const shown = shownBy(result.plan, sheets);
    if (wanted.every((one) => shown.has(one))) least = result.plan;
  };
  for (const { id } of plan.placements) without([{ kind: 'remove-placement', placement: id }]);
  for (const key of Object.keys(least.wires)) without([{ kind: 'unwire', ...splitKey(key) }]);
  for (const key of Object.keys(least.series)) without([{ kind: 'series', ...splitKey(key), ohms: null }]);
  for (const key of Object.keys(least.pulls)) without([{ kind: 'pull', ...splitKey(key), pull: null }]);
  for (const key of Object.keys(least.drivers)) without([{ kind: 'driver', ...splitKey(key), driver: null }]);
  for (const segment of Object.keys(least.busSettings)) without([{ kind: 'bus-settings', segment, settings: null }]);
  return least;
}

/** Plans, each with something to show that none before it does, made small.
 *  @param given those that are looked at first
 *  @param tries how many are drawn besides */
export function drawCorpus(sheets: Sheets, given: readonly Plan[], tries: number, seed: number): readonly Plan[] {
  const seen = new Set<string>();
  const chosen: Plan[] = [];
  for (const plan of [...given, ...fc.sample(corruptedPlan(sheets), { numRuns: tries, seed })]) {
    const fresh = [...shownBy(plan, sheets)].filter((one) => !seen.has(one));
    if (fresh.length === 0) continue;
    for (const one of fresh) seen.add(one);
    chosen.push(shrunk(plan, fresh, sheets));
  }
  return chosen;
}

/** Messages and kinds of fixes of checks that no plan of a list shows. */
export function notShown(plans: readonly Plan[], sheets: Sheets): readonly string[] {
  const seen = new Set(
    plans.flatMap((plan) => [...shownBy(plan, sheets)].map((one) => (one.includes('/') ? one.split('/').slice(0, 2).join('/') : one))),
  );
  return CHECKS.flatMap(({ code, messages, remedies }) => [
    ...Object.keys(messages).map((message) => `${code}/${message}`),
    ...Object.keys(remedies).map((label) => `${code}: ${label}`),
  ]).filter((one) => !seen.has(one));
}
