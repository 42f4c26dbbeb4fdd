import type { Component } from '../../electrics/reports/components';
import { newPlan } from '../../plan/plan';
import { indexSheets } from '../../sheets/sheetIndex';
import type { BoardPosition } from '../../outputs/boardPosition';
import type { BuildWire } from '../../outputs/buildList';
import type { BuildStep, StepWhat } from '../../outputs/buildSheet';
import { asText, changeText, ordinal, SECTION_TEXT, stepText, whereText } from './buildText';

const plan = {
  ...newPlan('p', 'P', { id: 'x', version: 1 }),
  placements: [{ id: 'k', sheet: { id: 's', version: 1 }, name: 'Keys', straps: {} }],
};
const sheets = indexSheets([]);
const step = (what: StepWhat, done = false): BuildStep => ({ id: 'x:y', what, value: '1', done });

test('positions are counted as people say them', () => {
  expect([1, 2, 3, 4, 11, 12, 13, 21, 22, 111].map(ordinal)).toEqual([
    '1st',
    '2nd',
    '3rd',
    '4th',
    '11th',
    '12th',
    '13th',
    '21st',
    '22nd',
    '111th',
  ]);
});

test('a place of a double header is named by its pin and its row', () => {
  const at = {
    header: 'h',
    headerTitle: '40-pin header',
    side: 'right',
    position: 5,
    row: 'odd',
    fromEnd: 3,
    end: 'pin 1',
    label: 'GPIO3',
    port: undefined,
  } as const;
  const wire = { at: [at], end: { to: 'pin', pin: 'GPIO3' }, placement: 'k', joined: false } as unknown as BuildWire;
  expect(whereText(wire)).toBe('40-pin header, right side, pin 5, odd row, 3rd from the end with pin 1');
  const ground = { ...wire, at: [at, { ...at, position: 9 }], end: { to: 'ground' } } as BuildWire;
  expect(whereText(ground)).toBe('any GND (40-pin header 5, 9)');
});

test('every kind of step says what to do, resistors with their bands', () => {
  expect(stepText(plan, sheets, step({ is: 'safety' })).text).toMatch(/^Unplug USB/);
  expect(stepText(plan, sheets, step({ is: 'idle', placement: 'k', labels: ['A1', 'A2'] })).text).toBe(
    'tie A1, A2 to ground (unused inputs)',
  );
  expect(stepText(plan, sheets, step({ is: 'cut', cut: { placement: 'k', how: 'jumper', ohms: 4700 } })).detail).toBe(
    'Cut or open the solder jumper.',
  );
});

test('a change says what to take off, to move, to add', () => {
  const change = { key: 'k:A', name: 'Keys A', from: 'GP2', to: 'GP3' };
  expect([changeText({ ...change, do: 'remove' }), changeText({ ...change, do: 'move' }), changeText({ ...change, do: 'add' })]).toEqual([
    'Keys A: remove from GP2',
    'Keys A: move from GP2 to GP3',
    'Keys A: connect to GP3',
  ]);
});

test('the sheet as text has a line a step with its section', () => {
  const text = asText(plan, sheets, [{ id: 'safety', steps: [step({ is: 'safety' }, true)] }], ['Pin conflict: GP4 is used by 2 signals']);
  expect(text.split('\n')).toEqual([
    'section\titem\tstep\tposition\tdone',
    'Open error\tPin conflict: GP4 is used by 2 signals\t\t\t',
    `${SECTION_TEXT.safety}\tDisconnect power\tUnplug USB and every other supply.\tStay unpowered until first power-up.\tdone`,
  ]);
});

test('terminals without a wire say what they are for, or are left open', () => {
  const terminals = [
    { label: 'XDA', note: 'Auxiliary bus.' },
    { label: 'XCL', note: 'Auxiliary bus.' },
    { label: 'NC', note: undefined },
    { label: 'AL', note: undefined },
  ];
  expect(stepText(plan, sheets, step({ is: 'others', placement: 'k', terminals })).text).toBe(
    'XDA, XCL: Auxiliary bus · leave NC and AL open',
  );
});

test('components are placed leg by leg', () => {
  const say = (component: Component) => stepText(plan, sheets, step({ is: 'component', component }));
  const own = { to: 'terminal', placement: 'k', terminal: 'A' } as const;
  const pin = { at: { to: 'pin', pin: 'GP2' } } as const;
  expect(say({ id: 'k:series.A', role: 'series', name: 'R1', kind: 'resistor', value: 470, ends: [{ at: own }, pin] })).toEqual({
    head: 'R1',
    text: 'resistor 470 Ω (yellow, violet, brown, gold; 470R) between Keys A and GP2',
  });
  expect(say({ id: 'k:series.A', role: 'series', name: 'R1', kind: 'resistor', value: 470, ends: [{ at: own }] }).text).toMatch(
    /Keys A and nothing yet$/,
  );
  const trimmed = [{ at: { to: 'rail', rail: '5V' } }, { at: { to: 'ground' } }, { leg: 'wiper', at: own }] as const;
  expect(say({ id: 'k:trimmer.A', role: 'trimmer', name: 'RV1', kind: 'trimmer', value: 1e4, ends: trimmed }).text).toBe(
    '10 kΩ trimmer: outer legs to 5V and GND, wiper to Keys A',
  );
  const ends = [{ at: { to: 'rail', rail: '5V' } }, { at: { to: 'ground' } }] as const;
  expect(
    say({ id: 'k:capacitor.0', role: 'capacitor', name: 'C1', kind: 'capacitor', value: 1e-5, polar: true, near: 'its supply', ends }),
  ).toEqual({
    head: 'C1',
    text: '10 µF electrolytic capacitor, plus leg first, between 5V and GND',
    detail: 'At its supply.',
  });
  expect(say({ id: 'k:capacitor.0', role: 'capacitor', name: 'C1', kind: 'capacitor', value: 1e-7, ends }).text).toBe(
    '100 nF capacitor between 5V and GND',
  );
  const legs = [
    { leg: 'base', at: { to: 'component', id: 'k:base.A' } },
    { leg: 'emitter', at: { to: 'ground' } },
    { leg: 'collector', at: own },
  ] as const;
  const npn = { id: 'k:transistor.A', role: 'transistor', name: 'Q1', kind: 'transistor', value: undefined, ends: legs } as const;
  expect(say({ ...npn, transistor: { kind: 'npn', ohms: 470 } }).text).toBe(
    'NPN transistor: base to k:base.A, emitter to GND, collector to Keys A',
  );
  expect(say({ ...npn, transistor: { kind: 'npn', ohms: 470 } }).detail).toMatch(/datasheet of the one on hand/);
  expect(say({ ...npn, transistor: { kind: 'npn', ohms: 470, legs: 'EBC' } }).detail).toBe(
    'Legs from left to right, flat side towards you: E, B, C.',
  );
});

test('the circuit of a bare chip is said pin by pin', () => {
  const at = (label: string, position: number) => ({ label, at: { headerTitle: 'left row', position } as BoardPosition });
  const ends = [at('XTAL1', 13), at('XTAL2', 12)] as const;
  const component = { name: 'Y1', kind: 'crystal', value: 16e6, ends, note: 'Directly at the pins.' } as const;
  expect(stepText(plan, sheets, step({ is: 'chip-component', component }))).toEqual({
    head: 'Y1',
    text: '16 MHz crystal between XTAL1 (left row, position 13) and XTAL2 (left row, position 12)',
    detail: 'Directly at the pins.',
  });
  const supply = { end: { to: 'ground' }, pins: [at('GND', 11)], feed: undefined } as const;
  expect(stepText(plan, sheets, step({ is: 'chip-supply', supply })).text).toBe(
    'connect GND (left row, position 11) to the ground rail of the breadboard.',
  );
  const pins = [
    { number: 1, label: 'MISO', end: at('PB6', 7) },
    { number: 6, label: 'not connected', end: undefined },
  ];
  expect(stepText(plan, sheets, step({ is: 'chip-connector', connector: { name: 'J1', title: 'ISP header', pins } })).text).toBe(
    'ISP header: pin 1 MISO to PB6 (left row, position 7) · leave pin 6 open',
  );
});
