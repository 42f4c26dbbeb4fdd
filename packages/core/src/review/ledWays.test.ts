import { shippedSheets } from '../../tests/catalogue';
import { findingsOf } from '../../tests/checkHarness';
import { add, edited, stick, wire } from '../../tests/makePlan';
import { chainsOf } from '../nets/chains';
import { newPlan, type Plan } from '../plan/plan';
import { segmentTable } from '../displays/segmentTable';
import { additionOf } from './addition';
import { ledWays } from './ledWays';

const sheets = shippedSheets();
const shield = (): Plan => newPlan('p', 'P', { id: 'atmega328p-5v-shield', version: 1 });
const withDigits = (part: string, board = shield()): Plan => edited(board, sheets, add('s', part, 'Digits'));
const ways = (plan: Plan) =>
  ledWays(
    plan,
    sheets,
    plan.placements.find((p) => p.id === 's')!,
  );
const grave = (plan: Plan) => findingsOf(plan, sheets).filter((f) => f.level !== 'hint');

test.each(['seven-segment-4-cc', 'seven-segment-4-ca'])(
  '%s: two shift registers, chained, with transistors and resistors, work as they are',
  (part) => {
    const plan = withDigits(part);
    const way = ways(plan).find(({ kind }) => kind === 'registers')!;
    const driven = edited(plan, sheets, ...way.edits);
    expect(grave(driven)).toEqual([]);
    expect(chainsOf(driven, sheets).map(({ members }) => members.length)).toEqual([2]);
    const kind = part.endsWith('cc') ? 'npn' : 'pnp';
    expect(Object.keys(driven.drivers).toSorted()).toEqual(['s:DIG1', 's:DIG2', 's:DIG3', 's:DIG4']);
    expect(Object.values(driven.drivers).every((one) => one.kind === kind)).toBe(true);
    expect(Object.keys(driven.series)).toHaveLength(8);
    const table = segmentTable(driven, sheets, 's')!;
    // Segment a at QA is bit 0, so that the bytes are those of the segment letters.
    expect(table.bits.map(({ segment, bit }) => [segment, bit])).toEqual(['a', 'b', 'c', 'd', 'e', 'f', 'g', 'dp'].map((s, at) => [s, at]));
    expect(table.digits.map(({ index }) => index)).toEqual([0, 1, 2, 3]);
    expect(table.glyphs.find(({ glyph }) => glyph === '0')!.byte).toBe(part.endsWith('cc') ? 0x3f : 0xc0);
    expect(table.activeLow).toBe(part.endsWith('ca'));
  },
);

test('bare digits go to the driver of the plan first, then to new ones; common anodes only to registers', () => {
  const plan = edited(withDigits('seven-segment-4-cc'), sheets, add('d', 'driver-max7219-dip24', 'Driver'));
  expect(ways(plan).map(({ kind, placement, adds }) => [kind, placement ?? adds])).toEqual([
    ['driver', 'd'],
    ['driver', sheets.parts.get('driver-ht16k33')!.sheet.title],
    ['driver', sheets.parts.get('driver-max7219-dip24')!.sheet.title],
    ['driver', sheets.parts.get('driver-max7219-module')!.sheet.title],
    ['driver', sheets.parts.get('driver-max7221-dip24')!.sheet.title],
    ['segments', sheets.parts.get('shift-out-74hc595')!.sheet.title],
    ['registers', sheets.parts.get('shift-out-74hc595')!.sheet.title],
  ]);
  expect(ways(withDigits('seven-segment-4-ca')).map(({ kind }) => kind)).toEqual(['segments', 'registers']);
  const button = edited(shield(), sheets, add('s', 'button-push'));
  expect(ways(button)).toEqual([]);
});

test('four bare digits on a new MAX7219: supplied, set, decoupled, nothing left open', () => {
  const plan = withDigits('seven-segment-4-cc');
  const way = ways(plan).find(({ adds }) => adds === sheets.parts.get('driver-max7219-dip24')!.sheet.title)!;
  const driven = edited(plan, sheets, ...way.edits);
  expect(grave(driven)).toEqual([]);
  expect(Object.keys(driven.series)).toEqual(['helper-1:ISET']);
  expect(driven.capacitors).toEqual({ 'helper-1': true });
});

test('a second equal module follows the first in its chain, without another pin; apart it takes its own', () => {
  const sheet = sheets.parts.get('matrix-8x8-max7219')!.sheet;
  const first = additionOf(shield(), sheets, sheet)!;
  expect(first.after).toBeUndefined();
  const second = additionOf(first.plan, sheets, sheet)!;
  expect([second.after, second.pins, second.open]).toEqual([first.placement, 0, []]);
  expect(second.plan.wires[`${second.placement}:DIN`]!.end).toEqual({ to: 'terminal', placement: first.placement, terminal: 'DOUT' });
  // Two full matrices are more than a USB supply gives.
  expect(grave(second.plan).map(({ code }) => code)).toEqual(['supply-over']);
  const third = additionOf(second.plan, sheets, sheet)!;
  expect(third.after).toBe(second.placement);
  expect(chainsOf(third.plan, sheets).map(({ members }) => members.map(({ id }) => id))).toEqual([
    [first.placement, second.placement, third.placement],
  ]);
  const apart = additionOf(first.plan, sheets, sheet, true)!;
  expect([apart.after, apart.pins > 0]).toEqual([undefined, true]);
  // Of another kind, or with the end of the chain taken, it stands alone.
  expect(additionOf(first.plan, sheets, sheets.parts.get('matrix-32x8-max7219')!.sheet)!.after).toBeUndefined();
});

test.each(['strip-ws2812b', 'shift-out-74hc595', 'digits-2-hc595', 'digits-8-max7219', 'matrix-32x8-max7219', 'driver-max7219-dip24'])(
  '%s chains as it is added',
  (id) => {
    const sheet = sheets.parts.get(id)!.sheet;
    const first = additionOf(stick(), sheets, sheet)!;
    const second = additionOf(first.plan, sheets, sheet)!;
    expect(second.after).toBe(first.placement);
    expect(second.pins).toBe(0);
    const codes = (plan: Plan) =>
      new Set(findingsOf(plan, sheets).flatMap((f) => (f.level === 'clash' && f.code !== 'supply-over' ? [f.code] : [])));
    expect([...codes(second.plan)].filter((code) => !codes(first.plan).has(code))).toEqual([]);
  },
);

test('registers and expanders of the plan with free outputs are offered before new ones', () => {
  const plan = edited(
    withDigits('seven-segment-4-cc'),
    sheets,
    add('r', 'shift-out-74hc595', 'Register'),
    add('e', 'expander-mcp23017', 'Expander'),
  );
  const own = ways(plan).filter(({ placement }) => placement !== undefined);
  expect(own.map(({ kind, placement }) => [kind, placement])).toEqual([
    ['segments', 'r'],
    ['registers', 'e'],
  ]);
  const onExpander = edited(plan, sheets, ...own[1]!.edits);
  expect(onExpander.wires['s:a']!.end).toEqual({ to: 'terminal', placement: 'e', terminal: 'GPA0' });
  expect(onExpander.wires['s:DIG1']!.end).toEqual({ to: 'terminal', placement: 'e', terminal: 'GPB0' });
  expect(Object.keys(onExpander.drivers)).toHaveLength(4);
  // An output that another part uses is not free.
  const used = edited(plan, sheets, add('l', 'led-red-5mm'), {
    kind: 'wire',
    placement: 'l',
    terminal: 'A',
    end: { to: 'terminal', placement: 'r', terminal: 'QC' },
  });
  expect(ways(used).some(({ placement }) => placement === 'r')).toBe(false);
});

test('a way for a display brings the resistors of that display, not those that other LEDs lack', () => {
  const plan = edited(withDigits('seven-segment-1-cc'), sheets, add('led', 'led-red-5mm'), wire('led:A', 'D5'), wire('led:K', 'ground'));
  expect(grave(plan).map((f) => f.code)).toContain('led-no-resistor');
  const found = ways(plan).filter(({ kind }) => kind === 'registers' || kind === 'segments');
  expect(found.length).toBeGreaterThan(0);
  for (const { edits } of found) {
    const series = edits.flatMap((edit) => (edit.kind === 'series' ? [edit] : []));
    expect(series.map((edit) => edit.placement)).toEqual(series.map(() => 's'));
    expect(series.length).toBeGreaterThan(0);
    expect(series.every(({ ohms }) => ohms !== null && ohms > 0)).toBe(true);
  }
});
