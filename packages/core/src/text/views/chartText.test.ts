import { shippedSheets } from '../../../tests/catalogue';
import { add, edited, stick, wire } from '../../../tests/makePlan';
import { planTerminals } from '../../nets/terminals';
import type { Edit } from '../../plan/edit';
import type { WireEnd } from '../../plan/plan';
import { cellText, freeText } from './chartText';

const sheets = shippedSheets();
const board = sheets.boards.get('rp2040-stick-40')!;
const pin = (id: string): WireEnd => ({ to: 'pin', pin: id });
/** The anode of a lamp after some edits. */
const anode = (...edits: readonly Edit[]) =>
  planTerminals(edited(stick(), sheets, add('lamp', 'led-red-5mm'), ...edits), sheets).find(({ key }) => key === 'lamp:A')!;

test('a cell says whether the wire is there, could be, or cannot be and why', () => {
  const say = (end: WireEnd, choice?: 'taken' | 'costs' | 'free', item = anode(wire('lamp:A', 'GP2'))) =>
    cellText({ board, item, end, name: 'here', choice });
  expect(say(pin('GP2'))).toBe('here: connected here');
  expect(say(pin('GP2'), 'free', anode(wire('lamp:A', 'GP2'), { kind: 'lock', placement: 'lamp', terminal: 'A', locked: true }))).toBe(
    'here: connected here, locked',
  );
  expect((['free', 'costs', 'taken'] as const).map((choice) => say(pin('GP3'), choice))).toEqual([
    'here: possible',
    'here: possible, with a caveat',
    'here: error, in use',
  ]);
  const switchOf = planTerminals(edited(stick(), sheets, add('display', 'oled-096-ssd1306-i2c')), sheets).find(
    ({ key }) => key === 'display:SDA',
  )!;
  expect(say(pin('RUN'), undefined, switchOf)).toMatch(/^here: not possible\. \S/);
});

test('other places are counted, in the singular for one', () => {
  expect([freeText(anode(), 0, false), freeText(anode(), 1, true), freeText(anode(), 3, true)]).toEqual([
    'lamp anode: no free pins',
    'lamp anode: 1 other free pin',
    'lamp anode: 3 other free pins',
  ]);
});
