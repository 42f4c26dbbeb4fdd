import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { shippedSheets } from '../../tests/catalogue';
import { CORPUS, corpusPlans, plansIn } from '../../tests/corpus';
import { applyEdits } from '../plan/applyEdits';
import type { Breadboard, Plan } from '../plan/plan';
import { stepText } from '../text/views/buildText';
import { holeNetName, jumperText, leadText, plugText } from '../text/views/holeText';
import { buildSheet } from './buildSheet';
import { EXPORT_FORMATS } from './exports';
import { holeText } from './holes/breadboard';
import { holePlan } from './holes/holePlan';
import { placeHoles } from './holes/placeHoles';

const sheets = shippedSheets();
const FOLDER = join(CORPUS, 'outputs');
/** What programs and people read as text; the pictures and the other data formats are read back elsewhere. */
const FORMATS = ['cpp', 'rust', 'overlay', 'csv', 'components'];
const BREADBOARDS: readonly Breadboard[] = [
  { rows: 63, boards: 1, rails: 'whole' },
  { rows: 30, boards: 4, rails: 'split' },
  { rows: 63, boards: 2, rails: 'split', arrangement: 'side by side' },
];
/** So few placements are looked at that it takes no time; the result is the same everywhere. */
const NODES = 100;

function laid(plan: Plan, breadboard: Breadboard): Plan {
  const bare = { ...plan, breadboard };
  const found = placeHoles(bare, sheets, 'all', NODES);
  const done = found && applyEdits(bare, found.edits, sheets);
  if (!done?.ok) throw new Error(`${plan.name} cannot be placed`);
  return done.plan;
}

function holeLines(plan: Plan): readonly string[] {
  const holes = holePlan(plan, sheets)!;
  const { breadboard, items, bridges, jumpers, leads, off, rails, length, lacking } = holes;
  return [
    `${breadboard.boards} × ${breadboard.rows}, ${length} pitches of wire, ${lacking} without a hole`,
    ...rails.map(({ half, sign, conductor }) => `rail ${half} ${sign}: ${conductor.id}`),
    ...items.map((item) => `${item.id}: ${item.legs.length === 0 ? `row ${item.row}` : plugText(plan, sheets, item)}`),
    ...off.map(({ id, why }) => `off: ${id}, ${why}`),
    ...bridges.map(({ name, holes: ends }) => `${name}: ${ends.map((hole) => holeText(breadboard, hole)).join(' to ')}`),
    ...jumpers.map((jumper) => `${holeNetName(plan, sheets, jumper.net)}: ${jumper.colour} ${jumperText(breadboard, jumper)}`),
    ...leads.map((lead) => `${lead.colour} ${leadText(plan, sheets, lead)}`),
  ];
}

function reportOf(plan: Plan): readonly string[] {
  const steps = buildSheet(plan, sheets)!.flatMap(({ id, steps: own }) =>
    own.map((step) => {
      const { head, text, detail, holes } = stepText(plan, sheets, step);
      return `${id} | ${step.id} | ${step.value} | ${head}: ${text}${[detail, holes].map((one) => (one ? ` | ${one}` : '')).join('')}`;
    }),
  );
  const texts = EXPORT_FORMATS.filter(({ id }) => FORMATS.includes(id)).flatMap(({ id, write }) => [
    `== ${id}`,
    ...(write(plan, sheets) ?? 'nothing').split('\n'),
  ]);
  return ['== holes', ...holeLines(plan), '== build', ...steps, ...texts].map((line) => line.trimEnd());
}

const named = [...corpusPlans()].filter(([name]) => !/^\d+$/.test(name));
const plans = [...named, ...plansIn(FOLDER)].map(
  ([name, plan]) => [name, laid(plan, BREADBOARDS[name.length % BREADBOARDS.length]!)] as const,
);

test.each(plans)('%s: its exports, build steps and holes are as they were read', (name, plan) => {
  const file = join(FOLDER, `${name}.txt`);
  const report = reportOf(plan).join('\n');
  if (process.env['ROOF_CHART_WRITE']) {
    mkdirSync(FOLDER, { recursive: true });
    writeFileSync(file, `${report.trimEnd()}\n`);
  }
  expect(report.trimEnd().split('\n')).toEqual(readFileSync(file, 'utf8').trimEnd().split('\n'));
});
