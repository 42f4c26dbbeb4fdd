import fc from 'fast-check';
import { shippedSheets } from '../../../tests/catalogue';
import { findingsOf } from '../../../tests/checkHarness';
import { add, edited, wire } from '../../../tests/makePlan';
import { runs } from '../../../tests/runs';
import { applyEdits } from '../../plan/applyEdits';
import { newPlan, type Plan } from '../../plan/plan';
import type { Edit } from '../../plan/edit';
import { assignPins } from '../../assign/assignPins';
import type { WayKind } from './way';
import { indexSheets } from '../../sheets/sheetIndex';
import { waysOut } from './waysOut';

const sheets = shippedSheets();
const plan = (board: string, parts: readonly string[], ...edits: readonly Edit[]): Plan =>
  edited(newPlan('plan-1', 'Test', { id: board, version: 1 }), sheets, ...parts.map((id, at) => add(`p${at}`, id)), ...edits);
const limit = { nodes: 1500 };
const ways = (of: Plan) => waysOut(of, sheets, limit);
const of = (kind: WayKind, from: Plan) => ways(from).filter((way) => way.kind === kind);
const many = (n: number, id: string): readonly string[] => Array.from({ length: n }, () => id);

/** A small board: 11 usable pins. */
const STAMP = 'rp2040-stamp-14';
const pins = sheets.boards
  .get(STAMP)!
  .ioPins.filter((pin) => pin.grade !== 'reserved')
  .map((pin) => pin.id);

test('where everything has its place there is nothing to find a way out of', () => {
  expect(ways(plan(STAMP, ['button-push']))).toEqual([]);
});

test('every way out is what it says: its edits apply, lead to its plan, break no hard rule, and leave less open', () => {
  const ids = [...sheets.parts.keys()];
  fc.assert(
    fc.property(
      fc.constantFrom(STAMP, 'atmega328p-5v-shield', 'esp32-c3-stick-16'),
      fc.array(fc.constantFrom(...ids), { minLength: 5, maxLength: 10 }),
      (board, parts) => {
        const from = plan(board, parts);
        const before = assignPins(from, sheets, limit)!;
        for (const way of waysOut(from, sheets, { nodes: 300 })) {
          const result = applyEdits(from, way.edits, sheets);
          if (!result.ok) throw new Error(`${way.kind}: ${JSON.stringify(result.problem)}`);
          expect(result.plan).toEqual(way.plan);
          expect(way.open.length).toBeLessThan(before.open.length);
          const hard = findingsOf(way.plan, sheets).filter((f) =>
            /^(pin-shared|pin-cannot|pin-reserved|bus-pair-illegal|address-shared)$/.test(f.code),
          );
          expect(hard.map((f) => f.id)).toEqual([]);
        }
      },
    ),
    { numRuns: runs(12) },
  );
});

describe('each way, where it is the one that helps', () => {
  test('what need not be wired is left off by settling itself, before any way out is asked for', () => {
    const knob = plan(
      STAMP,
      [...many(9, 'button-push'), 'encoder-rotary-switch'],
      ...(['A', 'B', 'SW'] as const).map((t, at) => wire(`p9:${t}`, pins[at]!)),
    );
    const settled = assignPins(knob, sheets, limit)!;
    expect([settled.open, settled.plan.wires['p9:SW']]).toEqual([[], undefined]);
    expect(ways(knob)).toEqual([]);
  });

  test('another form of a part: a display on I2C instead of SPI', () => {
    const spi = plan(STAMP, [...many(8, 'button-push'), 'oled-096-ssd1306-spi']);
    const [way] = of('variant', spi);
    expect(way).toMatchObject({ open: [], parts: 0 });
    expect(way!.plan.placements.find((p) => p.id === 'p8')!.sheet.id).toBe('oled-096-ssd1306-i2c');
    expect(way!.pins).toBeLessThan(0);
  });

  test('reset lines go to the reset of the board, or two displays have their command line in common', () => {
    const board = 'atmega328p-5v-stick-30';
    const two = plan(board, ['tft-18-st7735-spi', 'tft-18-st7735-spi', ...many(13, 'button-push')]);
    const open = assignPins(two, sheets, limit)!.open.length;
    expect(open).toBe(1);
    expect(of('reset-tie', two)[0]).toMatchObject({ open: [], parts: 0 });
    const joined = of('join-lines', two)[0]!;
    expect([joined.open, joined.parts]).toEqual([[], 0]);
    const shared = Object.entries(joined.plan.wires).find(([, { end }]) => end.to === 'terminal')!;
    expect(shared[1].end).toMatchObject({ to: 'terminal', terminal: shared[0].split(':')[1] });
    expect(findingsOf(joined.plan, sheets).map((f) => f.code)).not.toContain('pin-shared');
  });

  test('buttons and lamps on an expander, no more of them than must; inputs alone also on a register', () => {
    const buttons = plan(STAMP, many(13, 'button-push'));
    const [way] = of('expander', buttons);
    expect(way).toMatchObject({ open: [], parts: 1 });
    const onHelper = Object.entries(way!.plan.wires).filter(([, { end }]) => end.to === 'terminal');
    // 11 pins carry 9 buttons and the bus; four must be on the expander.
    expect(onHelper).toHaveLength(4);
    expect(of('shift-in', buttons)[0]).toMatchObject({ open: [], parts: 1 });
    expect(of('shift-out', buttons)).toEqual([]);
    const lamps = plan(STAMP, many(13, 'led-red-5mm'));
    expect(of('shift-out', lamps)[0]).toMatchObject({ open: [] });
    expect(of('shift-in', lamps)).toEqual([]);
    // A chip whose ports only pull low is no source for a lamp to ground.
    for (const one of of('expander', lamps)) expect(one.plan.placements.some((p) => p.sheet.id.startsWith('expander-pcf8574'))).toBe(false);
  });

  test('what cannot wait is not put there: PWM, analog, interrupts, protocol lines', () => {
    for (const id of ['servo-micro', 'potentiometer', 'encoder-rotary-switch', 'load-cell-hx711']) {
      const crowd = plan(STAMP, many(9, id));
      for (const way of ways(crowd).filter((w) => w.kind === 'expander' || w.kind.startsWith('shift')))
        expect({ id, kind: way.kind, on: Object.values(way.plan.wires).filter(({ end }) => end.to === 'terminal') }).toMatchObject({
          on: [],
        });
    }
  });

  test('selects on a decoder; keys on a ladder', () => {
    const chips = plan(STAMP, [...many(6, 'thermocouple-max31855'), ...many(5, 'button-push')]);
    const [way] = of('decoder', chips);
    expect(way).toMatchObject({ open: [], parts: 1 });
    expect(Object.values(way!.plan.wires).filter(({ end }) => end.to === 'terminal').length).toBeGreaterThan(3);
    const keys = plan(STAMP, [...many(5, 'button-push'), ...many(8, 'led-red-5mm')]);
    const [laddered] = of('ladder', keys);
    expect(laddered).toMatchObject({ open: [], parts: -4 });
  });

  test('parts of one fixed address behind a multiplexer, as few as must', () => {
    const clocks = plan('atmega328p-5v-shield', many(3, 'clock-ds3231-eeprom'));
    const [way] = of('multiplexer', clocks);
    expect(way).toMatchObject({ open: [], parts: 1 });
    const behind = Object.values(way!.plan.wires).flatMap(({ end }) => (end.to === 'terminal' ? [end.terminal] : []));
    // None may stay before it: an open channel is part of that bus.
    expect(behind.sort()).toEqual(['SC0', 'SC1', 'SC2', 'SD0', 'SD1', 'SD2']);
    expect(findingsOf(way!.plan, sheets).map((f) => f.code)).not.toContain('address-shared');
  });
});

test('without a keypad on one line in the library there is no such way, and the others are still found', () => {
  const crowd = plan(STAMP, many(pins.length + 2, 'button-push'));
  const bare = indexSheets(
    [...sheets.versions.values()].map(({ sheet }) => sheet).filter((s) => s.kind !== 'part' || s.keys?.as !== 'ladder'),
  );
  const kinds = (of: readonly { readonly kind: WayKind }[]) => new Set(of.map(({ kind }) => kind));
  expect(kinds(waysOut(crowd, sheets, limit)).has('ladder')).toBe(true);
  const found = kinds(waysOut(crowd, bare, limit));
  expect([found.has('ladder'), found.size > 0]).toEqual([false, true]);
});
