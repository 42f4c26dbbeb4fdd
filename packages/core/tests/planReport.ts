import { createHash } from 'node:crypto';
import { assignPins } from '../src/assign/assignPins';
import { describeFinding, describeFix } from '../src/text/describe';
import { analogSources } from '../src/electrics/reports/analogSource';
import { clockLimits } from '../src/electrics/reports/busInputs';
import { planComponents } from '../src/electrics/reports/components';
import { enablingOf } from '../src/electrics/reports/enabling';
import { ladderReports } from '../src/electrics/reports/ladderReport';
import { ledReports, loadsOf } from '../src/electrics/reports/ledReport';
import { levelPairs } from '../src/electrics/reports/levels';
import { otherLines } from '../src/electrics/reports/otherLines';
import { planResistors } from '../src/electrics/reports/planResistors';
import { setDriversOf } from '../src/electrics/reports/setDrivers';
import { spiReport } from '../src/electrics/reports/spiReport';
import { railReports, wantedCapacitors } from '../src/electrics/reports/railReport';
import { findBuses } from '../src/nets/buses';
import { findNets } from '../src/nets/nets';
import { openTerminals } from '../src/nets/openTerminals';
import { planTerminals } from '../src/nets/terminals';
import { billOf } from '../src/outputs/bill';
import { buildSheet } from '../src/outputs/buildSheet';
import { chartSvg } from '../src/outputs/chartSvg';
import { componentsCsv } from '../src/outputs/componentTable';
import { constantSet } from '../src/outputs/constants/constantSet';
import { writeOverlay } from '../src/outputs/constants/overlay';
import * as writers from '../src/outputs/constants/writers';
import { thumbnail } from '../src/outputs/thumbnail';
import { wiresCsv, wiresMarkdown } from '../src/outputs/wireTable';
import { boardOf } from '../src/plan/edit';
import type { Plan } from '../src/plan/plan';
import { flashLedger } from '../src/displays/flash';
import { memoryLedger } from '../src/displays/memory';
import { duplicateOf } from '../src/review/duplicate';
import { i2cReport } from '../src/review/i2cReport';
import { reviewPlan } from '../src/review/review';
import type { Sheets } from '../src/sheets/sheetIndex';
import { hasProposals, planProposals } from './planProposals';

/** What is said elsewhere, or is the same for every plan. */
const LEFT_OUT = new Set(['working', 'source', 'part', 'net', 'sheet', 'curve', 'remedies', 'otherwise']);

/** A result as it is compared: numbers to nine digits, terminals by their key, parts by their ID. */
function plain(value: unknown): unknown {
  if (typeof value === 'number') return Number.isInteger(value) ? value : Number(value.toPrecision(9));
  if (typeof value !== 'object' || value === null) return value;
  if (value instanceof Map) return plain([...value]);
  if (value instanceof Set) return plain([...value]);
  if (Array.isArray(value)) return value.map(plain);
  if ('terminal' in value && 'key' in value && 'placement' in value && typeof value.placement === 'object') return value.key;
  if ('straps' in value && 'name' in value && 'id' in value) return value.id;
  return Object.fromEntries(
    Object.entries(value).flatMap(([name, inner]) =>
      LEFT_OUT.has(name) || inner === undefined || typeof inner === 'function' ? [] : [[name, plain(inner)]],
    ),
  );
}

/** Every formula with its numbers, and every curve, in a result. */
function workingsIn(value: unknown, within = new Set<unknown>()): readonly unknown[] {
  if (typeof value !== 'object' || value === null || within.has(value)) return [];
  within.add(value);
  if (value instanceof Map) return workingsIn([...value], within);
  return Object.entries(value).flatMap(([name, inner]) => (name === 'working' || name === 'curve' ? [inner] : workingsIn(inner, within)));
}

const checksum = (text: string | undefined): string =>
  text === undefined ? 'none' : createHash('sha256').update(text).digest('hex').slice(0, 16);

/** All that the core works out of a plan, as lines: findings with their words and fixes, buses, levels, currents, memory, assignment, and
 *  checksums of the exports. */
export function planReport(plan: Plan, sheets: Sheets): readonly string[] {
  const board = boardOf(plan, sheets)!;
  const lines: string[] = [];
  const put = (name: string, value: unknown): void => {
    const list = Array.isArray(value) ? value : [value];
    for (const one of list) lines.push(`${name} ${JSON.stringify(plain(one)) ?? 'none'}`);
  };
  const reviewed = reviewPlan(plan, sheets);
  if (!reviewed.ok) throw new Error(`a sheet is missing: ${reviewed.missing.id}`);
  const { findings, ledgers } = reviewed.review;
  for (const finding of findings) {
    const { title, text } = describeFinding(plan, sheets, finding);
    lines.push(`${finding.level} ${finding.id}`, `  ${title}. ${text}`);
    for (const remedy of finding.remedies)
      lines.push(`  ${remedy.grade}: ${describeFix(plan, sheets, finding.code, remedy)}: ${JSON.stringify(plain(remedy.edits))}`);
  }
  put('pins', ledgers.pins);
  for (const bus of findBuses(plan, sheets)) {
    put('bus', bus);
    if (bus.kind === 'i2c') {
      put('limit', clockLimits(plan, sheets, board, bus));
      put('i2c', i2cReport(plan, sheets, bus));
    }
    if (bus.kind === 'spi') put('spi', spiReport(plan, sheets, board, bus).rows);
  }
  put('level', levelPairs(plan, sheets));
  put('lamp', ledReports(plan, sheets));
  put('load', loadsOf(plan, sheets));
  put('set', setDriversOf(plan, sheets));
  put('rail', railReports(plan, sheets));
  put('capacitors', wantedCapacitors(plan, sheets));
  put('resistor', planResistors(plan, sheets));
  put('component', planComponents(plan, sheets));
  put('line', otherLines(plan, sheets, board));
  put('ladder', ladderReports(plan, sheets));
  put('analog', analogSources(plan, sheets));
  put('enabling', enablingOf(plan, sheets, board));
  // Formulas with their numbers, and the curves that are drawn of them.
  const worked = [ledReports, levelPairs, railReports, setDriversOf, ladderReports, analogSources].map((make) => make(plan, sheets));
  const buses = findBuses(plan, sheets).map((bus) =>
    bus.kind === 'i2c' ? i2cReport(plan, sheets, bus) : bus.kind === 'spi' ? spiReport(plan, sheets, board, bus) : bus,
  );
  put('workings', checksum(JSON.stringify(workingsIn([worked, buses, otherLines(plan, sheets, board)]))));
  put('memory', memoryLedger(plan, sheets));
  put('flash', flashLedger(plan, sheets));
  put(
    'open',
    openTerminals(planTerminals(plan, sheets), findNets(plan, sheets)).map(({ key }) => key),
  );
  const [first] = plan.placements;
  put('duplicate', first && (duplicateOf(plan, sheets, first.id)?.edits ?? 'none'));
  const { edits, costs, bound, proved, open } = assignPins(plan, sheets, { nodes: 2000 })!;
  put('assignment', { costs, bound, proved, open });
  put('assigned', edits);
  put('bill', checksum(JSON.stringify(plain(billOf(plan, sheets)))));
  const set = constantSet(plan, sheets);
  const { writeC, writeCpp, writeMicroPython, writeRust, writeYaml, writeToml } = writers;
  for (const write of [writeC, writeCpp, writeMicroPython, writeRust, writeYaml, writeToml]) put(write.name, checksum(set && write(set)));
  put('overlay', checksum(writeOverlay(plan, sheets)));
  put('build sheet', checksum(JSON.stringify(plain(buildSheet(plan, sheets)))));
  put('wires', checksum(`${wiresCsv(plan, sheets)}${wiresMarkdown(plan, sheets)}${componentsCsv(plan, sheets)}`));
  if (hasProposals(plan)) for (const [name, value] of planProposals(plan, sheets)) put(name, value);
  put('pictures', checksum(`${chartSvg(plan, sheets)}${JSON.stringify(thumbnail(plan, sheets))}`));
  return lines;
}
