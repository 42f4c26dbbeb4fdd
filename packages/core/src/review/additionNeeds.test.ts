import { shippedSheets } from '../../tests/catalogue';
import { findingsOf } from '../../tests/checkHarness';
import { add, edited, stick, wire } from '../../tests/makePlan';
import { applyEdits } from '../plan/applyEdits';
import { newPlan, type Plan } from '../plan/plan';
import { needsText } from '../text/needsText';
import { completeAddition, completeVerdict } from './additionNeeds';

const sheets = shippedSheets();
const on = (board: string): Plan => newPlan('p', 'P', { id: board, version: 1 });
const complete = (plan: Plan, part: string) => completeAddition(plan, sheets, sheets.parts.get(part)!.sheet)!;

test('a 5 V display comes with the buffer or shifter that it needs, wired and decoupled', () => {
  const digits = complete(stick(), 'digits-8-max7219');
  expect([completeVerdict(digits), needsText(digits.needs!)]).toEqual(['with', 'buffer 74AHCT125 and 1 capacitor']);
  const lcd = complete(stick(), 'lcd-1602-pcf8574');
  expect(needsText(lcd.needs!)).toBe('level shifter BSS138 ×4');
  const probe = complete(stick(), 'temperature-ds18b20');
  expect(needsText(probe.needs!)).toBe('1 resistor');
  for (const { needs } of [digits, lcd, probe]) expect(findingsOf(needs!.plan, sheets).filter((f) => f.level !== 'hint')).toEqual([]);
});

test('free channels of a helper that is there are used first', () => {
  const first = complete(stick(), 'digits-8-max7219');
  const with2 = complete(first.needs!.plan, 'relay-active-low');
  expect(with2.needs!.adds).toEqual([]);
  expect(needsText(with2.needs!)).toBe('buffer 74AHCT125 of the plan');
});

test('a part that asks more than a rail gives comes with a regulator or a source of its own, grounds joined', () => {
  const matrix = complete(stick(), 'matrix-32x8-max7219');
  expect([completeVerdict(matrix), needsText(matrix.needs!)]).toEqual([
    'with',
    'buffer 74AHCT125, 5 V supply USB-C connector and 1 capacitor',
  ]);
  const { plan } = matrix.needs!;
  const source = plan.placements.find(({ sheet }) => sheet.id === 'supply-5v-usb')!.id;
  expect(plan.wires[`${source}:GND`]?.end).toEqual({ to: 'ground' });
  expect(plan.wires[`${matrix.placement}:VCC`]?.end).toEqual({ to: 'rail', rail: `${source}:VOUT` });
  const net = complete(on('atmega328p-5v-shield'), 'ethernet-w5500');
  expect(needsText(net.needs!)).toBe('3.3 V LDO MCP1700-3302E and 2 capacitors');
  for (const { needs } of [matrix, net]) expect(findingsOf(needs!.plan, sheets).filter((f) => f.level !== 'hint')).toEqual([]);
});

test('on a board without 3.3 V a part of 3.3 V comes with a regulator, and with the buffer that its signals need then', () => {
  const card = complete(on('atmega32a-5v-dip-40'), 'sd-card-3v3');
  expect([completeVerdict(card), needsText(card.needs!)]).toEqual(['with', '3.3 V LDO MCP1700-3302E, buffer 74LVC245A and 3 capacitors']);
});

test('what no added part helps is still said', () => {
  const digits = complete(on('rp2040-stamp-14'), 'seven-segment-4-cc');
  expect([completeVerdict(digits), digits.needs]).toEqual(['no', undefined]);
  expect(complete(stick(), 'light-bh1750').needs).toBeUndefined();
});

test.each(['rp2040-stick-40', 'atmega328p-5v-shield', 'bcm2711-sbc-40', 'esp8266-stick-30'])(
  'on %s most parts that need something come with it: nothing there moves, and no error or warning is added',
  (board) => {
    const plan = edited(on(board), sheets, add('l', 'led-red-5mm'));
    const told = { with: 0, not: 0 };
    for (const { sheet } of sheets.parts.values()) {
      const addition = completeAddition(plan, sheets, sheet)!;
      const { needs } = addition;
      if (!needs) continue;
      const applied = applyEdits(plan, needs.edits, sheets);
      expect(applied).toMatchObject({ ok: true, plan: needs.plan });
      expect(needs.plan.placements[0]).toEqual(plan.placements[0]);
      expect(needs.plan.wires['l:A']).toEqual(plan.wires['l:A']);
      // It never ends with more to mend than the plain addition.
      const grave = addition.added.filter((f) => f.level !== 'hint').length;
      expect({ part: sheet.id, left: needs.left.length < grave }).toEqual({ part: sheet.id, left: true });
      told[needs.left.length === 0 ? 'with' : 'not'] += 1;
    }
    expect(told.with).toBeGreaterThan(2 * told.not);
  },
);

test('what an addition needs moves no wire that is there, takes nothing out, and leaves no error or warning that was not there', () => {
  const made = [
    edited(
      stick(),
      sheets,
      add('oled', 'oled-096-ssd1306-i2c'),
      wire('oled:SDA', 'GP4'),
      wire('oled:SCL', 'GP5'),
      wire('oled:VCC', 'rail 3v3'),
    ),
    edited(
      on('atmega328p-5v-shield'),
      sheets,
      add('s', 'servo-micro'),
      wire('s:SIG', 'D9'),
      wire('s:VCC', 'rail 5v'),
      wire('s:GND', 'ground'),
    ),
  ];
  let needed = 0;
  for (const plan of made)
    for (const { sheet } of [...sheets.parts.values()].filter((_, at) => at % 3 === 0)) {
      const { needs } = complete(plan, sheet.id);
      if (!needs) continue;
      needed += 1;
      const result = applyEdits(plan, needs.edits, sheets);
      if (!result.ok) throw new Error(`${sheet.id}: ${JSON.stringify(result.problem)}`);
      expect([sheet.id, result.plan]).toEqual([sheet.id, needs.plan]);
      for (const [key, { end }] of Object.entries(plan.wires))
        expect([sheet.id, key, result.plan.wires[key]?.end]).toEqual([sheet.id, key, end]);
      expect(result.plan.placements.slice(0, plan.placements.length)).toEqual(plan.placements);
      if (needs.left.length > 0) continue;
      const had = new Set(findingsOf(plan, sheets).map((f) => f.id));
      expect([
        sheet.id,
        findingsOf(result.plan, sheets)
          .filter((f) => f.level !== 'hint' && !had.has(f.id))
          .map((f) => f.id),
      ]).toEqual([sheet.id, []]);
    }
  expect(needed).toBeGreaterThan(15);
});
