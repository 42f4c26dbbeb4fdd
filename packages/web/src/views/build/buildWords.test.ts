import { newPlan } from '@roof-chart/core/plan/plan';
import { indexSheets } from '@roof-chart/core/sheets/sheetIndex';
import type { BoardPosition } from '@roof-chart/core/outputs/boardPosition';
import type { BuildWire } from '@roof-chart/core/outputs/buildList';
import type { BuildStep, StepWhat } from '@roof-chart/core/outputs/buildSheet';
import { asText, changeWords, ordinal, SECTION_WORDS, stepWords, whereWords } from './buildWords';

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
  expect(whereWords(wire)).toBe('40-pin header, right side, pin 5, odd row, 3rd from the end with pin 1');
  const ground = { ...wire, at: [at, { ...at, position: 9 }], end: { to: 'ground' } } as BuildWire;
  expect(whereWords(ground)).toBe('any GND (40-pin header 5, 9)');
});

test('every kind of step says what to do, resistors with their bands', () => {
  expect(stepWords(plan, sheets, step({ is: 'safety' })).text).toMatch(/^Unplug USB/);
  const ladder = { do: 'ladder', placement: 'k', ladder: { pull: 5600, row: [1200] } } as const;
  expect(stepWords(plan, sheets, step({ is: 'resistor', resistor: ladder }))).toEqual({
    head: 'Keys',
    text: 'resistor ladder with 5.6 kΩ (green, blue, red, gold; 5K6) at the pin',
    detail: 'Then 1.2 kΩ (brown, red, red, gold; 1K2), key by key.',
  });
  expect(stepWords(plan, sheets, step({ is: 'idle', placement: 'k', labels: ['A1', 'A2'] })).text).toBe(
    'tie A1, A2 to ground (unused inputs)',
  );
  expect(stepWords(plan, sheets, step({ is: 'capacitor', placement: 'k', farads: 1e-7, at: 'VCC' })).text).toBe('100 nF at VCC');
  expect(stepWords(plan, sheets, step({ is: 'resistor', resistor: { do: 'cut', placement: 'k', how: 'jumper', ohms: 4700 } })).detail).toBe(
    'Cut or open the solder jumper.',
  );
});

test('a change says what to take off, to move, to add', () => {
  const change = { key: 'k:A', name: 'Keys A', from: 'GP2', to: 'GP3' };
  expect([changeWords({ ...change, do: 'remove' }), changeWords({ ...change, do: 'move' }), changeWords({ ...change, do: 'add' })]).toEqual(
    ['Keys A: remove from GP2', 'Keys A: move from GP2 to GP3', 'Keys A: connect to GP3'],
  );
});

test('the sheet as text has a line a step with its section', () => {
  const text = asText(plan, sheets, [{ id: 'safety', steps: [step({ is: 'safety' }, true)] }], ['Pin conflict: GP4 is used by 2 signals']);
  expect(text.split('\n')).toEqual([
    'section\titem\tstep\tposition\tdone',
    'Open error\tPin conflict: GP4 is used by 2 signals\t\t\t',
    `${SECTION_WORDS.safety}\tDisconnect power\tUnplug USB and every other supply.\tStay unpowered until first power-up.\tdone`,
  ]);
});

test('terminals without a wire say what they are for, or are left open', () => {
  const terminals = [
    { label: 'XDA', note: 'Auxiliary bus.' },
    { label: 'XCL', note: 'Auxiliary bus.' },
    { label: 'NC', note: undefined },
    { label: 'AL', note: undefined },
  ];
  expect(stepWords(plan, sheets, step({ is: 'others', placement: 'k', terminals })).text).toBe(
    'XDA, XCL: Auxiliary bus · leave NC and AL open',
  );
});

test('a transistor is wired leg by leg', () => {
  const wired = { ...plan, wires: { 'k:A': { end: { to: 'pin', pin: 'GP2' }, colour: 'green', locked: false } } } as const;
  const driven = (kind: 'npn' | 'pmos') =>
    stepWords(wired, sheets, step({ is: 'resistor', resistor: { do: 'driver', key: 'k:A', driver: { kind, ohms: 470 } } })).detail;
  expect(driven('npn')).toBe('Base through 470 Ω (yellow, violet, brown, gold; 470R) to GP2, emitter to ground, collector to Keys A.');
  expect(driven('pmos')).toMatch(/^Gate through 470 Ω .* to GP2, source to .*, drain to Keys A\.$/);
});

test('the circuit of a bare chip is said pin by pin', () => {
  const at = (label: string, position: number) => ({ label, at: { headerTitle: 'left row', position } as BoardPosition });
  const ends = [at('XTAL1', 13), at('XTAL2', 12)] as const;
  const component = { name: 'Y1', kind: 'crystal', value: 16e6, ends, note: 'Directly at the pins.' } as const;
  expect(stepWords(plan, sheets, step({ is: 'chip-component', component }))).toEqual({
    head: 'Y1',
    text: '16 MHz crystal between XTAL1 (left row, position 13) and XTAL2 (left row, position 12)',
    detail: 'Directly at the pins.',
  });
  const supply = { end: { to: 'ground' }, pins: [at('GND', 11)], feed: undefined } as const;
  expect(stepWords(plan, sheets, step({ is: 'chip-supply', supply })).text).toBe(
    'connect GND (left row, position 11) to the ground rail of the breadboard.',
  );
  const pins = [
    { number: 1, label: 'MISO', end: at('PB6', 7) },
    { number: 6, label: 'not connected', end: undefined },
  ];
  expect(stepWords(plan, sheets, step({ is: 'chip-connector', connector: { name: 'J1', title: 'ISP header', pins } })).text).toBe(
    'ISP header: pin 1 MISO to PB6 (left row, position 7) · leave pin 6 open',
  );
});
