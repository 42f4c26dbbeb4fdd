import { shippedSheets } from '../../../tests/catalogue';
import { add, edited, shield, stick, wire } from '../../../tests/makePlan';
import type { Edit } from '../../plan/edit';
import type { Plan } from '../../plan/plan';
import { holeInstance, type HoleInstance } from './holeItems';
import { holePicture } from './holePicture';
import { holePlan } from './holePlan';
import { placeHoles } from './placeHoles';

const sheets = shippedSheets();
const BOARD: Edit = { kind: 'breadboard', breadboard: { rows: 63, boards: 1, rails: 'whole' } };
const instanceOf = (plan: Plan, ...off: readonly string[]): HoleInstance => holeInstance(plan, sheets, (item) => off.includes(item))!;
const laid = (plan: Plan, ...first: readonly Edit[]): Plan => {
  const begun = edited(plan, sheets, BOARD, ...first);
  return edited(begun, sheets, ...placeHoles(begun, sheets, 'all', 2000)!.edits);
};
const junctions = ({ items }: HoleInstance): readonly string[] => items.flatMap(({ id }) => (id.startsWith('net:') ? [id] : []));

/** So many servos, whose leads end in one pin of the board. */
const servos = (count: number, board = stick()): Plan =>
  edited(
    board,
    sheets,
    ...Array.from({ length: count }, (_, at) => [
      add(`s${at}`, 'servo-micro'),
      wire(`s${at}:SIG`, board.board.id === 'rp2040-stick-40' ? 'GP2' : 'D9'),
    ]).flat(),
  );

test('a net has a strip more as soon as its wires are more than its holes', () => {
  // Beside its leg a pin of the stick has two free holes.
  expect([1, 2, 3, 5, 6].map((count) => junctions(instanceOf(servos(count))).length)).toEqual([0, 0, 1, 1, 2]);
});

test('two leads that meet off the breadboard are one wire, three have a strip', () => {
  // The sockets of the shield board are not on it: its pin is a lead, too.
  expect([1, 2, 3].map((count) => junctions(instanceOf(servos(count, shield()))).length)).toEqual([0, 1, 1]);
  const { leads, jumpers } = holePlan(laid(servos(1, shield())), sheets)!;
  expect(jumpers).toEqual([]);
  expect(leads).toEqual([
    expect.objectContaining({
      end: expect.objectContaining({ module: 's0' }) as object,
      to: expect.objectContaining({ at: 'end' }) as object,
    }),
  ]);
  const three = holePlan(laid(servos(3, shield())), sheets)!;
  expect([three.lacking, three.leads.filter(({ to }) => to.at === 'hole').length]).toEqual([0, 4]);
});

test('ground comes from a pin that is called GND, jumpers have the colours of their wires', () => {
  const plan = laid(
    edited(
      stick(),
      sheets,
      add('oled', 'oled-096-ssd1306-i2c'),
      wire('oled:SDA', 'GP4'),
      wire('oled:GND', 'ground'),
      add('lamp', 'led-red-5mm'),
      wire('lamp:K', 'ground'),
      {
        kind: 'colour',
        placement: 'oled',
        terminal: 'SDA',
        colour: 'violet',
      },
    ),
  );
  const { jumpers } = holePlan(plan, sheets)!;
  const board = sheets.boards.get('rp2040-stick-40')!;
  const grounds = jumpers.flatMap(({ for: one }) => ('item' in one && one.item === 'board' ? [board.pins.get(one.leg!)!.label] : []));
  expect(grounds).toEqual(['GND']);
  expect(jumpers.find(({ for: one }) => 'item' in one && one.item === 'oled' && one.leg === 'SDA')!.colour).toBe('violet');
  expect(jumpers.find(({ for: one }) => 'item' in one && one.item === 'oled' && one.leg === 'GND')!.colour).toBe('black');
});

test('a trimmer has its wiper in the middle, a transistor its legs in the order on hand', () => {
  const plan = edited(
    stick(),
    sheets,
    add('lcd', 'lcd-1602-parallel'),
    wire('lcd:VDD', 'rail 3v3'),
    { kind: 'wire', placement: 'lcd', terminal: 'V0', end: { to: 'trimmer', ohms: 10_000 } },
    add('lamp', 'led-red-5mm'),
    wire('lamp:K', 'GP2'),
    { kind: 'driver', placement: 'lamp', terminal: 'K', driver: { kind: 'npn', ohms: 1000, legs: 'CBE' } },
  );
  const legsOf = (id: RegExp) =>
    instanceOf(plan)
      .items.find((item) => id.test(item.id))!
      .footprint.legs.map((leg) => leg.id);
  // Ends of a trimmer: upper, lower, wiper; of a transistor: base, emitter, collector.
  expect(legsOf(/trimmer/)).toEqual(['0', '2', '1']);
  expect(legsOf(/transistor/)).toEqual(['2', '0', '1']);
});

test('resistors of a digit lie close beside it, each half by itself', () => {
  const segments = ['e', 'd', 'c', 'g', 'dp', 'a', 'b', 'f'];
  const ends = ['GP2', 'GP3', 'GP4', 'GP5', 'GP6', 'GP7', 'GP8', 'GP9'];
  const plan = laid(
    edited(
      stick(),
      sheets,
      add('digit', 'seven-segment-2-ca'),
      ...segments.flatMap((terminal, at): Edit[] => [
        wire(`digit:${terminal}`, ends[at]!),
        { kind: 'series', placement: 'digit', terminal, ohms: 330 },
      ]),
    ),
  );
  const { bridges, items } = holePlan(plan, sheets)!;
  expect(bridges).toHaveLength(8);
  const digit = items.find(({ id }) => id === 'digit')!;
  for (const { holes } of bridges) {
    const [from, to] = holes;
    expect(from.half).toBe(to.half);
    expect(Math.abs(from.row - to.row)).toBeLessThanOrEqual(6);
    expect(holes.some(({ row, half }) => digit.legs.some(({ hole }) => hole.row === row && hole.half === half))).toBe(true);
  }
});

test('a strip for wires alone has no leg, and its place in the picture all the same; titles beside it are shortened', () => {
  const long = 'A servo '.repeat(9).trim();
  const plan = laid(
    edited(servos(6), sheets, add('oled', 'oled-096-ssd1306-i2c'), { kind: 'rename-placement', placement: 'oled', name: long }),
  );
  const { items, shapes, strips, width, height } = holePicture(plan, sheets)!;
  expect(items.filter(({ id }) => id.startsWith('net:junction'))).toHaveLength(2);
  for (const { id, x, y, w, h } of items)
    expect([id, x >= 0, y >= 0, w > 0, h > 0, x + w <= width, y + h <= height]).toEqual([id, true, true, true, true, true, true]);
  for (const { x, y } of strips.values()) expect(Number.isFinite(x + y)).toBe(true);
  const titles = shapes.flatMap((shape) => (shape.is === 'text' && shape.role === 'title' && shape.item === 'oled' ? [shape.text] : []));
  expect(titles).toEqual([expect.stringMatching(/^A servo.*…$/)]);
});

test('in the picture labels lie between brackets and rails, rails beyond the roofs, each in one piece or two', () => {
  for (const rails of ['whole', 'split'] as const) {
    const plan = edited(laid(servos(3)), sheets, add('oled', 'oled-096-ssd1306-i2c'), wire('oled:SDA', 'GP4'), {
      kind: 'breadboard',
      breadboard: { rows: 63, boards: 2, rails },
    });
    const { shapes } = holePicture(plan, sheets)!;
    const lines = (role: string) => shapes.flatMap((shape) => (shape.is === 'line' && shape.role === role ? [shape.points] : []));
    expect(lines('rail')).toHaveLength(2 * 2 * 2 * (rails === 'split' ? 2 : 1));
    expect(lines('roof')).toHaveLength(4);
    const heightOf = (points: readonly (readonly [number, number])[]) => points[0]![1];
    const [roof, lowerRoof] = lines('roof').map(heightOf);
    const [plus, minus] = lines('rail').map(heightOf);
    const brackets = lines('bracket');
    const upper = brackets.find((points) => heightOf(points) < roof!)!;
    const lower = brackets.find((points) => heightOf(points) > lowerRoof!)!;
    // Open towards the legs.
    expect(upper[0]![1]).toBeGreaterThan(upper[1]![1]);
    expect(lower[0]![1]).toBeLessThan(lower[1]![1]);
    const labels = shapes.flatMap((shape) => (shape.is === 'text' && shape.role === 'label' ? [shape.y] : []));
    const above = labels.filter((y) => y < roof!);
    for (const y of above) expect(y > upper[0]![1] && y < Math.min(plus!, minus!)).toBe(true);
    for (const y of labels.filter((one) => one > lowerRoof! && one < lower[0]![1] + 50)) expect(y < lower[0]![1]).toBe(true);
    expect(above.length).toBeGreaterThan(10);
  }
});

test('the widest part is left out first', () => {
  const wide = ['joystick', 'oled-242-ssd1309-i2c', 'light-bh1750'];
  const plan = edited(
    stick(),
    sheets,
    { kind: 'breadboard', breadboard: { rows: 30, boards: 1, rails: 'whole' } },
    ...wide.map((id, at) => add(`p${at}`, id)),
  );
  const widths = instanceOf(plan)
    .items.slice(1)
    .map(({ footprint: { body } }) => body[1] - body[0]);
  expect(Math.max(...widths)).toBe(widths[1]);
  expect(placeHoles(plan, sheets, 'all', 500)!.tooMuch[0]).toBe('p1');
});
