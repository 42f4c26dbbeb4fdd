/** @jest-environment jsdom */
import { act, screen, waitFor, within } from '@testing-library/react';
import { shippedSheets } from '../../../../core/tests/catalogue';
import { findingsOf } from '../../../../core/tests/checkHarness';
import { add, edited, stick, wire } from '../../../../core/tests/makePlan';
import { mount } from '../../../tests/mount';
import { FindingsRail } from './FindingsRail';
import { reviewActions } from '../../state/reviewSlice';

const sheets = shippedSheets();
const plan = edited(
  stick(),
  sheets,
  add('l', 'led-red-5mm', 'Lamp'),
  wire('l:A', 'GP2'),
  wire('l:K', 'ground'),
  { kind: 'series', placement: 'l', terminal: 'A', ohms: 56 },
  add('m', 'led-green-5mm', 'More'),
  wire('m:A', 'GP3'),
  wire('m:K', 'ground'),
);
const titles = () =>
  screen
    .getAllByRole('button')
    .filter((one) => one.hasAttribute('aria-expanded'))
    .map((one) => one.textContent);
const line = (title: RegExp) => screen.getByRole('button', { name: title, expanded: false });

test('findings stand by level, the gravest first, with their number in the heading', () => {
  mount(<FindingsRail parts={2} />, plan, sheets);
  expect(screen.getAllByRole('region').map((group) => group.getAttribute('aria-label'))).toEqual(['errors', 'warnings']);
  expect(titles()).toEqual([
    'More: no series resistor',
    'GP2: 32 mA exceeds the pin’s 12 mA',
    'LED over-current: Lamp up to 32 mA, maximum 20 mA',
  ]);
  expect(screen.getByRole('heading', { name: /Findings/ }).textContent).toBe('Findings1 · 2 · 0');
  expect(screen.getByTitle('1 error, 2 warnings, 0 notes')).toBeTruthy();
});

test('a line opens with its text, its reason and its fixes, and takes the Chart there; chosen again, it closes', async () => {
  const { user, store } = mount(<FindingsRail parts={2} />, plan, sheets);
  await user.click(line(/GP2: 32 mA/));
  const open = screen.getByRole('button', { name: /GP2: 32 mA/ });
  expect(open.getAttribute('aria-expanded')).toBe('true');
  expect(store.getState().session).toMatchObject({ pin: 'GP2' });
  expect(screen.getByText('Load: Lamp anode.')).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'Why' }));
  expect(screen.getByText(/^IOH and IOL are specified/)).toBeTruthy();
  await user.click(open);
  expect(open.getAttribute('aria-expanded')).toBe('false');
  expect(store.getState().session.finding).toBeNull();
});

test('a fix shows what it changes before it is applied, then does it as one step that is undone', async () => {
  const mounted = mount(<FindingsRail parts={2} />, plan, sheets);
  const { user } = mounted;
  await user.click(line(/More: no series/));
  const fix = screen.getByRole('button', { name: /^Add .* in 1 wire$/ });
  await user.hover(fix);
  await waitFor(() => expect(screen.getByText('No new findings')).toBeTruthy());
  expect(screen.getByText('Solves').nextElementSibling!.textContent).toBe('More: no series resistor');
  expect(mounted.plan().series).toEqual({ 'l:A': 56 });
  await user.click(fix);
  expect(Object.keys(mounted.plan().series)).toEqual(['l:A', 'm:A']);
  expect(mounted.steps()).toEqual([fix.textContent]);
  expect(titles().some((title) => title!.startsWith('More'))).toBe(false);
  act(() => mounted.undo());
  expect(titles().some((title) => title!.startsWith('More'))).toBe(true);
});

test('a warning is accepted with a reason and can be withdrawn; an error cannot', async () => {
  const mounted = mount(<FindingsRail parts={2} />, plan, sheets);
  const { user } = mounted;
  await user.click(line(/More: no series/));
  const warnings = within(screen.getByRole('region', { name: 'warnings' }));
  expect(within(screen.getByRole('region', { name: 'errors' })).queryByRole('button', { name: 'Accept' })).toBeNull();
  await user.click(line(/LED over-current/));
  await user.click(warnings.getByRole('button', { name: 'Accept' }));
  const submit = screen.getByRole<HTMLButtonElement>('button', { name: 'Accept with this reason' });
  const reason = screen.getByRole('textbox', { name: 'Reason for accepting' });
  await user.type(reason, '   ');
  expect(submit.disabled).toBe(true);
  await user.type(reason, 'short pulses only ');
  await user.click(submit);
  expect(Object.values(mounted.plan().accepted)).toEqual(['short pulses only']);
  expect(screen.getByText('1 accepted')).toBeTruthy();
  expect(screen.getByRole('heading', { name: /Findings/ }).textContent).toBe('Findings1 · 1 · 0');
  expect(within(screen.getByRole('region', { name: 'accepted' })).getByText(/short pulses only/)).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'Withdraw' }));
  expect(mounted.plan().accepted).toEqual({});
});

test('an error that was accepted while it was a warning is open, and says why it was accepted', async () => {
  const error = findingsOf(plan, sheets).find(({ level }) => level === 'clash')!;
  const mounted = mount(<FindingsRail parts={2} />, edited(plan, sheets, { kind: 'accept', finding: error.id, reason: 'tried' }), sheets);
  expect(screen.queryByText('1 accepted')).toBeNull();
  await mounted.user.click(within(screen.getByRole('region', { name: 'errors' })).getAllByRole('button')[0]!);
  expect(screen.getByText('Accepted as a warning, now an error:').parentElement!.textContent).toContain('tried');
  await mounted.user.click(screen.getByRole('button', { name: 'Withdraw' }));
  expect(mounted.plan().accepted).toEqual({});
});

test('a plan without findings says how much was checked, an empty one what to do', () => {
  mount(<FindingsRail parts={0} />, stick(), sheets);
  expect(screen.getByText('Nothing to check yet: add a part in Parts.')).toBeTruthy();
  const clean = edited(
    plan,
    sheets,
    { kind: 'remove-placement', placement: 'l' },
    { kind: 'series', placement: 'm', terminal: 'A', ohms: 220 },
  );
  mount(<FindingsRail parts={1} />, clean, sheets);
  expect(screen.getByText(/^No issues found\. \d+ checks passed\.$/)).toBeTruthy();
});

test('where no review comes, nothing older is shown in its place; checking can be tried again', async () => {
  const { store, user } = mount(<FindingsRail parts={2} />, plan, sheets);
  act(() => void store.dispatch(reviewActions.failed('out of memory.')));
  expect(screen.getByRole('alert').textContent).toContain('Checks are not running: out of memory. Editing and saving still work.');
  expect(screen.queryAllByRole('region')).toEqual([]);
  await user.click(screen.getByRole('button', { name: 'Check again' }));
  expect(store.getState().review.failure).toBeNull();
  expect(screen.getByText('Checking…')).toBeTruthy();
});
