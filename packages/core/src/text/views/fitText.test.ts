import { boardFit } from '../../review/boardFit';
import { additionOf } from '../../review/addition';
import { shippedSheets } from '../../../tests/catalogue';
import { add, edited, stick, wire } from '../../../tests/makePlan';
import { boardVerdict, switchText } from './fitText';
import { partFitOf } from './partFit';

const sheets = shippedSheets();
const plan = edited(
  stick(),
  sheets,
  ...['a', 'b', 'c'].map((id) => add(id, 'potentiometer')),
  add('lamp', 'led-red-5mm'),
  wire('lamp:A', 'GP26'),
  { kind: 'lock', placement: 'lamp', terminal: 'A', locked: true },
);

test('a board that has too few analog pins says how many terminals are too many, and which', () => {
  const fit = boardFit(plan, sheets, 'esp8266-stick-30')!;
  expect(boardVerdict(fit)).toBe('2 terminals cannot be connected');
  expect(switchText(plan, fit, sheets)).toEqual([
    expect.stringMatching(/^Proved: 2 required terminals cannot be connected\. In the best assignment: \S/),
    expect.stringMatching(/^0 of 1 wire keep their pins/),
    'Locks removed: lamp anode; the pin does not exist on that board.',
  ]);
});

test('a part that only fits when another wire gives way names that wire', () => {
  const unlocked = edited(stick(), sheets, add('lamp', 'led-red-5mm'), wire('lamp:A', 'GP26'), wire('lamp:K', 'ground'));
  const two = ['potentiometer', 'potentiometer'].reduce((now, id) => additionOf(now, sheets, sheets.parts.get(id)!.sheet)!.plan, unlocked);
  const fit = partFitOf(two, additionOf(two, sheets, sheets.parts.get('potentiometer')!.sheet)!, sheets);
  expect([fit.verdict, fit.words]).toEqual(['moves', '1 pin, moves lamp anode']);
  const locked = edited(two, sheets, { kind: 'lock', placement: 'lamp', terminal: 'A', locked: true });
  const none = additionOf(locked, sheets, sheets.parts.get('potentiometer')!.sheet)!;
  expect([partFitOf(locked, none, sheets).verdict, none.open.length, none.moved]).toEqual(['no', 1, []]);
});
