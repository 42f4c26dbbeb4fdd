import { shippedSheets } from '../../tests/catalogue';
import { add, edited, stick, wire } from '../../tests/makePlan';
import { newPlan, type Plan } from '../plan/plan';
import { buildSheet } from './buildSheet';
import { stepPositions } from './stepPositions';

const sheets = shippedSheets();
const places = (plan: Plan) =>
  buildSheet(plan, sheets)!
    .flatMap(({ steps }) => steps)
    .map((step) => [step.id, stepPositions(plan, sheets, step).map(({ label }) => label)] as const);
const of = (plan: Plan, id: string) => places(plan).find(([step]) => step === id)?.[1];

test('a step points at the positions of its wire, and of the legs of its component that are on the board', () => {
  const plan = edited(stick(), sheets, add('b', 'buzzer-active'), wire('b:PLUS', 'GP2'), wire('b:GND', 'ground'), {
    kind: 'driver',
    placement: 'b',
    terminal: 'PLUS',
    driver: { kind: 'npn', ohms: 1000 },
  });
  expect(of(plan, 'wire:b:PLUS')).toEqual(['GP2']);
  expect(of(plan, 'component:b:base.PLUS')).toEqual(['GP2']);
  expect(of(plan, 'component:b:transistor.PLUS')!.every((label) => label.endsWith('GND'))).toBe(true);
  expect(of(plan, 'safety:board')).toEqual([]);
});

test('the circuit of a bare chip points at its pins', () => {
  const { id, version } = sheets.boards.get('atmega32a-5v-dip-40')!.sheet;
  const plan = edited(newPlan('p', 'P', { id, version }), sheets, add('l', 'led-red-5mm'), wire('l:A', 'PA0'));
  expect(of(plan, 'chip:ground')!.length).toBeGreaterThan(1);
  const components = places(plan).filter(([step]) => /^chip:[A-Z]+\d/.test(step));
  expect(components.length).toBeGreaterThan(4);
  for (const [, labels] of components) expect(labels.length).toBeGreaterThan(1);
});
