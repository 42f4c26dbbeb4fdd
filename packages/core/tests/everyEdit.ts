import type { Edit } from '../src/plan/edit';
import type { Plan } from '../src/plan/plan';
import type { Sheets } from '../src/sheets/sheetIndex';
import { add, edited, stick, wire } from './makePlan';

/** A plan with a part for each kind of edit. */
export const everyPart = (sheets: Sheets): Plan =>
  edited(
    stick(),
    sheets,
    add('s', 'oled-096-ssd1306-i2c', 'Screen'),
    add('t', 'lcd-1602-parallel', 'Text'),
    add('l', 'led-red-5mm', 'Lamp'),
    add('k', 'keypad-ladder', 'Keys'),
    add('m', 'relay-coil-5v', 'Relay'),
    add('g', 'strip-ws2812b', 'Strip'),
    add('c', 'rgb-led-cc', 'Colour'),
    wire('s:SDA', 'GP4'),
    wire('s:SCL', 'GP5'),
    wire('l:A', 'GP15'),
    wire('t:V0', 'ground'),
  );

const at = (placement: string, terminal: string) => ({ placement, terminal });
const day = '2026-11-30';

/** One of each kind, and of what differs within a kind. All apply to the plan above. */
export const EVERY_EDIT: readonly Edit[] = [
  { kind: 'rename-plan', name: 'Renamed' },
  { kind: 'add-placement', at: 1, placement: { id: 'b', sheet: { id: 'climate-bme280', version: 1 }, name: 'Climate', straps: {} } },
  { kind: 'remove-placement', placement: 's' },
  { kind: 'rename-placement', placement: 's', name: 'Renamed' },
  { kind: 'move-placement', placement: 's', at: 2 },
  { kind: 'wire', ...at('s', 'SDA'), end: { to: 'pin', pin: 'GP8' }, colour: 'blue' },
  { kind: 'wire', ...at('s', 'VCC'), end: { to: 'rail', rail: '3v3' } },
  { kind: 'wire', ...at('s', 'VCC'), end: { to: 'terminal', placement: 'l', terminal: 'A' } },
  { kind: 'wire', ...at('t', 'V0'), end: { to: 'trimmer', ohms: 10_000 } },
  { kind: 'wire', ...at('t', 'V0'), end: { to: 'divider', topOhms: 4700, bottomOhms: 680 } },
  { kind: 'wire', ...at('s', 'GND'), end: { to: 'ground' } },
  { kind: 'unwire', ...at('s', 'SDA') },
  { kind: 'lock', ...at('s', 'SDA'), locked: true },
  { kind: 'colour', ...at('s', 'SDA'), colour: 'green' },
  { kind: 'tick', ...at('s', 'SDA'), end: { to: 'pin', pin: 'GP4' } },
  { kind: 'step', step: 'component:l:series.A', done: '330' },
  { kind: 'built', built: { date: day, wires: { 's:SDA': { name: 'Screen SDA', end: { to: 'pin', pin: 'GP4' }, to: 'GP4' } } } },
  { kind: 'breadboard', breadboard: { rows: 63, boards: 1, rails: 'split' } },
  { kind: 'arrange', placement: 's', place: { side: 'left', at: 1, turned: true } },
  { kind: 'place', item: 's', place: { side: 'fj', row: 26 } },
  { kind: 'place', item: 'board', place: { side: 'off' } },
  { kind: 'switch-board', board: { id: 'rp2350-stick-40', version: 1 }, soldered: [] },
  { kind: 'take-sheet', placement: null, version: 1 },
  { kind: 'take-sheet', placement: 's', version: 1 },
  { kind: 'bench-note', sheet: 'led-red-5mm', fact: 'polarity/forwardVolts/max', note: { value: 2.4, words: 'measured', date: day } },
  { kind: 'wish', ...at('s', 'SDA'), wish: { pin: 'GP8', not: ['GP0'], controller: 'i2c0' } },
  { kind: 'together', placement: 's', how: 'adjacent' },
  { kind: 'bus-settings', segment: 'i2c0', settings: { hz: 100_000, addedOhms: 4700, wireCm: 30, picofarads: 200 } },
  { kind: 'software-bus', bus: 'softi2c1', on: true },
  { kind: 'software-pwm', ...at('c', 'R'), on: true },
  { kind: 'cut-pull-ups', placement: 's', cut: true },
  { kind: 'wire-note', ...at('s', 'SDA'), note: { end: { to: 'pin', pin: 'GP4' }, words: 'tested', date: day } },
  { kind: 'pull', ...at('s', 'SDA'), pull: { ohms: 4700, to: 'supply' } },
  { kind: 'series', ...at('l', 'A'), ohms: 330 },
  { kind: 'driver', ...at('m', 'A1'), driver: { kind: 'npn', ohms: 1000, legs: 'EBC' } },
  { kind: 'ladder', placement: 'k', ladder: { pull: 2200, row: [330, 620, 1000, 3300] } },
  { kind: 'load', placement: 'g', load: { units: 30, share: 0.5 } },
  { kind: 'readout', placement: 's', readout: { text: 'Hello', scale: 2, picture: 'part', scroll: true } },
  { kind: 'readout', placement: 't', readout: { glyphs: { '°': [1, 2, 3] } } },
  { kind: 'readout', placement: 's', readout: { pictures: [{ name: 'Logo', width: 32, height: 32, bytes: 128 }] } },
  { kind: 'capacitors', placement: 's', there: true },
  { kind: 'reference', component: 'l:series.A', name: 'R7' },
  { kind: 'values-on-hand', valuesOnHand: { series: 'E12' } },
  { kind: 'values-on-hand', valuesOnHand: { series: 'own', own: [220, 470] } },
  { kind: 'rate', placement: 's', perSecond: 10 },
  { kind: 'radio', on: true },
  { kind: 'accept', finding: 'pin-caution/strap/GP4', reason: 'checked' },
  { kind: 'strap', placement: 's', strap: 'ADDR', state: 'high' },
];
