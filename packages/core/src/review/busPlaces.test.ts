import hive from '../../../../demo/plans/hive-watch.json';
import { shippedSheets } from '../../tests/catalogue';
import { findingsOf } from '../../tests/checkHarness';
import { add, edited, wired } from '../../tests/makePlan';
import { findBuses } from '../nets/buses';
import type { Plan } from '../plan/plan';
import { upgradePlan } from '../plan/upgradePlan';
import { startPlan } from '../plan/startPlan';
import { assignPins } from '../assign/assignPins';
import { busPlaces, type BusPlace } from './busPlaces';

const sheets = shippedSheets();
const on = (board: string, ...parts: readonly string[]): Plan =>
  assignPins(edited(startPlan('a', 'Test', board, sheets), sheets, ...parts.map((id, at) => add(`p${at}`, id))), sheets)!.plan;
const placesOf = (plan: Plan, at = 0) => busPlaces(plan, sheets, findBuses(plan, sheets)[at]!.id)!;
const after = (plan: Plan, place: BusPlace) => edited(plan, sheets, ...place.edits);

test('every place is what it says: its edits lead there, with that controller, those pins and findings', () => {
  for (const board of ['rp2040-stick-40', 'esp32-stick-38', 'atmega328p-5v-shield', 'bcm2711-sbc-40', 'stm32f446-shield-64']) {
    const plan = on(board, 'oled-096-ssd1306-spi', 'humidity-sht31', 'button-push');
    const before = new Set(findingsOf(plan, sheets).map((f) => f.id));
    for (const [at, bus] of findBuses(plan, sheets).entries())
      for (const place of placesOf(plan, at).places) {
        const next = after(plan, place);
        const there = findBuses(next, sheets).find((one) => one.kind === bus.kind && one.members.some((m) => m.id === bus.members[0]!.id))!;
        expect([board, there.controller, there.pins]).toEqual([board, place.controller, place.pins]);
        const come = findingsOf(next, sheets).filter((f) => f.level !== 'hint' && !before.has(f.id));
        expect(come.map((f) => f.id)).toEqual(expect.arrayContaining(place.added.map((f) => f.id)));
      }
  }
});

test('on a board with one SPI the other place is software: half a megahertz, and the frames that this leaves', () => {
  const plan = on('atmega328p-5v-shield', 'oled-096-ssd1306-spi');
  const { now, places } = placesOf(plan);
  expect(now.hz).toBe(8e6);
  expect(places.map((p) => [p.title, p.software])).toEqual([['Software SPI', true]]);
  const [place] = places;
  expect(place!.speed.hz).toBe(500e3);
  expect(place!.speed.framesPerSecond! / now.framesPerSecond!).toBeCloseTo(500e3 / now.hz!, 2);
  // Back again: the hardware pins are offered, and the software bus goes with its last part.
  const soft = after(plan, place!);
  const [back] = placesOf(soft).places;
  expect(back).toMatchObject({ controller: 'spi0', software: false, usual: true });
  expect(after(soft, back!).softwareBuses).toEqual([]);
});

test('two sensors of one address: the second can be put on another controller, by software, or with the first at the price of an error', () => {
  const plan = on('rp2040-stick-40', 'humidity-aht20', 'humidity-aht20');
  const { places } = placesOf(plan, 1);
  const join = places.find((p) => p.joins.length > 0)!;
  expect([join.joins, join.added.map((f) => f.code)]).toEqual([['p0'], ['address-shared']]);
  expect(places.at(-1)).toMatchObject({ software: true, added: [] });
  expect(places.findIndex((p) => p.software)).toBe(places.length - 1);
});

test('a conflict that moves along with the bus is neither new nor gone, and lines through a level shifter move too', () => {
  const plan = upgradePlan(hive as unknown as Plan);
  const { places } = placesOf(plan);
  expect(places.at(-1)).toMatchObject({ software: true, added: [], gone: [], moved: 12 });
});

test('a locked line keeps its bus: only places with that pin are left, the others are counted', () => {
  const plan = on('rp2040-stick-40', 'humidity-sht31');
  const locked = edited(plan, sheets, { kind: 'lock', placement: 'p0', terminal: 'SDA', locked: true });
  const { places, blocked } = placesOf(locked);
  expect(places.filter((p) => p.pins['sda'] !== findBuses(plan, sheets)[0]!.pins['sda'])).toEqual([]);
  expect(blocked).toBeGreaterThan(placesOf(plan).blocked);
  expect(busPlaces(plan, sheets, 'i2c:nope')).toBeUndefined();
});

test('two of one address stay at odds wherever their bus goes: that is neither new nor gone', () => {
  const together = edited(
    startPlan('a', 'Test', 'rp2040-stick-40', sheets),
    sheets,
    ...wired('p0', 'humidity-aht20', { SDA: 'GP4', SCL: 'GP5' }),
    ...wired('p1', 'humidity-aht20', { SDA: 'GP4', SCL: 'GP5' }),
  );
  expect(findingsOf(together, sheets).map((f) => f.code)).toContain('address-shared');
  const { places } = placesOf(together);
  expect(places.length).toBeGreaterThan(2);
  for (const { added, gone } of places) expect([added, gone].flat().map((f) => f.code)).not.toContain('address-shared');
});

test('a bus that cannot leave its pins joins no other; a serial line has one part at each end', () => {
  const plan = on('rp2040-stick-40', 'humidity-aht20', 'humidity-aht20');
  const held = edited(plan, sheets, { kind: 'lock', placement: 'p1', terminal: 'SDA', locked: true });
  expect(placesOf(held, 1).places.filter((p) => p.joins.length > 0)).toEqual([]);
  const serial = on('rp2040-stick-40', 'gps-neo-6m', 'gps-neo-6m');
  const found = findBuses(serial, sheets).map((_, at) => placesOf(serial, at).places);
  expect(found.flat().length).toBeGreaterThan(0);
  expect(found.flat().filter((p) => p.joins.length > 0)).toEqual([]);
});
