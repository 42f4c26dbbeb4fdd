import fc from 'fast-check';
import { shippedSheets } from '../../tests/catalogue';
import { add, edited } from '../../tests/makePlan';
import { runs } from '../../tests/runs';
import { assignPins } from '../assign/assignPins';
import { busPullUps } from '../electrics/formulas/busPullUps';
import { findBuses } from '../nets/buses';
import { newPlan, type Plan } from '../plan/plan';
import { i2cReport } from './i2cReport';

const sheets = shippedSheets();
const i2cParts = [...sheets.parts.values()]
  .map((p) => p.sheet)
  .filter((p) => p.bus.kind === 'i2c')
  .map((p) => p.id);
const settled = (board: string, parts: readonly string[]): Plan =>
  assignPins(edited(newPlan('plan-1', 'Test', { id: board, version: 1 }), sheets, ...parts.map((id, at) => add(`p${at}`, id))), sheets, {
    nodes: 500,
  })!.plan;
const sheetsOf = (plan: Plan) =>
  findBuses(plan, sheets)
    .filter((bus) => bus.kind === 'i2c')
    .map((bus) => i2cReport(plan, sheets, bus)!);

const numbersIn = (value: unknown): readonly number[] => {
  if (typeof value === 'number') return [value];
  return typeof value === 'object' && value !== null ? Object.values(value).flatMap((v) => numbersIn(v)) : [];
};

test('on any board with any I2C parts every number is one; what is advised does what it is advised for', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...sheets.boards.keys()),
      fc.array(fc.constantFrom(...i2cParts), { minLength: 1, maxLength: 9 }),
      (board, parts) => {
        const plan = settled(board, parts);
        for (const sheet of sheetsOf(plan)) {
          expect(numbersIn(sheet).filter((n) => Number.isNaN(n))).toEqual([]);
          const { input, pullUps, add: ohms, cut } = sheet.segments[0];
          if (ohms !== undefined) {
            const added = { id: 'added', ohms: { min: ohms * 0.95, typ: ohms, max: ohms * 1.05 }, volts: input.vdd };
            expect(busPullUps({ ...input, pullUps: [...input.pullUps, added] }).verdict).toBe('good');
          }
          if (cut.length > 0) {
            const left = input.pullUps.filter((p) => !cut.includes(p.id));
            expect([pullUps.verdict, busPullUps({ ...input, pullUps: left }).verdict]).toEqual(['too-strong', 'good']);
          }
          for (const row of sheet.addresses)
            for (const option of row.options) {
              const after = edited(plan, sheets, ...option.edits);
              const same = sheetsOf(after)
                .flatMap((s) => s.addresses)
                .find((r) => r.placement === row.placement)!;
              expect(same.now.filter((a) => option.addresses.includes(a)).sort()).toEqual([...option.addresses].sort());
            }
        }
      },
    ),
    { numRuns: runs(60) },
  );
});

test('the share of a second adds up, and doubles with the rate', () => {
  const plan = settled('rp2040-stick-40', ['oled-096-ssd1306-i2c', 'motion-mpu6050']);
  const [sheet] = sheetsOf(plan);
  expect(sheet!.time.share).toBeCloseTo(
    sheet!.time.users.reduce((sum, user) => sum + user.share, 0),
    12,
  );
  const twice = edited(plan, sheets, { kind: 'rate', placement: 'p0', perSecond: 8 });
  const share = (of: Plan) => sheetsOf(of)[0]!.time.users.find((user) => user.id === 'p0')!.share;
  expect(share(twice)).toBeCloseTo(2 * share(plan), 12);
});

test('on the single-board computer its own 1.8 kΩ count, and together with modules they are stronger than they look', () => {
  const plan = settled('bcm2711-sbc-40', ['oled-096-ssd1306-i2c']);
  const board = sheetsOf(plan)[0]!.segments[0].input.pullUps.filter((p) => p.id === 'board');
  if (Object.values(findBuses(plan, sheets)[0]!.pins).includes('GPIO2')) expect(board.map((p) => p.ohms.typ)).toEqual([1800]);
  else expect(board).toEqual([]);
});

test('stepping goes over the addresses that straps move, back and forth, and never stops at a fixed one', () => {
  const clock = settled('rp2040-stick-40', ['clock-ds3231-eeprom']);
  const [row] = sheetsOf(clock)[0]!.addresses;
  expect([row!.now, row!.steps]).toEqual([
    [0x68, 0x57],
    [0x50, 0x51, 0x52, 0x53, 0x54, 0x55, 0x56, 0x57],
  ]);
  expect(sheetsOf(settled('rp2040-stick-40', ['motion-mpu6050']))[0]!.addresses[0]).toMatchObject({ now: [0x68], steps: [0x68, 0x69] });
  const down = edited(clock, sheets, ...row!.options.find((o) => o.addresses.includes(0x56))!.edits);
  const [after] = sheetsOf(down)[0]!.addresses;
  expect([after!.now, after!.steps]).toEqual([[0x68, 0x56], row!.steps]);
  expect(
    sheetsOf(settled('rp2040-stick-40', ['motion-adxl345', 'clock-ds1307']))[0]!.addresses.find((r) => r.placement === 'p1')!.steps,
  ).toEqual([]);
});
