import { shippedSheets } from '../../../tests/catalogue';
import { corpusPlans } from '../../../tests/corpus';
import { readBackHoles } from '../../../tests/holeReadBack';
import { isPlain, knownNets } from '../../../tests/plainNets';
import { wiredPlan } from '../../../tests/randomPlans';
import { isSoak } from '../../../tests/runs';
import { findNets } from '../../nets/nets';
import { applyEdits } from '../../plan/applyEdits';
import type { Breadboard, Plan } from '../../plan/plan';
import { stepSchema } from '../../plan/planSchema';
import { buildSheet } from '../buildSheet';
import { type Hole, pitchesBetween } from './breadboard';
import { type HolePlan, holePlan } from './holePlan';
import { placeHoles } from './placeHoles';

const sheets = shippedSheets();
const BOARDS: readonly Breadboard[] = [
  { rows: 63, boards: 1, rails: 'whole' },
  { rows: 63, boards: 2, rails: 'split' },
  { rows: 30, boards: 3, rails: 'split' },
  { rows: 63, boards: 2, rails: 'split', arrangement: 'side by side' },
];

/** A plan with everything that fits in its place. */
function laid(plan: Plan, breadboard: Breadboard): Plan {
  const set = applyEdits(plan, [{ kind: 'breadboard', breadboard }], sheets);
  if (!set.ok) throw new Error(JSON.stringify(set.problem));
  const found = placeHoles(set.plan, sheets, 'all', 200);
  if (!found) throw new Error(`${plan.name}: nothing fits`);
  const done = applyEdits(set.plan, found.edits, sheets);
  if (!done.ok) throw new Error(JSON.stringify(done.problem));
  return done.plan;
}

const plans = [
  ...[...corpusPlans().values()].filter((_, at) => isSoak || at % 6 === 0),
  ...Array.from({ length: isSoak ? 60 : 12 }, (_, at) => wiredPlan(sheets, at + 1, [3, 10])),
].filter(({ placements }) => placements.length > 0);
const laidPlans = plans.map((plan, at) => laid(plan, BOARDS[at % BOARDS.length]!));

/** The nets of a plan as the checks see them. */
const netsOf = (plan: Plan, of: ReadonlySet<string>): readonly string[] =>
  findNets(plan, sheets)
    .list.map(({ terminals }) =>
      terminals
        .map(({ key }) => key)
        .filter((key) => of.has(key))
        .toSorted()
        .join(' '),
    )
    .filter((keys) => keys !== '')
    .toSorted();

test('a tester with two probes reads the nets of the plan from the holes', () => {
  const plain = laidPlans.filter(isPlain);
  expect(plain.length).toBeGreaterThan(15);
  for (const plan of plain) {
    const { byTerminal } = findNets(plan, sheets);
    const read = knownNets(plan, sheets, readBackHoles(plan, sheets, holePlan(plan, sheets)!));
    const soldered = new Set(plan.placements.filter(({ onBoard }) => onBoard).map(({ id }) => id));
    const own = new Set([...byTerminal.keys()].filter((key) => !soldered.has(key.split(':')[0]!)));
    expect([plan.name, read]).toEqual([plan.name, netsOf(plan, own)]);
  }
});

/** Every hole that something is in. */
const holesOf = ({ items, bridges, jumpers, leads }: HolePlan): readonly Hole[] => [
  ...items.flatMap(({ legs }) => legs.map(({ hole }) => hole)),
  ...bridges.flatMap(({ holes }) => holes),
  ...jumpers.flatMap(({ from, to }) => [from, to]),
  ...leads.flatMap(({ to }) => (to.at === 'hole' ? [to.hole] : [])),
];

test('nothing lacks a hole, and no hole has two things in it', () => {
  for (const plan of laidPlans) {
    const holes = holePlan(plan, sheets)!;
    expect([plan.name, holes.lacking, holes.unplaced]).toEqual([plan.name, 0, []]);
    const keys = holesOf(holes).map((hole) => JSON.stringify(hole));
    expect([plan.name, keys.filter((key, at) => keys.indexOf(key) < at)]).toEqual([plan.name, []]);
  }
});

test('the legs of resistors, capacitors and diodes reach: most within 25 mm, all within 60 mm', () => {
  const lengths = laidPlans.flatMap((plan) =>
    holePlan(plan, sheets)!.bridges.map(({ holes: [from, to] }) => pitchesBetween(plan.breadboard!, from, to)),
  );
  expect(lengths.length).toBeGreaterThan(20);
  expect(Math.max(...lengths)).toBeLessThanOrEqual(24);
  expect(lengths.filter((length) => length > 10).length).toBeLessThan(lengths.length / 4);
});

test('the nets of the demos reach no further than they did: moves and exchanges find what the cut search does not', () => {
  const spanOf = (id: string) =>
    placeHoles({ ...corpusPlans().get(id)!, breadboard: { rows: 63, boards: 2, rails: 'whole' } }, sheets, 'all', 300)!.span;
  expect(spanOf('workbench-scoreboard')).toBeLessThanOrEqual(356);
  expect(spanOf('hive-watch')).toBeLessThanOrEqual(400);
});

test('every step of the build has an id of its own that can be kept', () => {
  for (const plan of laidPlans) {
    const ids = buildSheet(plan, sheets)!.flatMap(({ steps }) => steps.map(({ id }) => id));
    expect([plan.name, ids.filter((id, at) => ids.indexOf(id) < at)]).toEqual([plan.name, []]);
    expect(ids.filter((id) => id.startsWith('rail:') || id.startsWith('plug:')).filter((id) => stepSchema.validate(id).error)).toEqual([]);
  }
});
