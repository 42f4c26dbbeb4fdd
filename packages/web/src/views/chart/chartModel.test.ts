import { findBuses } from '@roof-chart/core/nets/buses';
import { findNets } from '@roof-chart/core/nets/nets';
import { planTerminals } from '@roof-chart/core/nets/terminals';
import { boardOf, type Edit } from '@roof-chart/core/plan/edit';
import type { Plan } from '@roof-chart/core/plan/plan';
import { reviewPlan } from '@roof-chart/core/review/review';
import { shippedSheets } from '../../../../core/tests/catalogue';
import { add, edited, shield, stick, wire } from '../../../../core/tests/makePlan';
import type { WireScope } from '../../state/sessionSlice';
import { chartBrackets, chartChoices, chartGroups, chartLines, clashColumns } from './chartModel';
import { boardBlocks, columnOfEnd, endOfColumn } from './columns';

const sheets = shippedSheets();

function chart(plan: Plan, scope: WireScope = 'all') {
  const board = boardOf(plan, sheets)!;
  const nets = findNets(plan, sheets);
  const blocks = boardBlocks(board);
  const result = reviewPlan(plan, sheets);
  const groups = chartGroups({ plan, sheets, board }, scope, result.ok ? result.review.findings : [], blocks);
  return {
    board,
    nets,
    blocks,
    groups,
    rows: groups.flatMap((g) => g.rows),
    lines: chartLines(groups, nets),
    buses: findBuses(plan, sheets),
  };
}

const plan = edited(
  stick(),
  sheets,
  ...['a', 'b'].flatMap((id) => [
    add(id, 'humidity-sht31'),
    wire(`${id}:SDA`, 'GP4'),
    wire(`${id}:SCL`, 'GP5'),
    wire(`${id}:VCC`, 'rail 3v3'),
  ]),
  add('k', 'encoder-rotary-switch'),
  add('l', 'led-red-5mm'),
  wire('k:SW', 'GP22'),
  wire('l:A', 'GP22'),
  wire('k:A', 'GP10'),
  { kind: 'lock', placement: 'k', terminal: 'A', locked: true },
);

test('the roof has ground and rails, then the headers from the USB end, each pin once', () => {
  const { blocks } = chart(plan);
  expect(blocks.map((b) => [b.id, b.columns.length])).toEqual([
    ['rails', 4],
    ['left', 20],
    ['right', 20],
  ]);
  expect(blocks[2]!.columns[0]!.label).toBe('VBUS');
});

test('columns and wire ends lead to each other; control pins lead nowhere', () => {
  const { board, blocks } = chart(plan);
  for (const { id, tone } of blocks.flatMap((b) => b.columns)) {
    const end = endOfColumn(board, id);
    if (tone !== 'quiet') expect(columnOfEnd(end!)).toBe(id);
  }
  expect([endOfColumn(board, 'RUN'), endOfColumn(board, 'GND3'), endOfColumn(board, '3V3')]).toEqual([
    null,
    { to: 'ground' },
    { to: 'rail', rail: '3v3' },
  ]);
});

test('marks say does, locked, clash', () => {
  const mark = Object.fromEntries(chart(plan).rows.map((r) => [r.item.key, r.mark]));
  expect([mark['a:SDA'], mark['k:A'], mark['k:SW'], mark['l:A']]).toEqual(['does', 'locked', 'clash', 'clash']);
});

test('a net is one line down to its lowest row in sight: a bus thick, a clash broken', () => {
  const lines = chart(plan).lines;
  expect(lines.find((l) => l.column === 'GP4')).toMatchObject({ toRow: 'b:SDA', tone: 'bus' });
  expect(lines.find((l) => l.column === 'GP22')).toMatchObject({ toRow: 'l:A', tone: 'clash' });
  expect(lines.find((l) => l.column === 'GP10')).toMatchObject({ toRow: 'k:A', tone: 'net' });
  expect([...clashColumns(chart(plan).nets)]).toEqual(['GP22']);
});

test('scopes divide the rows; terminals of external circuits are among all of them only', () => {
  const count = (scope: WireScope) => chart(plan, scope).rows.length;
  expect(count('signals') + count('supplies')).toBe(count('all'));
  const scale = edited(stick(), sheets, add('s', 'load-cell-hx711'));
  const rows = (scope: WireScope) => chart(scale, scope).rows.map((r) => r.item.terminal.id);
  expect([...rows('signals'), ...rows('supplies')].toSorted()).toEqual(['DT', 'GND', 'SCK', 'VCC']);
  expect(rows('all')).toHaveLength(sheets.parts.get('load-cell-hx711')!.sheet.terminals.list.length);
});

test('an LED keeps both of its rows among the signals while its anode is at a supply', () => {
  const rows = (...ends: readonly Edit[]) => {
    const led = edited(stick(), sheets, add('l', 'led-red-5mm'), ...ends);
    return (['signals', 'supplies'] as const).map((scope) => chart(led, scope).rows.map((r) => r.item.terminal.id));
  };
  expect(rows(wire('l:A', 'GP2'), wire('l:K', 'ground'))).toEqual([['A'], ['K']]);
  expect(rows(wire('l:A', 'rail 3v3'))).toEqual([['A', 'K'], []]);
  expect(rows(wire('l:A', 'rail 3v3'), wire('l:K', 'ground'))).toEqual([['A'], ['K']]);
});

test('choices of a terminal: free, with a cost, taken; what cannot serve is absent', () => {
  const { board, nets, rows } = chart(plan);
  const item = planTerminals(plan, sheets).find((t) => t.key === 'l:A')!;
  const choices = chartChoices(board, nets, item, rows.find((r) => r.item.key === 'l:A')!.could);
  expect([choices.get('GP2'), choices.get('GP0'), choices.get('GP4'), choices.get('RUN'), choices.get('ground')]).toEqual([
    'free',
    'costs',
    'taken',
    undefined,
    undefined,
  ]);
});

test('brackets: the bus in use solid, the choices of the focused kind faint', () => {
  const { board, buses } = chart(plan);
  const brackets = chartBrackets(board, buses, undefined);
  expect(brackets.filter((b) => b.chosen)).toMatchObject([{ label: 'I2C0', columns: ['GP5', 'GP4'] }]);
  expect(brackets.filter((b) => !b.chosen).every((b) => b.label.startsWith('I2C'))).toBe(true);
  const spi = sheets.parts.get('sd-card-3v3')!.terminals.get('CLK');
  expect(chartBrackets(board, [], spi).map((b) => b.label)).toContain('SPI0');
});

test('a second position of a conductor is a column that echoes the first', () => {
  const { blocks, board } = chart(shield());
  const sda = blocks.flatMap((b) => b.columns).find((c) => c.id === 'SDA')!;
  expect(sda.sameAs).toBe('A4');
  expect(endOfColumn(board, 'SDA')).toEqual({ to: 'pin', pin: 'A4' });
});
