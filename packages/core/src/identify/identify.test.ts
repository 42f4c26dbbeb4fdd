import labelSets from '../../tests/labelSets.json';
import { shippedSheets } from '../../tests/catalogue';
import type { PartSheet } from '../sheets/partSheet';
import { identify } from './identify';
import { blurred, plainLabel, readLabels, rowContext } from './labelForms';
import { matchRow, TRADE_ROLES } from './matchLabels';

const parts = [...shippedSheets().parts.values()].map((p) => p.sheet);
const part = (id: string): PartSheet => parts.find((p) => p.id === id)!;
const first = (clues: Parameters<typeof identify>[1]) => identify(parts, clues).candidates[0]!.part.id;

interface LabelSet {
  readonly set: string;
  readonly labels: string[];
  readonly family: string;
  readonly part: string;
  readonly size?: string;
  readonly does?: string;
}

function ranks(which: string) {
  return (labelSets as LabelSet[])
    .filter((s) => s.set === which)
    .map((s) => {
      const clues = { labels: s.labels, ...(s.size ? { size: s.size } : {}), ...(s.does ? { does: s.does } : {}) };
      const found = identify(parts, clues).candidates.map((c) => c.part);
      return { ...s, found, right: found[0]?.family === s.family, rank: found.findIndex((p) => p.id === s.part) + 1 };
    });
}

const share = (list: readonly { readonly right: boolean }[]) => list.filter((r) => r.right).length / list.length;

test('label sets are at least 80, each of a shipped part and its family', () => {
  expect(labelSets.length).toBeGreaterThanOrEqual(80);
  for (const set of labelSets) expect({ id: set.part, family: part(set.part)?.family }).toEqual({ id: set.part, family: set.family });
});

test.each(['develop', 'report'])(
  'the family is right first for 95 %% of the sets to %s, the part among the first three for 85 %%',
  (which) => {
    const all = ranks(which);
    const wrong = all.filter((r) => !r.right).map((r) => `${r.labels.join(' ')} is ${r.part}, not ${r.found[0]?.id}`);
    const far = all
      .filter((r) => r.rank === 0 || r.rank > 3)
      .map((r) => `${r.labels.join(' ')}: ${r.part} at ${r.rank}, ${r.found[0]?.id} first`);
    expect({ which, wrong, enough: share(all) >= 0.95 }).toEqual({ which, wrong, enough: true });
    expect({ far, enough: far.length <= 0.15 * all.length }).toEqual({ far, enough: true });
  },
);

test('SCL on a row with DC and CS is the clock of SPI; without them it is I2C', () => {
  const row = ['GND', 'VCC', 'SCL', 'SDA', 'RES', 'DC', 'CS'];
  expect(rowContext(row)).toBe('spi');
  expect(rowContext(row.slice(0, 4))).toBe('i2c');
  const oled = matchRow(row, part('oled-096-ssd1306-spi'), 'spi');
  expect(oled.matches.map((m) => [m.label, m.terminal.role])).toContainEqual(['SCL', 'spi.sck']);
  expect(first({ labels: row })).toMatch(/spi|oled-15/);
});

test('letters that look alike still match, and say so', () => {
  expect(blurred('5D0')).toBe(blurred('SDO'));
  const row = matchRow(['GND', 'VCC', 'DO', 'D1', 'RE5', 'DC', 'C5'], part('oled-096-ssd1306-spi'), 'spi');
  expect(row.matches.filter((m) => m.by === 'misread').map((m) => [m.label, m.terminal.id])).toEqual([
    ['DO', 'D0'],
    ['RE5', 'RES'],
    ['C5', 'CS'],
  ]);
});

test('read from the other end, a row is reversed, not another part', () => {
  const forward = ['GND', 'VCC', 'D0', 'D1', 'RES', 'DC', 'CS'];
  const result = identify(parts, { labels: forward.toReversed() });
  expect(result.candidates[0]!.part.id).toMatch(/^oled-.*-spi$/);
  expect(result.candidates[0]!.speaksFor).toContainEqual({ is: 'order', reversed: true });
});

test('twins are told apart by what settles them: count, measure, read, scan', () => {
  const open = identify(parts, { labels: ['VIN', 'GND', 'SCL', 'SDA'] });
  expect(open.settle.join(' ')).toMatch(/chip marking/);
  expect(open.settle.join(' ')).toMatch(/Scan the I2C bus: .*0x/);
  expect(identify(parts, { labels: ['VIN', 'GND', 'SCL', 'SDA'], chip: 'VEML7700' }).candidates[0]!.part.id).toBe('light-veml7700');
});

test('no clue, no candidate; nonsense gives none that claims much', () => {
  expect(identify(parts, {})).toEqual({ candidates: [], settle: [] });
  expect(identify(parts, { labels: ['QUUX', 'ZORK'] }).candidates.every((c) => c.score < 0.4)).toBe(true);
});

test('every candidate brings its evidence, and the order of the parts does not matter', () => {
  const clues = { labels: ['GND', 'VCC', 'SCL', 'SDA'], pins: 4, size: '0.96' };
  const once = identify(parts, clues).candidates.map((c) => c.part.id);
  expect(identify(parts.toReversed(), clues).candidates.map((c) => c.part.id)).toEqual(once);
  for (const c of identify(parts, clues).candidates) expect(c.speaksFor.length).toBeGreaterThan(0);
});

test('labels are read from any row of text; ornament does not matter', () => {
  expect(readLabels(' GND, VCC | D/C;\nSDI(MOSI)')).toEqual(['GND', 'VCC', 'D/C', 'SDI(MOSI)']);
  expect(plainLabel(' d/c ')).toBe('DC');
});

test('every role with trade names is some part’s', () => {
  const roles = new Set(parts.flatMap((p) => p.terminals.list.map((t) => t.role as string)));
  expect(TRADE_ROLES.filter((role) => !roles.has(role))).toEqual([]);
});

test.each([
  ['PCF8574T', ['expander-pcf8574', 'lcd-1602-pcf8574', 'lcd-2004-pcf8574']],
  ['PCF8574AT', ['expander-pcf8574a', 'lcd-1602-pcf8574a', 'lcd-2004-pcf8574a']],
  ['ACS712ELC-20A', ['current-acs712', 'current-acs712-20a', 'current-acs712-30a']],
  ['MAX7219CNG', ['digits-8-max7219', 'driver-max7219-dip24', 'driver-max7219-module', 'matrix-32x8-max7219', 'matrix-8x8-max7219']],
])('the marking %s names the version of the chip, on a bare chip and on a module', (chip, ids) => {
  const { candidates } = identify(parts, { chip });
  const best = candidates.filter((c) => c.score === candidates[0]!.score).map((c) => c.part.id);
  expect(best.toSorted()).toEqual(ids);
});

test('a chip marking of the expander helps to find the LCD that it is soldered to', () => {
  const [first] = identify(parts, { chip: 'PCF8574AT', pins: 4, does: 'lcd 16x2' }).candidates;
  expect(first!.part.id).toBe('lcd-1602-pcf8574a');
});
