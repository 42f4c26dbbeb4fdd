import { shippedSheets } from '../../../tests/catalogue';
import { codesAfter } from '../../../tests/checkHarness';
import { add, edited, stick, wire } from '../../../tests/makePlan';
import type { Edit } from '../../plan/edit';
import { boardOf } from '../../plan/edit';
import type { Plan } from '../../plan/plan';
import { otherLines, oneWirePullUp } from './otherLines';

const sheets = shippedSheets();
const plan = (...edits: readonly Edit[]): Plan => edited(stick(), sheets, ...edits);
const linesOf = (of: Plan) => otherLines(of, sheets, boardOf(of, sheets)!);
const notes = (of: Plan, kind: string) => linesOf(of).flatMap((one) => one.notes.filter((note) => note.note === kind));

test('a serial part is said with what crosses', () => {
  const gps = plan(add('g', 'gps-neo-6m', 'Where'), wire('g:RX', 'GP0'), wire('g:TX', 'GP1'));
  expect(linesOf(gps)).toMatchObject([
    {
      kind: 'uart',
      lines: [
        { label: 'RX', pin: 'GP0' },
        { label: 'TX', pin: 'GP1' },
      ],
    },
  ]);
  expect(notes(gps, 'crossing')).toEqual([{ note: 'crossing', sends: 'RX', hears: 'TX' }]);
});

test('a 1-Wire line is one entry for all its parts: its resistor, and who lives from the line', () => {
  const three = plan(...['a', 'b'].flatMap((id) => [add(id, 'temperature-ds18b20', id), wire(`${id}:DQ`, 'GP2')]), wire('a:VCC', 'ground'));
  expect(linesOf(three)).toMatchObject([{ kind: 'one-wire', members: [{ id: 'a' }, { id: 'b' }] }]);
  expect(notes(three, 'one-wire')).toEqual([{ note: 'one-wire', pulled: false, ohms: 4700, parasitic: ['a'] }]);
  const pulled = edited(three, sheets, { kind: 'pull', placement: 'b', terminal: 'DQ', pull: { ohms: 4700, to: 'supply' } });
  expect(notes(pulled, 'one-wire')).toMatchObject([{ pulled: true }]);
  expect([oneWirePullUp(3.3, 100), oneWirePullUp(3.3, 2000), oneWirePullUp(1.8, 100)]).toEqual([4700, 2200, 3300]);
});

test('clocks of parts with one chip may be one wire, of different chips not', () => {
  const digits = (id: string): Edit[] => [add(id, 'digits-4-tm1637', id), wire(`${id}:DIO`, id === 'a' ? 'GP3' : 'GP4')];
  const shared = plan(...digits('a'), ...digits('b'), wire('a:CLK', 'GP2'), wire('b:CLK', 'a:CLK'));
  expect(codesAfter(shared, sheets).filter((c) => c.startsWith('pin'))).toEqual([]);
  expect(notes(shared, 'shared-clock')).toEqual([
    { note: 'shared-clock', with: ['b'] },
    { note: 'shared-clock', with: ['a'] },
  ]);
  const other = plan(...digits('a'), wire('a:CLK', 'GP2'), add('l', 'load-cell-hx711', 'l'), wire('l:SCK', 'a:CLK'));
  expect(codesAfter(other, sheets)).toContain('pin-shared');
});

test('encoders and keypads: interrupts, bounce, and keys that nobody pressed', () => {
  const both = plan(add('k', 'encoder-rotary-switch', 'Knob'), wire('k:A', 'GP2'), wire('k:B', 'GP3'), add('p', 'keypad-4x4', 'Pad'));
  expect(notes(both, 'encoder')).toEqual([{ note: 'encoder', interrupts: 2, bounceMilliseconds: 5 }]);
  expect(notes(both, 'matrix')).toEqual([{ note: 'matrix', keys: 16, diodes: false }]);
  expect(codesAfter(both, sheets)).toContain('ghost-keys');
});
