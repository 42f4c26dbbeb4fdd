import { shippedSheets } from '../../../tests/catalogue';
import { readBackHoles } from '../../../tests/holeReadBack';
import { add, edited, wire } from '../../../tests/makePlan';
import { knownNets } from '../../../tests/plainNets';
import { findNets } from '../../nets/nets';
import type { Edit } from '../../plan/edit';
import { type Breadboard, newPlan, type Plan } from '../../plan/plan';
import { readPlanFile } from '../../plan/planFile';
import { stepText } from '../../text/views/buildText';
import { sideOptionText, placeText, plugText } from '../../text/views/holeText';
import { buildSheet } from '../buildSheet';
import { conductorOf, hasRailHole, type Hole, holeText, pitchesApart, pitchesBetween } from './breadboard';
import { boardFootprint, columnsOverTwo, partFootprint } from './footprint';
import { holePicture } from './holePicture';
import { holePlan, type HolePlan } from './holePlan';
import { moveItem } from './moveItem';
import { placeHoles } from './placeHoles';
import { usualBreadboard } from './usualBreadboard';

const sheets = shippedSheets();
const TWO: Breadboard = { rows: 63, boards: 2, rails: 'whole', arrangement: 'side by side' };
const onBoard = (id: string): Plan => newPlan('wide', 'Wide', { id, version: sheets.boards.get(id)!.sheet.version });
const BOARD: Edit = { kind: 'breadboard', breadboard: TWO };

function laid(plan: Plan, breadboard: Breadboard = TWO): Plan {
  const begun = edited(plan, sheets, { kind: 'breadboard', breadboard });
  return edited(begun, sheets, ...placeHoles(begun, sheets, 'all', 400)!.edits);
}

/** A wide stick with a display, a button and an LED with its resistor. */
const small = edited(
  onBoard('esp32-stick-38'),
  sheets,
  add('oled', 'oled-096-ssd1306-i2c'),
  wire('oled:SDA', 'IO21'),
  wire('oled:SCL', 'IO22'),
  wire('oled:VCC', 'rail 3v3'),
  wire('oled:GND', 'ground'),
  add('button', 'button-push'),
  wire('button:C1', 'IO32'),
  wire('button:C2', 'ground'),
  add('lamp', 'led-red-5mm'),
  wire('lamp:A', 'IO25'),
  wire('lamp:K', 'ground'),
  { kind: 'series', placement: 'lamp', terminal: 'A', ohms: 330 },
);
const plan = laid(small);
const holes = holePlan(plan, sheets)!;
const itemOf = (id: string, of: HolePlan = holes) => of.items.find((one) => one.id === id)!;

test('rows 25.4 mm apart leave two holes on one side and three on the other, over two boards', () => {
  // From column f + fj of the first board to column a + ae of the second: 18 − 7 − fj + ae pitches.
  for (const pitches of [8, 9, 10, 11, 12, 13]) {
    const { ae, fj } = columnsOverTwo(pitches)!;
    expect(18 - 7 - fj + ae).toBe(pitches);
    const free = [fj, 4 - ae].toSorted();
    expect([pitches, free[0]! >= 1]).toEqual([pitches, true]);
  }
  expect(columnsOverTwo(10)).toEqual({ ae: 1, fj: 2 });
  expect([columnsOverTwo(6), columnsOverTwo(15)]).toEqual([undefined, undefined]);
});

test('only what is too wide for one board lies over two', () => {
  const wide = [...sheets.boards.values()].flatMap(({ sheet }) => (boardFootprint(sheet).overTwo ? [sheet.id] : [])).toSorted();
  expect(wide).toEqual(['esp32-s3-stick-44', 'esp32-stick-30', 'esp32-stick-38', 'esp8266-small-16', 'esp8266-stick-30']);
  expect([...sheets.parts.values()].filter(({ sheet }) => partFootprint(sheet).overTwo).map(({ sheet }) => sheet.id)).toEqual([]);
});

test('two boards side by side are the usual ones for a board that no single one takes', () => {
  expect(usualBreadboard(small, sheets)).toEqual(TWO);
  for (const id of ['rp2040-stick-40', 'atmega328p-5v-shield', 'esp8266-stick-30'])
    expect(usualBreadboard(onBoard(id), sheets)).toEqual({ rows: 63, boards: 1, rails: 'whole' });
  const alone = laid(small, { rows: 63, boards: 1, rails: 'whole' });
  expect(holePlan(alone, sheets)!.off).toContainEqual({ id: 'board', why: 'needs two boards' });
});

test('the board has one row of pins in f–j of the first, the other in a–e of the second, in rows of the same numbers', () => {
  const { legs, overTwo, row, side } = itemOf('board');
  expect([overTwo, row, side]).toEqual([true, 1, 'across']);
  const rowsIn = (half: string) => legs.filter(({ hole }) => hole.half === half).map(({ hole }) => hole.row);
  expect(rowsIn('fj').toSorted((a, b) => a - b)).toEqual(Array.from({ length: 19 }, (_, at) => at + 1));
  expect(rowsIn('ae').toSorted((a, b) => a - b)).toEqual(Array.from({ length: 19 }, (_, at) => at + 64));
  expect(new Set(legs.map(({ hole }) => holeText(TWO, hole).split(' ').at(-1)))).toEqual(new Set(['h', 'b']));
  const textOf = (pin: string) => holeText(TWO, legs.find(({ id }) => id === pin)!.hole);
  // With the USB socket at the left, as it lies, the pins beside the antenna are at the right.
  expect([textOf('GND_right1'), textOf('3V3')]).toEqual(['B2 19 b', 'B1 19 h']);
  expect(plugText(plan, sheets, itemOf('board'))).toMatch(/^rows B1 1 to B1 19: /);
  expect(placeText(TWO, itemOf('board'))).toBe('across both breadboards from row B1 1');
});

/** Every hole that something is in. */
const holesOf = ({ items, bridges, jumpers, leads }: HolePlan): readonly Hole[] => [
  ...items.flatMap(({ legs }) => legs.map(({ hole }) => hole)),
  ...bridges.flatMap((one) => one.holes),
  ...jumpers.flatMap(({ from, to }) => [from, to]),
  ...leads.flatMap(({ to }) => (to.at === 'hole' ? [to.hole] : [])),
];

test('nothing is under the board or in the strip of rails that is taken off, and a tester reads the nets of the plan', () => {
  expect([holes.lacking, holes.unplaced, holes.off]).toEqual([0, [], []]);
  const used = holesOf(holes);
  const under = used.filter((hole) => hole.at === 'strip' && (hole.half === 'fj' ? hole.row <= 19 && hole.column > 2 : false));
  expect(under).toEqual([]);
  const second = used.filter((hole) => hole.at === 'strip' && hole.half === 'ae' && hole.row > 63 && hole.row <= 82 && hole.column < 1);
  expect(second).toEqual([]);
  expect(used.filter((hole) => hole.at === 'rail' && hole.half === 'ae' && hole.row > 63)).toEqual([]);
  const middle = used.filter((hole) => hole.at === 'rail' && hole.half === 'fj' && hole.row <= 19);
  expect(middle).toEqual([]);
  const keys = used.map((hole) => JSON.stringify(hole));
  expect(keys.filter((key, at) => keys.indexOf(key) < at)).toEqual([]);
  const read = knownNets(plan, sheets, readBackHoles(plan, sheets, holes));
  const nets = findNets(plan, sheets)
    .list.map(({ terminals }) =>
      terminals
        .map(({ key }) => key)
        .toSorted()
        .join(' '),
    )
    .filter((keys) => keys !== '');
  expect(read).toEqual(nets.toSorted());
  expect(hasRailHole(TWO, 'ae', 64 + 4)).toBe(false);
  expect(hasRailHole(TWO, 'ae', 5)).toBe(true);
});

test('a module that reaches beyond the edge has its legs in the outer halves alone', () => {
  const { side, row, sideOptions } = itemOf('oled');
  expect(sideOptions).toEqual([
    { side: 'ae', rowOffset: 0 },
    { side: 'fj', rowOffset: 63 },
  ]);
  expect(row <= 63 ? side : side === 'fj' ? 'ae' : 'wrong').toBe('ae');
  expect(sideOptions.map((one) => sideOptionText(TWO, one))).toEqual(['B1 a–e', 'B2 f–j']);
  expect(itemOf('lamp').sideOptions).toHaveLength(4);
  const moved = edited(plan, sheets, moveItem(plan, sheets, 'oled', 'across')!);
  const there = moved.places['oled']!;
  expect([there.side !== side, Math.abs(there.row! - row), there.locked]).toEqual([true, 63, true]);
  // Along its lane it stays on its board: the row after the last one is that of the other.
  expect(moveItem(moved, sheets, 'oled', { to: 500 })).toMatchObject({ place: { side: there.side, row: there.row! > 63 ? 126 : 63 } });
  expect(moveItem(moved, sheets, 'oled', { by: -500 })).toMatchObject({ place: { row: there.row! > 63 ? 64 : 1 } });
  const back = moveItem(moved, sheets, 'oled', { as: sideOptions[row <= 63 ? 0 : 1]! });
  expect(back).toMatchObject({ place: { side, row } });
});

test('wires are as long as they are: along the rows of both boards, and across the strip of rails between them', () => {
  expect(pitchesApart(TWO, { half: 'fj', row: 10 }, { half: 'ae', row: 63 + 10 })).toBe(11);
  expect(pitchesApart(TWO, { half: 'ae', row: 10 }, { half: 'fj', row: 63 + 12 })).toBe(27);
  expect(pitchesApart({ ...TWO, boards: 1 }, { half: 'ae', row: 10 }, { half: 'fj', row: 12 })).toBe(9);
  const rail: Hole = { at: 'rail', half: 'fj', row: 10, sign: '−' };
  // Column j of the first board is 11 pitches from its column a, the rail 2.5 beyond; column a of the second 18.
  expect(pitchesBetween(TWO, rail, { at: 'strip', half: 'ae', row: 73, column: 0 })).toBe(5);
  expect(holes.length).toBe(holes.jumpers.reduce((sum, { from, to }) => sum + pitchesBetween(TWO, from, to), 0));
});

test('the rails of both boards are one: there on the first, back on the second', () => {
  const many = edited(
    small,
    sheets,
    ...Array.from({ length: 6 }, (_, at) => [add(`l${at}`, 'light-bh1750'), wire(`l${at}:GND`, 'ground')]).flat(),
  );
  const { jumpers } = holePlan(laid(many, { ...TWO, rails: 'split' }), sheets)!;
  const links = jumpers.filter(({ for: one }) => 'link' in one);
  expect(links.length).toBeGreaterThan(1);
  for (const { from, to } of links) expect(pitchesBetween(TWO, from, to)).toBeLessThanOrEqual(32);
  // A tree: one link fewer than pieces that are used.
  const pieces = new Set(jumpers.flatMap(({ to }) => (to.at === 'rail' ? [conductorOf({ ...TWO, rails: 'split' }, to)] : [])));
  expect(links.length).toBeLessThanOrEqual(pieces.size);
});

test('the build begins with laying the boards beside each other; the file keeps it, of two boards alone', () => {
  const steps = buildSheet(plan, sheets)!.flatMap((section) => section.steps);
  const first = steps.find(({ id }) => id.startsWith('boards:'))!;
  expect(steps.indexOf(first)).toBeLessThan(steps.findIndex(({ id }) => id.startsWith('plug:')));
  expect(stepText(plan, sheets, first).text).toContain('one rail strip');
  const others = buildSheet(laid(small, { rows: 63, boards: 2, rails: 'whole' }), sheets)!.flatMap((section) => section.steps);
  expect(others.some(({ id }) => id.startsWith('boards:'))).toBe(false);
  expect(edited(plan, sheets, BOARD).breadboard).toEqual(TWO);
  const read = (boards: number) => readPlanFile(JSON.parse(JSON.stringify({ ...plan, breadboard: { ...TWO, boards } })));
  expect([read(2).ok, read(3).ok]).toEqual([true, false]);
});

test('in the picture the second board lies below the first, with three pairs of rails and no wire through its labels', () => {
  const { shapes, items, width, height } = holePicture(plan, sheets)!;
  const rails = shapes.filter((shape) => shape.is === 'line' && shape.role === 'rail');
  expect(rails).toHaveLength(6);
  const board = items.find(({ id }) => id === 'board')!;
  expect([board.x >= 0, board.x + board.w <= width, board.y + board.h <= height]).toEqual([true, true, true]);
  const roofs = shapes.flatMap((shape) => (shape.is === 'line' && shape.role === 'roof' ? [shape.points[0]![1]] : []));
  expect(roofs[1]! < board.y && board.y + board.h > roofs[2]!).toBe(true);
});

test('where two boards are too small, larger ones are offered only if the wide board is on them', () => {
  const filled = (count: number) =>
    edited(
      small,
      sheets,
      { kind: 'breadboard', breadboard: { ...TWO, rows: 30 } },
      ...Array.from({ length: count }, (_, at) => add(`m${at}`, 'joystick')),
    );
  const offered = (count: number) => placeHoles(filled(count), sheets, 'all', 20)!;
  const few = offered(8);
  expect([few.tooMuch.length > 0, few.larger]).toEqual([true, TWO]);
  const many = offered(24);
  expect([many.tooMuch.length > 0, many.larger]).toEqual([true, undefined]);
});
