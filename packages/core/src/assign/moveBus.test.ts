import { shippedSheets } from '../../tests/catalogue';
import { add, edited, stick, wire, wired } from '../../tests/makePlan';
import { boardOrThrow } from '../plan/edit';
import type { Plan } from '../plan/plan';
import { findNets } from '../nets/nets';
import { editsOnto, lineTerminals } from './moveBus';

const sheets = shippedSheets();
const plan = edited(stick(), sheets, ...wired('a', 'oled-096-ssd1306-i2c', { SDA: 'GP4', SCL: 'GP9' }), add('led', 'led-red-5mm'));
const onto = (now: Plan, sda: string, scl: string) => {
  const items = lineTerminals(now, sheets, [now.placements[0]!], 'i2c');
  return editsOnto(boardOrThrow(now, sheets), findNets(now, sheets), items, { controller: 'i2c0', pins: { sda, scl } });
};

test('only lines that are elsewhere get a wire; a bus that is there already needs no edit', () => {
  expect(onto(plan, 'GP4', 'GP5')).toEqual([wire('a:SCL', 'GP5')]);
  expect(onto(edited(plan, sheets, wire('a:SCL', 'GP5')), 'GP4', 'GP5')).toEqual([]);
});

test('there is no way where a line has no pin, a wire is locked elsewhere, a pin is taken or cannot do it', () => {
  const locked = edited(plan, sheets, { kind: 'lock', placement: 'a', terminal: 'SCL', locked: true });
  expect([onto(locked, 'GP4', 'GP5'), onto(locked, 'GP4', 'GP9')]).toEqual([null, []]);
  expect(onto(edited(plan, sheets, wire('led:A', 'GP5')), 'GP4', 'GP5')).toBeNull();
  expect(onto(plan, 'GP4', 'GP6')).toBeNull();
  const items = lineTerminals(plan, sheets, [plan.placements[0]!], 'i2c');
  expect(editsOnto(boardOrThrow(plan, sheets), findNets(plan, sheets), items, { controller: 'i2c0', pins: { sda: 'GP4' } })).toBeNull();
});
