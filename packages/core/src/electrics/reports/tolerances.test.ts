import { shippedSheets } from '../../../tests/catalogue';
import { add, edited, wire } from '../../../tests/makePlan';
import { newPlan } from '../../plan/plan';
import { tolerancesOf } from './tolerances';

const sheets = shippedSheets();

test('a pin leans on its tolerance where it gets more than its supply, not with a part of 3.3 V', () => {
  const echo = (rail: string) =>
    edited(
      newPlan('plan-1', 'Test', { id: 'stm32f103-stick-40', version: 1 }),
      sheets,
      add('e', 'distance-ultrasonic-3v3', 'Echo'),
      ...[wire('e:VCC', `rail ${rail}`), wire('e:GND', 'ground'), wire('e:ECHO', 'B12')],
    );
  expect([tolerancesOf(echo('3v3'), sheets), tolerancesOf(echo('5v'), sheets)]).toEqual([
    [],
    [{ pins: ['B12'], volts: expect.closeTo(5.25, 2) as number, unless: expect.any(String) as string }],
  ]);
});
