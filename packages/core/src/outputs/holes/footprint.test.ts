import { shippedSheets } from '../../../tests/catalogue';
import { boardFootprint, columnsAcross, type Footprint, partFootprint, type Plugged } from './footprint';

const sheets = shippedSheets();
const board = (id: string) => boardFootprint(sheets.boards.get(id)!.sheet);
const part = (id: string) => partFootprint(sheets.parts.get(id)!.sheet);

function footprintOf(plugged: Plugged): Footprint {
  if (!plugged.ok) throw new Error(plugged.why);
  return plugged.footprint;
}
const rowIn = ({ legs }: Footprint, half: 'ae' | 'fj'): readonly string[] =>
  legs
    .filter((leg) => leg.half === half)
    .toSorted((a, b) => a.row - b.row)
    .map(({ id }) => id);

test('rows of legs as far apart as they are leave the most holes free that they can', () => {
  // 7.62 mm: a narrow chip. 15.24 mm: a wide one. 17.78 mm: an RP2040 stick. 22.86 mm: one hole on each side.
  expect([3, 4, 6, 7, 9].map(columnsAcross)).toEqual([
    { ae: 4, fj: 0 },
    { ae: 3, fj: 0 },
    { ae: 2, fj: 1 },
    { ae: 2, fj: 2 },
    { ae: 1, fj: 3 },
  ]);
  // 25.4 mm leaves a free hole on one side alone.
  expect([2, 10, 11].map(columnsAcross)).toEqual([undefined, undefined, undefined]);
});

test('boards lie with their USB end at the left, so that their left edge is in f–j', () => {
  const stick = footprintOf(board('rp2040-stick-40'));
  expect(stick.across).toEqual({ ae: 2, fj: 2 });
  expect(rowIn(stick, 'fj').slice(0, 3)).toEqual(['GP0', 'GP1', 'GND3']);
  expect(rowIn(stick, 'ae')).toHaveLength(20);
  expect(footprintOf(board('esp8266-stick-30')).across).toEqual({ ae: 1, fj: 3 });
});

test.each([
  ['esp32-stick-38', 'rows too far apart'],
  ['atmega328p-5v-shield', 'sockets'],
  ['bcm2711-sbc-40', 'double row'],
])('%s is not plugged in: %s', (id, why) => {
  expect(board(id)).toMatchObject({ ok: false, why });
});

test.each([
  ['radio-nrf24l01', 'double row'],
  ['servo-micro', 'leads'],
  ['relay-coil-5v', 'irregular'],
  ['multiplexer-tca9548a', 'channel pins unknown'],
])('%s is not plugged in: %s', (id, why) => {
  expect(part(id)).toEqual({ ok: false, why });
});

test('modules have their legs in printed order in f–j, chips pin 1 at the lower left, components their legs', () => {
  expect(rowIn(footprintOf(part('oled-096-ssd1306-i2c')), 'fj')).toEqual(['GND', 'VCC', 'SCL', 'SDA']);
  expect(footprintOf(part('oled-096-ssd1306-i2c')).overRails).toBe(true);
  const register = footprintOf(part('shift-out-74hc595'));
  const order = sheets.parts.get('shift-out-74hc595')!.sheet.terminals.list.map(({ id }) => id);
  expect([rowIn(register, 'fj'), rowIn(register, 'ae')]).toEqual([order.slice(0, 8), order.slice(8).toReversed()]);
  expect(register.across).toEqual({ ae: 4, fj: 0 });
  expect(footprintOf(part('expander-mcp23017')).across).toEqual({ ae: 4, fj: 0 });
  expect(footprintOf(part('stepper-a4988')).across).toEqual({ ae: 3, fj: 1 });
  expect(footprintOf(part('led-red-5mm')).legs.map(({ row }) => row)).toEqual([0, 1]);
  // Its legs are 5.08 mm apart.
  expect(footprintOf(part('button-push')).legs.map(({ row }) => row)).toEqual([0, 2]);
});

test('every sheet of the catalogue has a footprint on the grid, or a reason why it has none', () => {
  for (const { sheet } of [...sheets.boards.values()]) {
    const plugged = boardFootprint(sheet);
    if (plugged.ok)
      for (const { row } of plugged.footprint.legs) expect([sheet.id, Number.isInteger(row), row >= 0]).toEqual([sheet.id, true, true]);
  }
  const plugged = [...sheets.parts.values()].map(({ sheet }) => [sheet.id, partFootprint(sheet)] as const);
  expect(plugged.filter(([, one]) => one.ok).length).toBeGreaterThan(150);
  for (const [id, one] of plugged) {
    if (!one.ok) continue;
    const { legs, across } = one.footprint;
    const holes = legs.map(({ row, half }) => `${half} ${row}`);
    expect([id, new Set(holes).size]).toEqual([id, holes.length]);
    expect([id, legs.some(({ half }) => half === 'ae')]).toEqual([id, across !== undefined]);
  }
});
