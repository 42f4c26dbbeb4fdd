import fc from 'fast-check';
import { shippedSheets } from '../../tests/catalogue';
import { findingsOf } from '../../tests/checkHarness';
import { add, edited } from '../../tests/makePlan';
import { runs } from '../../tests/runs';
import { behindShifter } from '../assign/behindShifter';
import { assignPins } from '../assign/assignPins';
import { everyMember } from '../electrics/reports/busInputs';
import { i2cSegmentReports } from '../electrics/reports/segmentReport';
import { otherLines } from '../electrics/reports/otherLines';
import { spiReport } from '../electrics/reports/spiReport';
import { findBuses } from '../nets/buses';
import { chainsOf } from '../nets/chains';
import { joinedWith, segmentsOf } from '../nets/segments';
import { applyEdits } from '../plan/applyEdits';
import { boardOf } from '../plan/edit';
import { newPlan, type Plan } from '../plan/plan';
import { buildList } from '../outputs/buildList';
import { partSheet } from '../sheets/sheetIndex';
import { otherEnds } from '../nets/otherEnds';
import { planTerminals } from '../nets/terminals';
import { reviewPlan } from './review';

const sheets = shippedSheets();
const parts = [...sheets.parts.values()].map((p) => p.sheet);
const idsOf = (...kinds: readonly string[]) => parts.filter((p) => kinds.includes(p.bus.kind)).map((p) => p.id);
const boards = [...sheets.boards.keys()];
const HARD = new Set(['pin-shared', 'pin-cannot', 'bus-pair-illegal']);

const settled = (board: string, ids: readonly string[]): Plan =>
  assignPins(
    edited(newPlan('plan-1', 'Test', { id: board, version: 1 }), sheets, ...ids.map((id, at) => add(`p${at}`, id, `Part ${at}`))),
    sheets,
    {
      nodes: 300,
    },
  )!.plan;

const numbersIn = (value: unknown): readonly number[] => {
  if (typeof value === 'number') return [value];
  return typeof value === 'object' && value !== null ? Object.values(value).flatMap((v) => numbersIn(v)) : [];
};

test('wires to other parts, taken at random from those that are offered: every member keeps one stretch, and nothing is ever not a number', () => {
  const mixed = [...idsOf('i2c'), 'shifter-mosfet-4', 'shifter-txs0108e', 'buffer-pca9517a', 'multiplexer-tca9548a'];
  fc.assert(
    fc.property(
      fc.constantFrom(...boards),
      fc.array(fc.constantFrom(...mixed), { minLength: 2, maxLength: 7 }),
      fc.array(fc.tuple(fc.nat(), fc.nat()), { maxLength: 8 }),
      (board, ids, picks) => {
        let plan = settled(board, ids);
        for (const [which, where] of picks) {
          const lines = planTerminals(plan, sheets).filter((t) => t.terminal.role.startsWith('i2c.') && !t.placement.onBoard);
          const item = lines[which % Math.max(1, lines.length)];
          const ends = item ? otherEnds(plan, sheets, item) : [];
          const end = ends[where % Math.max(1, ends.length)];
          if (!item || !end) continue;
          const result = applyEdits(
            plan,
            [
              {
                kind: 'wire',
                placement: item.placement.id,
                terminal: item.terminal.id,
                end: { to: 'terminal', placement: end.placement, terminal: end.terminal },
              },
            ],
            sheets,
          );
          if (!result.ok) throw new Error(JSON.stringify(result.problem));
          plan = result.plan;
        }
        const review = reviewPlan(plan, sheets);
        expect(review.ok).toBe(true);
        for (const bus of findBuses(plan, sheets).filter((b) => b.kind === 'i2c')) {
          const segments = segmentsOf(plan, sheets, bus);
          const members = segments.flatMap((s) => s.members.map((m) => m.id));
          expect(new Set(members).size).toBe(members.length);
          expect(members).toEqual(everyMember(plan, sheets, bus).map((m) => m.id));
          for (const segment of segments) {
            const joined = joinedWith(segments, segment);
            expect(joined).toContain(segment);
            // To be joined is mutual, but for channels, of which one is open at a time.
            for (const other of joined)
              if (other.via?.by !== 'channel' && segment.via?.by !== 'channel') expect(joinedWith(segments, other)).toContain(segment);
          }
        }
        for (const stretches of i2cSegmentReports(plan, sheets).values())
          expect(numbersIn(stretches.map((s) => [s.pullUps, s.overdriven])).some((n) => Number.isNaN(n))).toBe(false);
        expect(buildList(plan, sheets)).toBeDefined();
      },
    ),
    { numRuns: runs(60) },
  );
});

test('an SPI bus: no part is clocked above what it, the controller or the wire takes, and the shares add up', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...boards),
      fc.array(fc.constantFrom(...idsOf('spi')), { minLength: 1, maxLength: 5 }),
      fc.constantFrom(0, 15, 60, 300),
      (board, ids, wireCm) => {
        let plan = settled(board, ids);
        for (const bus of findBuses(plan, sheets).filter((b) => b.kind === 'spi' && b.controller))
          plan = edited(plan, sheets, { kind: 'bus-settings', segment: bus.controller!, settings: { wireCm } });
        const on = boardOf(plan, sheets)!;
        for (const bus of findBuses(plan, sheets).filter((b) => b.kind === 'spi')) {
          const sheet = spiReport(plan, sheets, on, bus);
          // Further chips of a part have rows of their own beside its first.
          const first = sheet.rows.filter((row) => !row.further);
          expect(first.flatMap((row) => row.chain).sort()).toEqual(bus.members.map((m) => m.id).sort());
          expect(sheet.share).toBeCloseTo(
            sheet.rows.reduce((sum, row) => sum + (row.time?.share ?? 0), 0),
            12,
          );
          for (const row of sheet.rows) {
            const part = partSheet(sheets, plan.placements.find((p) => p.id === row.head)!.sheet)!.sheet;
            if (row.further) {
              expect(row.write.hz).toBeLessThanOrEqual(Math.min(row.further.maxHz, sheet.controllerHz ?? Infinity));
              continue;
            }
            const own = part.bus.clockPoints ? Math.max(...part.bus.clockPoints.map((p) => p.maxHz)) : (part.bus.maxWriteHz ?? Infinity);
            expect(row.write.hz).toBeLessThanOrEqual(Math.min(own, sheet.controllerHz ?? Infinity));
            if (row.time && row.bySoftware) expect(row.bySoftware.mostPerSecond).toBeLessThanOrEqual(row.time.mostPerSecond);
          }
        }
      },
    ),
    { numRuns: runs(60) },
  );
});

test('a part behind a level shifter stays on its bus, breaks no hard rule, and undo takes the shifter away', () => {
  const fed = idsOf('i2c').filter((id) => sheets.parts.get(id)!.sheet.supply!.volts.max >= 5);
  fc.assert(
    fc.property(fc.constantFrom(...boards), fc.array(fc.constantFrom(...fed), { minLength: 1, maxLength: 4 }), (board, ids) => {
      const plan = settled(board, ids);
      for (const bus of findBuses(plan, sheets).filter((b) => b.kind === 'i2c' && b.controller)) {
        const on = boardOf(plan, sheets)!;
        const found = behindShifter({ plan, sheets, board: on }, [bus.members[0]!.id], 'i2c');
        if (!found) continue;
        const result = applyEdits(plan, found.edits, sheets);
        if (!result.ok) throw new Error(JSON.stringify(result.problem));
        const had = new Set(findingsOf(plan, sheets).map((f) => f.id));
        expect(findingsOf(result.plan, sheets).filter((f) => HARD.has(f.code) && !had.has(f.id))).toEqual([]);
        const after = findBuses(result.plan, sheets).find((b) => b.id === bus.id)!;
        expect(after.members.map((m) => m.id).sort()).toEqual(bus.members.map((m) => m.id).sort());
        const back = applyEdits(result.plan, result.inverse, sheets);
        expect(back.ok && back.plan).toEqual(plan);
      }
    }),
    { numRuns: runs(40) },
  );
});

test('other lines: every part with a protocol of its own or a serial port is told of once, 1-Wire parts once a line', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...boards),
      fc.array(fc.constantFrom(...idsOf('private', 'uart', 'none')), { minLength: 1, maxLength: 7 }),
      (board, ids) => {
        const plan = settled(board, ids);
        const lines = otherLines(plan, sheets, boardOf(plan, sheets)!);
        const alone = lines.filter((one) => one.kind !== 'one-wire').map((one) => one.members[0]!.id);
        expect(new Set(alone).size).toBe(alone.length);
        const wires = lines.filter((one) => one.kind === 'one-wire').flatMap((one) => one.members.map((m) => m.id));
        expect(new Set(wires).size).toBe(wires.length);
        for (const chain of chainsOf(plan, sheets)) expect(chain.circle).toBe(false);
      },
    ),
    { numRuns: runs(60) },
  );
});
