import { mkdirSync, readFileSync } from 'node:fs';
import { cpus } from 'node:os';
import { join } from 'node:path';
import { readCatalogue } from '@roof-chart/catalogue/readCatalogue';
import { findNets } from '@roof-chart/core/nets/nets';
import { applyEdits } from '@roof-chart/core/plan/applyEdits';
import { newPlan, type Plan } from '@roof-chart/core/plan/plan';
import { readPlanFile } from '@roof-chart/core/plan/planFile';
import { assignPins } from '@roof-chart/core/assign/assignPins';
import { additionOf } from '@roof-chart/core/review/addition';
import { holePlan } from '@roof-chart/core/outputs/holes/holePlan';
import { placeHoles } from '@roof-chart/core/outputs/holes/placeHoles';
import { boardFit } from '@roof-chart/core/review/boardFit';
import { waysOut } from '@roof-chart/core/review/ways/waysOut';
import { reviewPlan } from '@roof-chart/core/review/review';
import { indexSheets } from '@roof-chart/core/sheets/sheetIndex';
import { growth } from './growth';
import { largeBoard } from './largeBoard';
import { largePlan, writeLarge } from './makeLarge';
import { compareWithOracle } from './oracle/compare';
import { table, timed } from './timing';

const root = process.cwd();

const catalogue = indexSheets([largeBoard(), ...readCatalogue(join(root, 'packages/catalogue'))]);
const hive = readHive();

/** The example as the application opens it: what its file leaves out has its usual value. */
function readHive(): Plan {
  const read = readPlanFile(JSON.parse(readFileSync(join(root, 'demo/plans/hive-watch.json'), 'utf8')));
  if (!read.ok) throw new Error(read.fault);
  return read.file.plan;
}

const large = largePlan(catalogue);
const folder = process.argv[2];
const move = [{ kind: 'wire', placement: 'light-1', terminal: 'A', end: { to: 'pin', pin: 'GP28' } }] as const;

/** The hive plan with two more parts, settled: what somebody has who asks what else fits. */
const twelve = ['servo-micro', 'potentiometer'].reduce(
  (plan, id) => additionOf(plan, catalogue, catalogue.parts.get(id)!.sheet)!.plan,
  assignPins(hive, catalogue)!.plan,
);
if (folder) {
  mkdirSync(folder, { recursive: true });
  writeLarge(root, folder, [large, { ...twelve, id: 'twelve', name: 'Twelve parts' }]);
}
const crowded = ['oled-096-ssd1306-spi', 'tft-18-st7735-spi', ...Array.from({ length: 12 }, () => 'button-push')].reduce<Plan>(
  (plan, id, at) => {
    const placement = { id: `p${at}`, sheet: { id, version: 1 }, name: id, straps: {} };
    const result = applyEdits(plan, [{ kind: 'add-placement', placement }], catalogue);
    return result.ok ? result.plan : plan;
  },
  newPlan('crowded', 'Crowded', { id: 'rp2040-stamp-14', version: 1 }),
);

/** The hive plan on a breadboard, before and after its parts are placed. */
const onBreadboard: Plan = { ...hive, breadboard: { rows: 63, boards: 1, rails: 'whole' } };
const places = applyEdits(onBreadboard, placeHoles(onBreadboard, catalogue)!.edits, catalogue);
if (!places.ok) throw new Error('the hive plan does not fit on a breadboard');
const placed = places.plan;

async function measure(): Promise<void> {
  console.log(`Node ${process.version}, ${cpus().length} × ${cpus()[0]?.model.trim()}\n`);
  console.log(
    table([
      timed('JSON copy of the hive plan (unit)', 500, () => JSON.parse(JSON.stringify(hive)) as Plan),
      timed('nets of the hive plan', 500, () => findNets({ ...hive }, catalogue)),
      timed('one edit', 500, () => applyEdits(hive, move, catalogue)),
      timed('review of the hive plan', 300, () => reviewPlan({ ...hive }, catalogue)),
      timed('review after one edit', 300, () => {
        const edited = applyEdits(hive, move, catalogue);
        return edited.ok && reviewPlan(edited.plan, catalogue);
      }),
      timed(`review of the large plan (${large.placements.length} parts, ${Object.keys(large.wires).length} wires, 144 pins)`, 60, () =>
        reviewPlan({ ...large }, catalogue),
      ),
      timed(`what adding each of ${catalogue.parts.size} parts would do to a plan of 12`, 30, () => {
        const plan = { ...twelve };
        return [...catalogue.parts.values()].map(({ sheet }) => additionOf(plan, catalogue, sheet));
      }),
      timed(`a plan of 12 on each of ${catalogue.boards.size} boards`, 10, () =>
        [...catalogue.boards.keys()].map((id) => boardFit({ ...twelve }, catalogue, id, { nodes: 3000 })),
      ),
      timed('places of the hive plan on a breadboard of 63 rows, proved', 5, () => placeHoles({ ...onBreadboard }, catalogue)),
      timed('holes, jumpers and rails of that plan', 100, () => holePlan({ ...placed }, catalogue)),
      timed('ways out of a plan of 14 on 11 pins', 10, () => waysOut({ ...crowded }, catalogue, { nodes: 800 })),
    ]),
  );

  console.log(`\n${growth(catalogue, largeBoard().id, 'rp2040-stick-40')}\n`);
  console.log(await compareWithOracle(Number(process.env['BENCH_INSTANCES'] ?? 500), catalogue));
}

await measure();
