import fc from 'fast-check';
import { shippedSheets } from '../../tests/catalogue';
import { findingsOf } from '../../tests/checkHarness';
import { add, edited, stick, wire } from '../../tests/makePlan';
import { runs } from '../../tests/runs';
import { applyEdits } from '../plan/applyEdits';
import type { Edit } from '../plan/edit';
import { newPlan, type Plan } from '../plan/plan';
import { startPlan } from '../plan/startPlan';
import { boardFit, compareFits } from '../review/boardFit';
import { ontoBoard } from './ontoBoard';
import { assignPins } from './assignPins';

const sheets = shippedSheets();
const partIds = [...sheets.parts.keys()];
const boardIds = [...sheets.boards.keys()];
const onto = (plan: Plan, board: string) => ontoBoard(plan, sheets, board, { nodes: 2000 })!;

test('from any board to any other and back again by undo: all parts and names stay, and no hard rule is broken', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...boardIds),
      fc.constantFrom(...boardIds),
      fc.array(fc.constantFrom(...partIds), { minLength: 1, maxLength: 6 }),
      (from, to, ids) => {
        const bare = edited(startPlan('plan-1', 'Test', from, sheets), sheets, ...ids.map((id, at) => add(`p${at}`, id)));
        const { plan } = assignPins(bare, sheets, { nodes: 2000 })!;
        const moved = onto(plan, to);
        const result = applyEdits(plan, moved.edits, sheets);
        if (!result.ok) throw new Error(JSON.stringify(result.problem));
        expect(result.plan).toEqual(moved.plan);
        expect(applyEdits(result.plan, result.inverse, sheets)).toMatchObject({ ok: true, plan });
        const own = (p: Plan) => p.placements.filter((x) => !x.onBoard).map(({ id, name, sheet }) => ({ id, name, sheet }));
        expect(own(moved.plan)).toEqual(own(plan));
        const soldered = (p: Plan) => p.placements.filter((x) => x.onBoard).map((x) => x.sheet.id);
        expect(soldered(moved.plan)).toEqual((sheets.boards.get(to)!.sheet.onBoard.parts ?? []).map((x) => x.part));
        const hard = findingsOf(moved.plan, sheets).filter((f) => /^(pin-shared|pin-cannot|pin-reserved|bus-pair-illegal)$/.test(f.code));
        expect(hard.map((f) => f.id)).toEqual([]);
      },
    ),
    { numRuns: runs(30) },
  );
});

test('what was found on the bench was found with the old board', () => {
  const plan = edited(
    stick(),
    sheets,
    add('screen', 'oled-096-ssd1306-i2c'),
    wire('screen:SDA', 'GP4'),
    { kind: 'tick', placement: 'screen', terminal: 'SDA', end: { to: 'pin', pin: 'GP4' } },
    {
      kind: 'wire-note',
      placement: 'screen',
      terminal: 'SDA',
      note: { end: { to: 'pin', pin: 'GP4' }, words: 'metered', date: '2026-11-26' },
    },
    ...['sure:screen:SDA', 'light:screen', 'found:screen:display', 'strap:screen:A'].map((step): Edit => ({
      kind: 'step',
      step,
      done: 'yes',
    })),
  );
  const moved = onto(plan, 'rp2350-stick-40').plan;
  expect([moved.ticks, moved.wireNotes, moved.steps]).toEqual([{}, {}, { 'strap:screen:A': 'yes' }]);
});

describe('what stays where it was', () => {
  const plan = edited(
    stick(),
    sheets,
    add('screen', 'oled-096-ssd1306-i2c'),
    wire('screen:SDA', 'GP4'),
    wire('screen:SCL', 'GP5'),
    wire('screen:GND', 'ground'),
    { kind: 'lock', placement: 'screen', terminal: 'SDA', locked: true },
    { kind: 'tick', placement: 'screen', terminal: 'GND', end: { to: 'ground' } },
  );

  test('a smaller board with the same chip keeps its pins where it has them, and locks', () => {
    const there = onto(edited(plan, sheets, { kind: 'lock', placement: 'screen', terminal: 'SDA', locked: false }), 'rp2040-stamp-14');
    // The ground wire and whatever the small board brings out of GP4 and GP5.
    const board = sheets.boards.get('rp2040-stamp-14')!;
    const has = (pin: string) => board.pins.get(pin)?.kind === 'io';
    expect(there.kept).toBe(1 + [has('GP4'), has('GP5')].filter(Boolean).length);
    expect(there.plan.ticks).toEqual({});
  });

  test('on another chip pins of the same name are other pins: all is settled anew, and the lock that is lost is named', () => {
    const there = onto(plan, 'esp32-stick-38');
    expect([there.lostLocks, there.kept]).toEqual([['screen:SDA'], 1]);
    expect(there.plan.wires['screen:SDA']).toMatchObject({ end: { to: 'pin' }, locked: false });
  });

  test('the board it is on already changes nothing but what is open', () => {
    const settled = assignPins(plan, sheets)!.plan;
    const again = onto(edited(settled, sheets, { kind: 'tick', placement: 'screen', terminal: 'GND', end: null }), 'rp2040-stick-40');
    expect(again.edits.map((e) => e.kind)).toEqual(['switch-board']);
    expect(again.plan).toEqual({ ...settled, ticks: {} });
  });
});

describe('boards ranked for a plan', () => {
  const many = ['stepper-a4988', 'lcd-2004-parallel', 'potentiometer', 'potentiometer', 'keypad-4x4', 'sd-card-3v3'];
  const bare = edited(
    newPlan('plan-1', 'Test', { id: 'atmega328p-5v-shield', version: 1 }),
    sheets,
    ...many.map((id, at) => add(`p${at}`, id)),
  );
  const fits = boardIds.map((id) => boardFit(bare, sheets, id, { nodes: 2000 })!).sort(compareFits);
  const at = (id: string) => fits.find((f) => f.board === id)!;

  test('what cannot hold the parts comes after all that can, with what stays open', () => {
    const order = fits.map((f) => f.verdict);
    expect(order.lastIndexOf('fits')).toBeLessThan(order.indexOf('open'));
    expect([at('rp2040-stamp-14').verdict, at('rp2040-stamp-14').open.length > 0]).toEqual(['open', true]);
  });

  test('head-room counts pins without a wire, and no ability that the board does not have', () => {
    for (const { headRoom, plan, board } of fits) {
      const used = new Set(Object.values(plan.wires).flatMap(({ end }) => (end.to === 'pin' ? [end.pin] : [])));
      const usable = sheets.boards.get(board)!.ioPins.filter((pin) => pin.grade !== 'reserved');
      expect(headRoom.pins).toBe(usable.filter((pin) => !used.has(pin.id)).length);
      expect(headRoom.adc).toBe(usable.filter((pin) => !used.has(pin.id) && pin.adc).length);
    }
    expect([at('bcm2711-sbc-40').headRoom.adc, at('bcm2711-sbc-40').verdict]).toEqual([0, 'open']);
  });

  test('frame buffers that the RAM cannot hold are no fit, though every wire has its pin', () => {
    const note = { value: true, words: 'The program draws it in one go', date: '2026-11-25' };
    const round = edited(newPlan('plan-1', 'T', { id: 'rp2040-stick-40', version: 1 }), sheets, add('dial', 'epaper-29'), {
      kind: 'bench-note',
      sheet: 'epaper-29',
      fact: 'memory/required',
      note,
    });
    const needs = sheets.parts.get('epaper-29')!.sheet.memory!;
    const small = boardFit(round, sheets, 'atmega328p-5v-shield')!;
    expect(small.memory).toEqual({ neededBytes: needs.frameBufferBytes, ramBytes: 2048 });
    expect([small.verdict, boardFit(round, sheets, 'rp2040-stick-40')!.verdict]).toEqual(['clashes', 'fits']);
  });
});
