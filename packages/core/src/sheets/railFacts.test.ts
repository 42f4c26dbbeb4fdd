import { shippedSheets } from '../../tests/catalogue';
import { add, edited, wire } from '../../tests/makePlan';
import { railReports } from '../electrics/reports/railReport';
import { newPlan } from '../plan/plan';
import type { BoardSheet, Rail } from './boardSheet';
import { readSheet } from './readSheet';
import { indexSheets } from './sheetIndex';

const sheets = shippedSheets();
type Loose = { -readonly [K in keyof Rail]: Rail[K] };

/** A shipped board with its rails changed. */
function withRails(id: string, change: (rails: ReadonlyMap<string, Loose>) => void): BoardSheet {
  const board = structuredClone(sheets.boards.get(id)!.sheet);
  change(new Map(board.rails.list.map((rail) => [rail.id, rail])));
  return board;
}

const faults = (board: BoardSheet) => {
  const read = readSheet(board);
  return read.ok ? [] : read.faults.map(({ path, fault }) => `${path}: ${fault}`);
};

test.each<[string, Loose['regulator'], string, RegExp]>([
  [
    'rails made from one another',
    { from: '3v3', kind: 'converter', efficiency: 0.9 },
    'vbus',
    /^rails\.3v3\.regulator: forms a closed loop of regulators/,
  ],
  ['a rail made from itself', { from: 'vbus', kind: 'linear' }, 'vbus', /^rails\.vbus\.regulator: forms a closed loop of regulators/],
  ['a rail made from nothing', { from: 'vxx', kind: 'linear' }, '3v3', /^rails\.3v3: vxx is not a rail/],
  [
    'a linear regulator that gives more than it gets',
    { from: 'vsys', kind: 'linear', dropVolts: 2 },
    '3v3',
    /3\.3 V out of 4\.7 V less 2 V/,
  ],
  ['a converter without its efficiency', { from: 'vsys', kind: 'converter' }, '3v3', /efficiency/],
  ['an efficiency of a linear regulator', { from: 'vsys', kind: 'linear', efficiency: 0.9 }, '3v3', /efficiency/],
])('%s is refused with its place', (_, regulator, id, place) => {
  const board = withRails('rp2040-stick-40', (rails) => void (rails.get(id)!.regulator = regulator));
  expect(faults(board)).toEqual(expect.arrayContaining([expect.stringMatching(place)]));
});

const on = (board: BoardSheet, rail: string) => {
  const all = indexSheets([board, ...[...sheets.parts.values()].map(({ sheet }) => sheet)]);
  const plan = edited(newPlan('p', 'P', { id: board.id, version: 1 }), all, add('s', 'sd-card-3v3'), wire('s:VCC', `rail ${rail}`));
  return railReports(plan, all);
};

test('a board of before regulators had a kind is sound still, and its regulators are linear', () => {
  const board = withRails('esp32-stick-38', (rails) => {
    const { kind: _, ...regulator } = rails.get('3v3')!.regulator!;
    rails.get('3v3')!.regulator = regulator;
    delete rails.get('3v3')!.own;
  });
  expect(faults(board)).toEqual([]);
  const rail = on(board, '3v3').find((one) => one.rail.id === '3v3')!;
  expect(rail.regulator).toMatchObject({ kind: 'linear', milliamps: rail.typicalMilliamps });
});

test('a circle that was kept unsound gives numbers and does not hang', () => {
  const board = withRails('rp2040-stick-40', (rails) => void (rails.get('vbus')!.regulator = { from: '3v3', kind: 'linear' }));
  for (const { peakMilliamps } of on(board, '3v3')) expect(peakMilliamps).toBeLessThan(1000);
});
