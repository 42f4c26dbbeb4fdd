import { previewEdits } from '@roof-chart/core/review/previewEdits';
import type { Edit } from '@roof-chart/core/plan/edit';
import { shippedSheets } from '../../../core/tests/catalogue';
import { add, edited, stick, wire } from '../../../core/tests/makePlan';
import { previewWords } from './previewWords';

const sheets = shippedSheets();
const plan = edited(
  stick(),
  sheets,
  add('k', 'encoder-rotary-switch', 'Knob'),
  add('l', 'led-red-5mm', 'Lamp'),
  add('t', 'lcd-2004-pcf8574', 'Text'),
  wire('k:SW', 'GP22'),
  wire('l:A', 'GP22'),
);

const words = (...edits: readonly Edit[]) => {
  const result = previewEdits(plan, edits, sheets);
  if (!result.ok) throw new Error(result.problem.expected);
  return previewWords(plan, sheets, result.preview);
};

test('a move says from where to where, what it solves and what it causes', () => {
  expect(words(wire('l:A', 'GP2'))).toEqual({
    wires: ['Lamp anode: GP22 → GP2'],
    jumpers: 0,
    others: [],
    solved: ['GP22 carries 2 signals'],
    caused: [],
  });
  expect(words(wire('t:VCC', 'rail 3v3'))).toMatchObject({
    wires: ['Text VCC: open → 3V3'],
    caused: ['Text VCC gets too little voltage', 'Text: 3 wires missing'],
  });
});

test('jumpers are counted by part, wires of parts that go are named', () => {
  expect(
    words(
      { kind: 'strap', placement: 't', strap: 'A0', state: 'bridged' },
      { kind: 'strap', placement: 't', strap: 'A1', state: 'bridged' },
    ),
  ).toMatchObject({ wires: [], jumpers: 1 });
  expect(words({ kind: 'unwire', placement: 'k', terminal: 'SW' })).toMatchObject({ wires: ['Knob SW: GP22 → open'] });
});

test('what is no wire is said, too: parts, cut pull-ups, resistors, clocks and rates', () => {
  expect(
    words(
      { kind: 'cut-pull-ups', placement: 't', cut: true },
      { kind: 'pull', placement: 'k', terminal: 'SW', pull: { ohms: 10_000, to: 'supply' } },
      { kind: 'bus-settings', segment: 'i2c0', settings: { hz: 100_000, addedOhms: 4700 } },
      { kind: 'rate', placement: 't', perSecond: 2 },
      add('x', 'shifter-mosfet-4', 'Shifter'),
    ).others,
  ).toEqual([
    'pull-ups of Text cut',
    'Shifter is added',
    '10 kΩ from Knob SW to the supply',
    'clock 100 kHz',
    '4.7 kΩ added on each line',
    'Text asked 2 times a second',
  ]);
});
