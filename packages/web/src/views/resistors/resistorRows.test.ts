import type { PlanResistor } from '@roof-chart/core/electrics/reports/planResistors';
import { newPlan } from '@roof-chart/core/plan/plan';
import { resistorEdit, stepped } from './resistorRows';
import { bandColours, resistorText } from '@roof-chart/core/text/resistorText';

const plan = newPlan('p', 'P', { id: 'rp2040-stick-40', version: 1 });
const resistor = (id: string, why: PlanResistor['why'], key?: string): PlanResistor => ({
  id,
  why,
  key,
  ohms: 330,
  exactOhms: undefined,
  amps: undefined,
  watts: undefined,
  ratingWatts: undefined,
});

test('each kind of resistor is edited where it stands', () => {
  const pulled = {
    ...plan,
    pulls: { 'd:ECHO': { ohms: 2200, to: 'ground' as const } },
    busSettings: { i2c0: { hz: 1e5, addedOhms: 4700 } },
  };
  expect(resistorEdit(pulled, resistor('pull d:ECHO', { use: 'divider-bottom', with: 1000 }, 'd:ECHO'), 3300)).toEqual({
    kind: 'pull',
    placement: 'd',
    terminal: 'ECHO',
    pull: { ohms: 3300, to: 'ground' },
  });
  expect(resistorEdit(pulled, resistor('series d:ECHO', { use: 'divider-top', with: 2200 }, 'd:ECHO'), null)).toMatchObject({
    kind: 'series',
    ohms: null,
  });
  expect(resistorEdit(pulled, resistor('driver b:PLUS', { use: 'base', kind: 'npn' }, 'b:PLUS'), 680)).toMatchObject({
    driver: { kind: 'npn', ohms: 680 },
  });
  const bus = resistor('bus i2c0', { use: 'bus', controller: 'i2c0', segment: 'i2c0', lines: 2 });
  expect(resistorEdit(pulled, bus, null)).toEqual({ kind: 'bus-settings', segment: 'i2c0', settings: { hz: 1e5 } });
});

test('steps go to the next value on hand, and end with the last', () => {
  expect([stepped(plan, 330, 1), stepped(plan, 330, -1), stepped(plan, 335, -1)]).toEqual([390, 270, 330]);
  const own = { ...plan, valuesOnHand: { series: 'own' as const, own: [330, 1000] } };
  expect([stepped(own, 330, 1), stepped(own, 330, -1), stepped(own, 1000, 1)]).toEqual([1000, undefined, undefined]);
});

test('a value is said with its bands and its letters', () => {
  expect(resistorText(4700)).toBe('4.7 kΩ (yellow, violet, red, gold; 4K7)');
  expect(bandColours(180)).toEqual(['brown', 'grey', 'brown', 'gold']);
});
