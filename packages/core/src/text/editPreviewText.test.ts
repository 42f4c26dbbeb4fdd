import { previewEdits } from '../review/previewEdits';
import type { Edit } from '../plan/edit';
import { shippedSheets } from '../../tests/catalogue';
import { add, edited, stick, wire } from '../../tests/makePlan';
import { previewText } from './editPreviewText';

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
  return previewText(plan, sheets, result.preview);
};

test('a move says from where to where, what it solves and what it causes', () => {
  expect(words(wire('l:A', 'GP2'))).toEqual({
    changes: ['Lamp anode: GP22 → GP2'],
    solved: ['Pin conflict: GP22 is used by 2 signals'],
    caused: [],
  });
  expect(words(wire('t:VCC', 'rail 3v3'))).toMatchObject({
    changes: ['Text VCC: open → 3V3'],
    caused: ['Text VCC: under-voltage (3.3 V, minimum 4.5 V)', 'Text: 3 connections missing'],
  });
});

test('jumpers and what is no wire are told one by one', () => {
  expect(
    words(
      { kind: 'strap', placement: 't', strap: 'A0', state: 'bridged' },
      { kind: 'cut-pull-ups', placement: 't', cut: true },
      add('x', 'shifter-mosfet-4', 'Shifter'),
    ),
  ).toMatchObject({ changes: ['pull-ups of Text disconnected', 'Text A0: open → bridged', 'Shifter added'] });
  expect(words({ kind: 'unwire', placement: 'k', terminal: 'SW' })).toMatchObject({ changes: ['Knob SW: GP22 → open'] });
});
