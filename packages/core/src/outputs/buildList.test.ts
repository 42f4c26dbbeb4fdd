import { shippedSheets } from '../../tests/catalogue';
import { add, edited, shield, stick, wire } from '../../tests/makePlan';
import { CHECKS } from '../checks/engine/registry';
import { boardOf } from '../plan/edit';
import { pullFeed } from '../electrics/reports/busInputs';
import { newPlan } from '../plan/plan';
import { positionsOf } from './boardPosition';
import { buildList } from './buildList';
import { checkPage } from './checkPage';
import { thumbnail } from './thumbnail';
import { readFileSync } from 'node:fs';

const sheets = shippedSheets();
const plan = edited(
  stick(),
  sheets,
  add('a', 'humidity-sht31', 'Air'),
  wire('a:SDA', 'GP15'),
  wire('a:SCL', 'GP14'),
  wire('a:VCC', 'rail 3v3'),
  wire('a:GND', 'ground'),
  add('l', 'led-red-5mm', 'Lamp'),
  wire('l:A', 'GP22'),
  add('t', 'lcd-2004-pcf8574', 'Text'),
  { kind: 'strap', placement: 't', strap: 'A1', state: 'bridged' },
);

test('grounds, then supplies, then jumpers, then wires in printed order; what is open is named', () => {
  const list = buildList(plan, sheets)!;
  expect(list.supplies.map((w) => w.key)).toEqual(['a:GND', 'a:VCC']);
  expect(list.signals.map((w) => w.key)).toEqual(['a:SCL', 'a:SDA', 'l:A']);
  expect(list.straps).toEqual([{ placement: 't', strap: 'A1', words: 'bridge pads A1 with solder' }]);
  expect(list.open.map((o) => o.label)).toEqual(['cathode', 'GND', 'VCC', 'SDA', 'SCL']);
  expect(list.signals[2]!.through).toBe('a series resistor');
});

test('a terminal that another part’s wire reaches is not open', () => {
  const joined = edited(
    plan,
    sheets,
    add('b', 'humidity-sht31', 'Other'),
    { kind: 'unwire', placement: 'a', terminal: 'SDA' },
    wire('b:SDA', 'a:SDA'),
  );
  expect(buildList(joined, sheets)!.open.filter((o) => o.placement === 'a')).toEqual([]);
});

test('positions are counted from pin 1 and from the nearer end', () => {
  const board = boardOf(plan, sheets)!;
  const at = (pin: string) => positionsOf(board, { to: 'pin', pin }).map((p) => [p.headerTitle, p.position, p.fromEnd, p.end]);
  expect(at('GP15')).toEqual([['left edge', 20, 1, 'far end']]);
  expect(at('GP0')).toEqual([['left edge', 1, 1, 'USB end']]);
  expect(at('GP22')).toEqual([['right edge', 29, 9, 'far end']]);
  expect(at('GP16')).toEqual([['right edge', 21, 1, 'far end']]);
  expect(positionsOf(board, { to: 'rail', rail: '3v3' }).map((p) => p.position)).toEqual([36]);
  expect(positionsOf(board, { to: 'ground' })).toHaveLength(8);
});

test('of a header with two rows a finger counts along one row, from the nearer end', () => {
  // From the drawings of the boards: pin 5 is the third of the odd pins; 37 the second-last of them; 40 the last of the even ones.
  const counted = (board: string, pin: string) =>
    positionsOf(sheets.boards.get(board)!, { to: 'pin', pin }).map((p) => [p.position, p.row, p.fromEnd, p.end]);
  expect(counted('bcm2711-sbc-40', 'GPIO3')).toEqual([[5, 'odd', 3, 'pin 1']]);
  expect(counted('bcm2711-sbc-40', 'GPIO14')).toEqual([[8, 'even', 4, 'pin 1']]);
  expect(counted('bcm2711-sbc-40', 'GPIO26')).toEqual([[37, 'odd', 2, 'pin 40']]);
  expect(counted('bcm2711-sbc-40', 'GPIO21')).toEqual([[40, 'even', 1, 'pin 40']]);
  expect(counted('atmega2560-5v-shield', 'D53')).toEqual([[34, 'even', 2, 'pin 36']]);
  expect(counted('stm32f411-shield-64', 'PC11')).toEqual([[2, 'even', 1, 'pin 1']]);
  // Every double header is counted so that both rows have all numbers from 1 up to the middle and back.
  for (const board of sheets.boards.values())
    for (const header of board.sheet.headers.list.filter((one) => one.rows === 2)) {
      const own = board.sheet.pins.list.filter((pin) => pin.header === header.id).length;
      expect([board.sheet.id, header.id, own % 2]).toEqual([board.sheet.id, header.id, 0]);
    }
});

test('a conductor with two positions gives both', () => {
  const board = boardOf(shield(), sheets)!;
  expect(positionsOf(board, { to: 'pin', pin: 'A4' }).map((p) => p.label)).toEqual(['A4', 'SDA']);
});

test('a tick holds for the end it was given at, and tells where a moved wire was', () => {
  const ticked = edited(plan, sheets, { kind: 'tick', placement: 'l', terminal: 'A', end: { to: 'pin', pin: 'GP22' } });
  const line = (p: typeof plan) => buildList(p, sheets)!.signals.find((w) => w.key === 'l:A')!;
  expect(line(ticked)).toMatchObject({ ticked: true, wasAt: undefined });
  expect(line(edited(ticked, sheets, wire('l:A', 'GP2')))).toMatchObject({ ticked: false, wasAt: { to: 'pin', pin: 'GP22' } });
  expect(line(edited(ticked, sheets, wire('l:A', 'GP2'), wire('l:A', 'GP22')))).toMatchObject({ ticked: true });
});

test('without its board’s sheet there is no list, and an empty thumbnail', () => {
  const lost = { ...plan, board: { id: 'gone', version: 1 } };
  expect([buildList(lost, sheets), thumbnail(lost, sheets)]).toEqual([undefined, { columns: 0, rows: [], clashes: [] }]);
});

test('a thumbnail has a row a part and marks clashing columns', () => {
  const clash = edited(plan, sheets, wire('l:A', 'GP14'));
  expect(thumbnail(clash, sheets)).toEqual({ columns: 26, rows: [[14, 15], [14], []], clashes: [14] });
});

test.each(CHECKS)('the page of $code is made from the check as it is now', (check) => {
  expect(readFileSync(`${__dirname}/../../../../docs/checks/${check.code}.md`, 'utf8')).toBe(checkPage(check));
});

test('a pull-up goes to a rail that everybody on its line takes', () => {
  const digits = (pin: string, board = 'rp2040-stick-40') =>
    edited(
      newPlan('p', 'P', { id: board, version: 1 }),
      sheets,
      add('m', 'digits-8-max7219', 'Digits'),
      wire('m:VCC', board === 'rp2040-stick-40' ? 'rail vbus' : 'rail 5v'),
      wire('m:GND', 'ground'),
      wire('m:CS', pin),
      { kind: 'pull', placement: 'm', terminal: 'CS', pull: { ohms: 10_000, to: 'supply' } },
    );
  // 5 V on a pin of 3.3 V logic; a pin that takes 5 V; a board of 5 V.
  expect(pullFeed(digits('GP2'), sheets, 'm:CS')?.rail).toBe('3v3');
  expect(pullFeed(digits('B8', 'stm32f103-stick-40'), sheets, 'm:CS')?.rail).toBe('5v');
  expect(pullFeed(digits('D9', 'atmega328p-5v-shield'), sheets, 'm:CS')?.rail).toBe('5v');
  expect(buildList(digits('GP2'), sheets)!.components).toMatchObject([
    { name: 'R1', value: 10_000, ends: [{ at: { to: 'terminal', terminal: 'CS' } }, { at: { to: 'rail', rail: '3v3' } }] },
  ]);
});
