import { shippedSheets } from '../../tests/catalogue';
import { add, edited, stick, wire } from '../../tests/makePlan';
import { settledPlan } from '../../tests/corruptedPlan';
import { sightOf, usualSight } from './firstSight';

const sheets = shippedSheets();
const part = (id: string) => sheets.parts.get(id)!.sheet;

test('first power-up names the addresses that the straps of the plan select', () => {
  const bare = edited(stick(), sheets, add('x', 'expander-pcf8574'));
  expect(sightOf(bare, sheets, bare.placements[0]!)).toMatch(/^Nothing: .*SDA.* not wired in the plan\.$/);
  const plan = settledPlan(sheets, 'rp2040-stick-40', ['expander-pcf8574', 'expander-pcf8574'], 500);
  const seen = plan.placements.map((one) => sightOf(plan, sheets, one));
  expect(seen[0]).not.toBe(seen[1]);
  for (const text of seen) expect(text).toMatch(/^Responds at 0x2[0-7]\.$/);
  expect(usualSight(part('clock-ds1307-eeprom'))).toBe('Responds at 0x68 and 0x50; the seconds count.');
});

test('an unwired backlight is not promised', () => {
  const plan = settledPlan(sheets, 'atmega2560-5v-shield', ['lcd-1602-parallel'], 500);
  const dark = { ...plan, wires: Object.fromEntries(Object.entries(plan.wires).filter(([key]) => !/:[AK]$/.test(key))) };
  const lit = edited(dark, sheets, wire('p0:A', 'rail 5v'), wire('p0:K', 'ground'));
  const see = (one: typeof plan) => sightOf(one, sheets, one.placements[0]!);
  expect(see(lit)).toMatch(/^Backlight on\. Solid blocks/);
  expect(see(dark)).toMatch(/^No backlight \(A not wired\)\. Solid blocks/);
});

test('no sheet promises an address in words that its straps may not select', () => {
  for (const { sheet } of sheets.parts.values()) {
    const devices = sheet.bus.kind === 'i2c' ? (sheet.bus.devices ?? []) : [];
    const several = new Set(devices.flatMap((one) => one.addresses.map(({ address }) => address)));
    expect(usualSight(sheet)).not.toMatch(/[{}]/);
    if (several.size > devices.length) expect(sheet.firstLight.see.split(/[,;.]/)[0]).not.toMatch(/Responds at 0x/);
  }
});
