import fc from 'fast-check';
import { shippedSheets } from '../../tests/catalogue';
import { findingsOf } from '../../tests/checkHarness';
import { add, edited, shield, stick, wire } from '../../tests/makePlan';
import { runs } from '../../tests/runs';
import { boardOf } from '../plan/edit';
import { type Plan, sameEnd } from '../plan/plan';
import { additionOf } from '../review/addition';
import { endFit } from './fit/endFit';
import { freePins } from './fit/freePins';
import { pinFit } from './fit/pinFit';
import { pinSetsOf } from './fit/pinSets';
import { proposeWires } from './proposeWires';
import { assignPins } from './assignPins';
import { findNets } from '../nets/nets';
import { terminalsOf } from '../nets/terminals';

const sheets = shippedSheets();
const partIds = [...sheets.parts.keys()];

const proposed = (plan: Plan, id: string) =>
  proposeWires(
    { plan, sheets, board: boardOf(plan, sheets)! },
    plan.placements.find((p) => p.id === id)!,
  );

test.each([stick(), shield()])(
  'parts added one after another on $board.id never clash on pins, and move only what must, named',
  (empty) => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...partIds), { minLength: 1, maxLength: 7 }), (ids) => {
        let plan = empty;
        for (const id of ids) {
          const addition = additionOf(plan, sheets, sheets.parts.get(id)!.sheet)!;
          const changed = Object.keys(plan.wires).filter((key) => !sameEnd(addition.plan.wires[key]?.end, plan.wires[key]!.end));
          expect([...addition.moved].sort()).toEqual(changed.sort());
          // What moves must: with everything kept where it is, something of the new part stays open.
          if (changed.length > 0) {
            const bare = edited(plan, sheets, addition.edits[0]!);
            const beside = assignPins(bare, sheets, { only: addition.placement, freeze: true })!;
            expect(beside.costs.unwired).toBeGreaterThan(0);
          }
          plan = addition.plan;
        }
        const codes = new Set(findingsOf(plan, sheets).map((f) => f.code));
        for (const never of ['pin-shared', 'pin-cannot', 'pin-reserved', 'bus-pair-illegal']) expect([...codes]).not.toContain(never);
        // What stays open says so; it is never wired to something that does not fit instead.
        const supply = findingsOf(plan, sheets).filter((f) => f.code === 'supply-wrong' && f.level === 'clash');
        expect(supply).toEqual([]);
      }),
      { numRuns: runs(20) },
    );
  },
);

test('the first I2C part takes the first neat pair that costs nothing, the next joins it', () => {
  const first = additionOf(stick(), sheets, sheets.parts.get('oled-096-ssd1306-i2c')!.sheet)!;
  const wires = (plan: Plan, id: string) => ['SDA', 'SCL'].map((t) => plan.wires[`${id}:${t}`]!.end);
  const second = additionOf(first.plan, sheets, sheets.parts.get('humidity-sht31')!.sheet)!;
  expect(wires(second.plan, 'sensor-1')).toEqual(wires(first.plan, 'display-1'));
  expect([first.pins, second.pins]).toEqual([2, 0]);
});

test('a part whose address is taken is strapped away; one that cannot be goes to a bus of its own, or says so', () => {
  const after = (plan: Plan, id: string) => additionOf(plan, sheets, sheets.parts.get(id)!.sheet)!;
  const motion = after(after(stick(), 'clock-ds3231-eeprom').plan, 'motion-mpu6050');
  expect(motion.plan.wires['sensor-1:AD0']!.end).toEqual({ to: 'rail', rail: '3v3' });
  const [clocks, onShield] = [stick(), shield()].map((empty) => after(after(empty, 'clock-ds3231-eeprom').plan, 'clock-ds3231-eeprom'));
  expect(clocks!.plan.wires['clock-2:SDA']).not.toEqual(clocks!.plan.wires['clock-1:SDA']);
  expect([motion.added, clocks!.added, onShield!.added.map((f) => f.code)]).toEqual([[], [], ['address-shared', 'address-shared']]);
});

test('supplies go to the logic rail where it fits, else to one that does, else nowhere', () => {
  const railOf = (plan: Plan, id: string) => proposed(plan, id).find((e) => e.kind === 'wire' && e.end.to === 'rail');
  const plan = edited(stick(), sheets, add('oled', 'oled-096-ssd1306-i2c'), add('lcd', 'lcd-2004-pcf8574'));
  expect([railOf(plan, 'oled'), railOf(plan, 'lcd')]).toMatchObject([{ end: { rail: '3v3' } }, { end: { rail: 'vbus' } }]);
  // A bare SD card takes 3.6 V at most, and the encoder’s pull-ups must follow the logic supply.
  const five = edited(shield(), sheets, add('sd', 'sd-card-3v3'), add('knob', 'encoder-rotary-switch'));
  expect([railOf(five, 'sd'), railOf(five, 'knob')]).toMatchObject([{ end: { rail: '3v3' } }, { end: { rail: '5v' } }]);
});

test('a full board leaves terminals open instead of clashing', () => {
  let plan = shield();
  for (let n = 0; n < 12; n += 1) plan = additionOf(plan, sheets, sheets.parts.get('load-cell-hx711')!.sheet)!.plan;
  expect(new Set(findingsOf(plan, sheets).map((f) => f.code))).toEqual(new Set(['terminal-unwired', 'pin-caution']));
  expect(Object.values(plan.wires).filter((w) => w.end.to === 'pin')).toHaveLength(20);
});

test('free pins: no caution before caution, scarce abilities last', () => {
  const plan = edited(shield(), sheets, add('led', 'led-red-5mm'));
  const item = terminalsOf(plan, plan.placements[0]!, sheets)[0]!;
  const order = freePins(boardOf(plan, sheets)!, findNets(plan, sheets), item);
  expect(order.slice(-3).sort()).toEqual(['D0', 'D1', 'D13']);
  expect(order.indexOf('A0')).toBeGreaterThan(order.indexOf('D9'));
  expect(order).toHaveLength(20);
});

test('pin fit: by line, analog, interrupt, position', () => {
  const board = boardOf(shield(), sheets)!;
  const terminal = (part: string, id: string) => sheets.parts.get(part)!.terminals.get(id)!;
  expect(pinFit(board, 'A4', terminal('oled-096-ssd1306-i2c', 'SDA'))).toEqual({ verdict: 'can' });
  expect(pinFit(board, 'A5', terminal('oled-096-ssd1306-i2c', 'SDA'))).toEqual({ verdict: 'cannot', reason: 'no-line' });
  expect(pinFit(board, 'D13', terminal('led-red-5mm', 'A'))).toEqual({ verdict: 'costs', reason: 'caution' });
  expect(pinFit(board, 'RESET', terminal('led-red-5mm', 'A'))).toEqual({ verdict: 'cannot', reason: 'not-a-signal-pin' });
  expect(pinFit(board, 'SDA', terminal('oled-096-ssd1306-i2c', 'SDA'))).toEqual({ verdict: 'cannot', reason: 'not-a-signal-pin' });
  expect(pinFit(board, 'A4', { ...terminal('led-red-5mm', 'A'), role: 'pwm.out' })).toEqual({ verdict: 'cannot', reason: 'no-pwm' });
  expect(pinFit(board, 'D2', { ...terminal('led-red-5mm', 'A'), role: 'adc.in' })).toEqual({ verdict: 'cannot', reason: 'no-adc' });
});

test('end fit: rails by voltage, ground by role, straps by what they take', () => {
  const board = boardOf(stick(), sheets)!;
  const fit = (partId: string, id: string, end: Parameters<typeof endFit>[3]) => {
    const part = sheets.parts.get(partId)!;
    return endFit(board, part.sheet, part.terminals.get(id)!, end).verdict;
  };
  const [rail3, rail5, ground] = [{ to: 'rail', rail: '3v3' }, { to: 'rail', rail: 'vbus' }, { to: 'ground' }] as const;
  expect([fit('sd-card-3v3', 'VCC', rail3), fit('sd-card-3v3', 'VCC', rail5), fit('sd-card-3v3', 'VCC', ground)]).toEqual([
    'can',
    'cannot',
    'cannot',
  ]);
  expect([fit('motion-mpu6050', 'AD0', rail3), fit('motion-mpu6050', 'AD0', rail5), fit('motion-mpu6050', 'AD0', ground)]).toEqual([
    'can',
    'cannot',
    'can',
  ]);
  expect([fit('motion-mpu6050', 'SDA', rail3), fit('motion-mpu6050', 'GND', rail3), fit('motion-mpu6050', 'XDA', ground)]).toEqual([
    'cannot',
    'cannot',
    'cannot',
  ]);
});

test('neat pin sets of the RP2040 lie side by side and are legal', () => {
  const board = boardOf(stick(), sheets)!;
  const pairs = pinSetsOf(board, 'i2c').map((set) => `${set.controller} ${set.pins['sda']} ${set.pins['scl']}`);
  expect(pairs).toEqual(expect.arrayContaining(['i2c0 GP4 GP5', 'i2c1 GP2 GP3', 'i2c0 GP20 GP21', 'i2c1 GP26 GP27']));
  expect(pinSetsOf(board, 'spi').map((set) => Object.values(set.pins).join(' '))).toEqual(
    expect.arrayContaining(['GP16 GP18 GP19', 'GP4 GP6 GP7']),
  );
});

test('a wire proposed for one part does not take a locked one’s pin', () => {
  const plan = edited(
    stick(),
    sheets,
    add('led', 'led-red-5mm'),
    wire('led:A', 'GP2'),
    { kind: 'lock', placement: 'led', terminal: 'A', locked: true },
    add('oled', 'oled-096-ssd1306-i2c'),
  );
  const ends = proposed(plan, 'oled').map((e) => (e.kind === 'wire' && e.end.to === 'pin' ? e.end.pin : ''));
  expect(ends).not.toContain('GP2');
});
