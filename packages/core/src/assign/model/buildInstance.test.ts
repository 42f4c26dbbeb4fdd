import { shippedSheets } from '../../../tests/catalogue';
import { add, edited, shield, stick, wire } from '../../../tests/makePlan';
import { boardOf } from '../../plan/edit';
import { newPlan, type Plan } from '../../plan/plan';
import { abilitiesFor, abilitiesOf, bootsWith, restLevel, wasteOn } from './abilities';
import { buildInstance } from './buildInstance';
import { combined, INSTANCE_LIMITS, NO_COSTS, split, TIER } from './weights';

const sheets = shippedSheets();
const instanceOf = (plan: Plan) => buildInstance(plan, sheets, boardOf(plan, sheets)!);
const terminal = (part: string, id: string) => sheets.parts.get(part)!.terminals.get(id)!;
const partOf = (id: string) => sheets.parts.get(id)!.sheet;
const esp = sheets.boards.get('esp8266-stick-30')!;

test('a locked wire has one candidate, whatever that pin is; an unlocked one all that fit, its own without a move', () => {
  const plan = edited(stick(), sheets, add('led', 'led-red-5mm'), wire('led:A', 'GP7'));
  const free = instanceOf(plan).items[0]!;
  expect(free.candidates.find((c) => c.pin === 'GP7')).toMatchObject({ moved: 0, caution: 0 });
  expect(free.candidates.find((c) => c.pin === 'GP0')).toMatchObject({ moved: 1, caution: 1 });
  const locked = instanceOf(edited(plan, sheets, { kind: 'lock', placement: 'led', terminal: 'A', locked: true }));
  expect(locked.items[0]!.candidates.map((c) => c.pin)).toEqual(['GP7']);
});

test('what is tied to ground, goes on to another part or only rests somewhere asks for no pin', () => {
  const plan = edited(stick(), sheets, add('a', 'motion-mpu6050'), wire('a:AD0', 'ground'));
  const { items, members } = instanceOf(plan);
  expect(items.flatMap((i) => i.terminals)).not.toContain('a:AD0');
  expect(members.map((m) => [m.id, [...m.lines].sort()])).toEqual([['a:i2c', ['scl', 'sda']]]);
});

test('the parts of one chain are one member, and their common signals one item', () => {
  const chain = edited(shield(), sheets, add('a', 'digits-8-max7219'), add('b', 'digits-8-max7219'), wire('b:DIN', 'a:DOUT'));
  const { items, members } = instanceOf(chain);
  expect(members).toHaveLength(1);
  expect(members[0]!.placements).toEqual(['a', 'b']);
  const select = items.find((i) => i.terminals.includes('a:CS'));
  expect(select?.terminals).toEqual(['a:CS', 'b:CS']);
});

test('parts without a select, and talkers on one serial line, clash', () => {
  const bare = instanceOf(edited(stick(), sheets, add('a', 'tft-13-st7789-spi-nocs'), add('b', 'sd-card-3v3'), add('c', 'sd-card-3v3')));
  expect(bare.clashes).toEqual([
    ['a:spi', 'b:spi'],
    ['a:spi', 'c:spi'],
  ]);
});

test('a hardware select takes no input while its controller is in use', () => {
  const { items } = instanceOf(edited(shield(), sheets, add('b', 'button-push'), add('s', 'sd-card-5v-module')));
  const button = items.find((i) => i.terminals[0]!.startsWith('b:'))!;
  expect(button.candidates.find((c) => c.pin === 'D10')?.unless).toBe('spi0');
  const select = items.find((i) => i.terminals.includes('s:CS'))!;
  expect(select.candidates.find((c) => c.pin === 'D10')?.unless).toBeUndefined();
});

test('resources: pins of one PWM channel exclude each other; a line that comes out at one pin alone is none', () => {
  const { resources } = instanceOf(edited(stick(), sheets, add('a', 'servo-micro'), add('b', 'servo-micro')));
  expect(resources.every((r) => r.id.startsWith('channel '))).toBe(true);
  expect(resources.every((r) => r.pairs.length === 1)).toBe(true);
  expect(resources.some((r) => r.id === 'channel slice 0/0A')).toBe(true);
});

test('scarcity: an analog pin costs a plain signal more than a pin without, and nothing to an analog one', () => {
  const board = sheets.boards.get('rp2040-stick-40')!;
  const waste = wasteOn(board);
  const plain = abilitiesFor(terminal('led-red-5mm', 'A'));
  expect(waste('GP28', plain)).toBeGreaterThan(waste('GP22', plain));
  // Three pins have the converter: 8 · 12 / 3, rounded up.
  expect(waste('GP28', plain) - waste('GP28', new Set([...plain, 'adc']))).toBe(32);
  expect([...abilitiesOf(board, board.pins.get('GP28')!)].sort()).toEqual(['adc', 'i2c', 'interrupt', 'pwm', 'spi', 'uart']);
});

test('boot pins: only what rests at their level', () => {
  const high = esp.pins.get('D4')!;
  const low = esp.pins.get('D8')!;
  const oled = partOf('oled-096-ssd1306-i2c');
  expect(restLevel(oled, terminal('oled-096-ssd1306-i2c', 'SDA'))).toBe('high');
  expect([bootsWith(high, oled, terminal(oled.id, 'SDA')), bootsWith(low, oled, terminal(oled.id, 'SDA'))]).toEqual([true, false]);
  const led = partOf('led-red-5mm');
  expect([bootsWith(high, led, terminal(led.id, 'A')), bootsWith(esp.pins.get('D1')!, led, terminal(led.id, 'A'))]).toEqual([false, true]);
});

test('tiers: combined and split again, exact to the last unit', () => {
  for (const costs of [
    NO_COSTS,
    { unwired: 1400, moved: 1999, caution: 499, unusual: 124, waste: 49_999 },
    { unwired: 1, moved: 0, caution: 7, unusual: 3, waste: 12 },
  ])
    expect(split(combined(costs))).toEqual(costs);
  const most = {
    unwired: 2 * INSTANCE_LIMITS.demands,
    moved: 2 * INSTANCE_LIMITS.demands,
    caution: 400,
    unusual: INSTANCE_LIMITS.unusual,
    waste: 400 * INSTANCE_LIMITS.waste,
  };
  expect(combined(most)).toBeLessThan(Number.MAX_SAFE_INTEGER);
  // Each tier is worth more than the most that those below it can come to.
  expect(combined({ ...most, unwired: 0 })).toBeLessThan(TIER.unwired);
  expect(combined({ ...most, unwired: 0, moved: 0 })).toBeLessThan(TIER.moved);
  expect(combined({ unusual: most.unusual, waste: most.waste })).toBeLessThan(TIER.caution);
  expect(most.waste).toBeLessThan(TIER.unusual);
});

test('a board without pins, or a plan without parts, is an empty problem', () => {
  expect(instanceOf(newPlan('p', 'P', { id: 'rp2040-stick-40', version: 1 }))).toMatchObject({ items: [], members: [], controllers: [] });
});

test('an instance without wishes for neighbours has no groups; only shared resources of what it has are in it', () => {
  const instance = instanceOf(edited(stick(), sheets, add('a', 'servo-micro'), add('b', 'servo-micro')));
  expect(instance).not.toHaveProperty('groups');
  const ids = new Set(instance.items.map((i) => i.id));
  expect(instance.resources.flatMap((r) => r.pairs.flat()).every((id) => ids.has(id))).toBe(true);
});
