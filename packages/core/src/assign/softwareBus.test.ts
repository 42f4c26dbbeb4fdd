import { shippedSheets } from '../../tests/catalogue';
import { findingsOf } from '../../tests/checkHarness';
import { add, edited, shield, wire } from '../../tests/makePlan';
import { spiReport } from '../electrics/reports/spiReport';
import { findBuses } from '../nets/buses';
import { applyEdits } from '../plan/applyEdits';
import { boardOf, type Edit } from '../plan/edit';
import { newPlan, type Plan } from '../plan/plan';
import { startPlan } from '../plan/startPlan';
import { completeAddition } from '../review/additionNeeds';
import { waysOut } from '../review/ways/waysOut';
import { CONTROLLER_KINDS } from '../sheets/roles';
import { softwareBusId, softwareHz, withSoftwareBuses } from '../sheets/softwareBuses';
import { indexSheets } from '../sheets/sheetIndex';
import { assignPins } from './assignPins';
import { ontoSoftware } from './softwareBus';

const sheets = shippedSheets();
const partSheetOf = (id: string) => sheets.parts.get(id)!.sheet;
const grave = (plan: Plan) => findingsOf(plan, sheets).filter((f) => f.level !== 'hint');
const powered = (id: string) => [wire(`${id}:VCC`, 'rail 5v'), wire(`${id}:GND`, 'ground')];

/** A display whose five signals are on pins that no example program uses. */
const anyFive = edited(
  shield(),
  sheets,
  add('d', 'oled-096-ssd1306-spi', 'Screen'),
  ...powered('d'),
  ...Object.entries({ D0: 'D3', D1: 'D4', RES: 'D5', DC: 'D6', CS: 'D7' }).map(([terminal, pin]) => wire(`d:${terminal}`, pin)),
);

describe('a display on any five pins', () => {
  test('is offered the hardware pins, and the same pins by software', () => {
    const found = findingsOf(anyFive, sheets).filter((f) => f.code === 'pin-cannot');
    expect(found.map((f) => f.remedies.map((r) => r.label))).toEqual([
      ['move-bus', 'software'],
      ['move-bus', 'software'],
    ]);
  });

  test('by software it is a bus of the program: at its clock, with a frame rate that follows', () => {
    const remedy = findingsOf(anyFive, sheets)
      .find((f) => f.code === 'pin-cannot')!
      .remedies.find((r) => r.label === 'software')!;
    const plan = edited(anyFive, sheets, ...remedy.edits);
    expect(plan.wires).toBe(anyFive.wires);
    expect(grave(plan).filter((f) => f.code.startsWith('pin-') || f.code.startsWith('bus-'))).toEqual([]);
    const [bus] = findBuses(plan, sheets);
    expect(bus).toMatchObject({ controller: 'softspi1', pins: { sck: 'D3', mosi: 'D4' } });
    const { rows, softwareHz: other } = spiReport(plan, sheets, boardOf(plan, sheets)!, bus!);
    expect([rows[0]!.write, other]).toEqual([{ hz: 500_000, by: 'program' }, undefined]);
    // A frame is 1024 bytes and its commands: at 500 kHz some 60 a second, where the controller of the chip would make hundreds.
    expect(rows[0]!.time!.mostPerSecond).toBeLessThanOrEqual(500_000 / (1024 * 8));
    expect(rows[0]!.time!.mostPerSecond).toBeGreaterThan(55);
    // Assigned again, it stays.
    expect(assignPins(plan, sheets)!.edits).toEqual([]);
  });
});

test('a pin without the direction is no place for a bus by software either, and a board that states no clock has none', () => {
  const onInput = edited(
    newPlan('p', 'Test', { id: 'esp32-stick-38', version: 1 }),
    sheets,
    add('d', 'oled-096-ssd1306-spi', 'Screen'),
    wire('d:D0', 'IO34'),
    wire('d:D1', 'IO32'),
  );
  const found = findingsOf(onInput, sheets).filter((f) => f.place.pins?.includes('IO34'));
  expect(found.map((f) => f.level)).toEqual(['clash']);
  expect(found.flatMap((f) => f.remedies.map((r) => r.label))).not.toContain('software');
  const { software: _none, ...bare } = sheets.boards.get('atmega328p-5v-shield')!.sheet;
  const own = indexSheets([bare, partSheetOf('oled-096-ssd1306-spi')]);
  const labels = findingsOf(anyFive, own).flatMap((f) => f.remedies.map((r) => r.label));
  expect(labels).not.toContain('software');
  expect(ontoSoftware(anyFive, own, anyFive.placements, 'spi')).toBeUndefined();
});

describe('where the controllers are used up', () => {
  const avr = startPlan('a', 'Test', 'atmega328p-5v-shield', sheets);
  const two = edited(avr, sheets, add('a', 'gps-neo-6m', 'Fix'), add('b', 'gps-neo-6m', 'Other'));

  test('the second serial part is driven by software: as a way out, as a fix, and with the part', () => {
    const settled = assignPins(two, sheets)!;
    expect(settled.open.length).toBeGreaterThan(0);
    const way = waysOut(two, sheets).find((one) => one.kind === 'software-bus')!;
    expect(way.open).toEqual([]);
    expect(
      findBuses(way.plan, sheets)
        .map((bus) => bus.controller)
        .toSorted(),
    ).toEqual(['softuart1', 'uart0']);
    const one = assignPins(edited(avr, sheets, add('a', 'gps-neo-6m', 'Fix')), sheets)!.plan;
    const complete = completeAddition(one, sheets, partSheetOf('gps-neo-6m'))!;
    expect(complete.needs?.software).toEqual(['software UART']);
  });
});

test('pins of a software bus need direction only: never reserved ones, never an input for a clock', () => {
  for (const board of sheets.boards.values())
    for (const kind of CONTROLLER_KINDS) {
      const id = softwareBusId(kind, 1);
      const made = withSoftwareBuses(board, [id]);
      if (softwareHz(board, kind) === undefined) {
        expect(made).toBe(board);
        continue;
      }
      expect(withSoftwareBuses(board, [id])).toBe(made);
      for (const pin of made.ioPins) {
        const lines = (pin.functions ?? []).filter((name) => name.startsWith(`${id}.`)).map((name) => name.slice(id.length + 1));
        if (pin.grade === 'reserved' || pin.io === 'analog') expect(lines).toEqual([]);
        else if (pin.io === 'in')
          expect(lines).toEqual(kind === 'spi' ? ['miso'] : kind === 'uart' && pin.interrupts?.length ? ['rx'] : []);
        else if (kind === 'i2c') expect(lines).toEqual(pin.limits?.noOpenDrain ? [] : ['sda', 'scl']);
        else if (kind === 'spi') expect(lines).toEqual(['sck', 'mosi', 'miso']);
      }
      // The controllers of the chip are as they were.
      expect(made.sheet.controllers.list.slice(0, -1)).toEqual(board.sheet.controllers.list);
    }
});

test('the lines of a part on a new software bus lie side by side where there is room', () => {
  const plan = edited(shield(), sheets, add('s', 'humidity-sht31', 'Air'));
  const { pins } = ontoSoftware(plan, sheets, plan.placements, 'i2c')!;
  const places = Object.values(pins).map((id) => boardOf(plan, sheets)!.ioPins.findIndex((pin) => pin.id === id));
  expect(Math.abs(places[0]! - places[1]!)).toBe(1);
});

test('a bus taken out goes with its settings and preferences, and comes back with them', () => {
  const plan = edited(
    shield(),
    sheets,
    add('s', 'humidity-sht31', 'Air'),
    { kind: 'software-bus', bus: 'softi2c1', on: true },
    { kind: 'bus-settings', segment: 'softi2c1', settings: { hz: 50_000 } },
    { kind: 'wish', placement: 's', terminal: 'SDA', wish: { controller: 'softi2c1', not: ['D2'] } },
  );
  const off: Edit = { kind: 'software-bus', bus: 'softi2c1', on: false };
  const gone = applyEdits(plan, [off], sheets);
  if (!gone.ok) throw new Error('refused');
  expect([gone.plan.softwareBuses, gone.plan.busSettings, gone.plan.wishes]).toEqual([[], {}, { 's:SDA': { not: ['D2'] } }]);
  expect(edited(gone.plan, sheets, ...gone.inverse)).toEqual(plan);
  const without = newPlan('p', 'Test', { id: 'stm32f103-stick-40', version: 1 });
  const on = edited(without, sheets, { kind: 'software-bus', bus: 'softuart1', on: true });
  expect(boardOf(on, sheets)).toBe(boardOf(without, sheets));
});

describe('PWM by software', () => {
  const linux = startPlan('a', 'Test', 'bcm2711-sbc-40', sheets);

  test('an RGB LED on a board with two PWM channels comes with it', () => {
    const complete = completeAddition(linux, sheets, partSheetOf('rgb-led-cc'))!;
    expect(complete.needs).toMatchObject({ software: ['software PWM'], left: [] });
    expect(Object.keys(complete.needs!.plan.softwarePwm)).toHaveLength(1);
    expect(grave(complete.needs!.plan)).toEqual([]);
  });

  test('on a pin without a timer it is a fix; a servo, which needs its 50 Hz, has none', () => {
    const plan = edited(
      shield(),
      sheets,
      add('l', 'rgb-led-cc', 'Glow'),
      wire('l:R', 'D2'),
      add('s', 'servo-micro', 'Flap'),
      wire('s:SIG', 'D4'),
    );
    const labels = findingsOf(plan, sheets).flatMap((f) => (f.code === 'pin-cannot' ? [f.remedies.map((r) => r.label)] : []));
    expect(labels).toEqual([['move', 'software-pwm'], ['move']]);
    const refused = applyEdits(plan, [{ kind: 'software-pwm', placement: 's', terminal: 'SIG', on: true }], sheets);
    expect(refused).toMatchObject({ ok: false, problem: { path: 'terminal' } });
  });

  test('two outputs of one channel: one of them by software', () => {
    const both = edited(
      linux,
      sheets,
      add('m', 'load-mosfet-logic', 'Pump'),
      add('n', 'load-mosfet-logic', 'Fan'),
      wire('m:SIG', 'GPIO18'),
      wire('n:SIG', 'GPIO12'),
    );
    const found = findingsOf(both, sheets).find((f) => f.code === 'timer-shared')!;
    const fix = found.remedies.find((r) => r.label === 'software-pwm')!;
    const after = edited(both, sheets, ...fix.edits);
    expect(after.softwarePwm).toEqual({ 'n:SIG': true });
    expect(findingsOf(after, sheets).some((f) => f.code === 'timer-shared')).toBe(false);
  });
});
