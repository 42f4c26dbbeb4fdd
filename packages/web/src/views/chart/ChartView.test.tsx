/** @jest-environment jsdom */
import { act, screen } from '@testing-library/react';
import { shippedSheets } from '../../../../core/tests/catalogue';
import { add, edited, stick, wire, wired } from '../../../../core/tests/makePlan';
import { mount } from '../../../tests/mount';
import { sessionActions } from '../../state/sessionSlice';
import { ChartView } from './ChartView';

const sheets = shippedSheets();
const plan = edited(
  stick(),
  sheets,
  add('l', 'led-red-5mm', 'Lamp'),
  add('m', 'led-red-5mm', 'More'),
  wire('l:A', 'GP2'),
  wire('m:A', 'GP3'),
);

function chart(start = plan) {
  const mounted = mount(<ChartView />, start, sheets);
  const grid = screen.getByRole('grid');
  const focus = () => [mounted.store.getState().session.terminal, mounted.store.getState().session.pin];
  const to = (terminal: string, pin: string) => act(() => void mounted.store.dispatch(sessionActions.focused({ terminal, pin })));
  const keys = async (text: string) => {
    act(() => grid.focus());
    await mounted.user.keyboard(text);
  };
  const ends = () =>
    Object.fromEntries(Object.entries(mounted.plan().wires).map(([key, { end }]) => [key, end.to === 'pin' ? end.pin : end.to]));
  return { ...mounted, grid, focus, to, keys, ends };
}

test('arrows move by a row and a column and stop at the edges', async () => {
  const { focus, keys, grid } = chart();
  act(() => grid.focus());
  expect(focus()).toEqual(['l:A', null]);
  await keys('{ArrowRight}');
  const [, first] = focus();
  expect(first).not.toBeNull();
  await keys('{ArrowLeft}');
  expect(focus()).toEqual(['l:A', first]);
  await keys('{ArrowDown}');
  expect(focus()).toEqual(['m:A', first]);
  await keys('{PageDown}');
  expect(focus()).toEqual(['m:A', first]);
  await keys('{ArrowUp}{ArrowUp}');
  expect(focus()).toEqual(['l:A', first]);
  await keys('{End}');
  const [, last] = focus();
  await keys('{ArrowRight}');
  expect(focus()).toEqual(['l:A', last]);
  await keys('{Home}{Escape}');
  expect(focus()).toEqual([null, null]);
});

test('Enter wires, and at the wire’s own pin takes it away; a pin that cannot is refused', async () => {
  const { ends, keys, to, steps } = chart();
  to('l:A', 'GP6');
  await keys('{Enter}');
  expect(ends()).toEqual({ 'l:A': 'GP6', 'm:A': 'GP3' });
  await keys(' ');
  expect(ends()).toEqual({ 'm:A': 'GP3' });
  to('l:A', 'ground');
  await keys('{Enter}');
  expect(ends()).toEqual({ 'm:A': 'GP3' });
  expect(steps()).toEqual(['Lamp anode: GP2 → GP6', 'Lamp anode: GP6 → open']);
});

test('Shift and an arrow go to the next pin that fits and is free', async () => {
  const { ends, keys, to, focus } = chart();
  to('l:A', 'GP2');
  // GP3 is taken.
  await keys('{Shift>}{ArrowRight}{/Shift}');
  expect([ends()['l:A'], focus()]).toEqual(['GP4', ['l:A', 'GP4']]);
  await keys('{Shift>}{ArrowLeft}{/Shift}');
  expect([ends()['l:A'], focus()]).toEqual(['GP2', ['l:A', 'GP2']]);
});

test('a locked wire stays until it is unlocked; Delete takes one away', async () => {
  const { ends, keys, to, plan: now } = chart();
  to('l:A', 'GP6');
  await keys('l');
  expect(now().wires['l:A']!.locked).toBe(true);
  await keys('{Enter}');
  await keys('{Delete}');
  expect(ends()['l:A']).toBe('GP2');
  await keys('l{Enter}');
  expect(ends()['l:A']).toBe('GP6');
  await keys('{Backspace}');
  expect(ends()).toEqual({ 'm:A': 'GP3' });
});

test('W prefers a pin, and again prefers none; keys with Ctrl or Alt are not the chart’s', async () => {
  const { keys, to, plan: now, steps } = chart();
  to('l:A', 'GP6');
  await keys('w');
  expect(now().wishes).toEqual({ 'l:A': { pin: 'GP6' } });
  await keys('w');
  expect(now().wishes).toEqual({});
  await keys('{Control>}l{/Control}{Alt>}w{/Alt}{Meta>}{Delete}{/Meta}');
  expect(steps()).toEqual(['Lamp anode: prefers GP6', 'Lamp anode: no preference']);
});

test('F goes from finding to finding, to those without a pin as well, and begins anew after the last', async () => {
  const { keys, store } = chart(edited(plan, sheets, wire('m:A', 'GP2')));
  const seen: (string | null)[] = [];
  for (let n = 0; n < 6; n += 1) {
    await keys('f');
    seen.push(store.getState().session.finding);
  }
  const all = new Set(seen);
  expect([...all].map((id) => id!.split('/')[0]).toSorted()).toEqual([
    'led-no-resistor',
    'led-no-resistor',
    'terminal-unwired',
    'terminal-unwired',
  ]);
  expect(seen.slice(4)).toEqual(seen.slice(0, 2));
});

test('F at a finding about a part as a whole goes to its first row, and leaves the pin of the finding before', async () => {
  const matrix = wired('x', 'matrix-8x8-max7219', { VCC: 'rail vbus', GND: 'ground', DIN: 'GP3', CS: 'GP5', CLK: 'GP2' });
  const { keys, focus, store, to } = chart(edited(stick(), sheets, ...matrix));
  to('x:CS', 'GP5');
  await keys('f');
  expect(store.getState().session.finding).toMatch(/^level-no-margin/);
  expect(focus()).toEqual([sheets.parts.get('matrix-8x8-max7219')!.sheet.terminals.list.map(({ id }) => `x:${id}`)[0], null]);
});

test('an empty plan leads to the parts', () => {
  mount(<ChartView />, stick(), sheets);
  expect(screen.getByRole('link', { name: 'Add parts' }).getAttribute('href')).toBe('/plans/plan-1/stock');
});
