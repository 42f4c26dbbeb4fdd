/** @jest-environment jsdom */
import { screen, waitFor } from '@testing-library/react';
import { shippedSheets } from '../../../../core/tests/catalogue';
import { add, edited, stick, wire } from '../../../../core/tests/makePlan';
import { useOpenPlan } from '../../state/store';
import { mount } from '../../../tests/mount';
import { Calculators } from './Calculators';

const sheets = shippedSheets();
const plan = edited(stick(), sheets, add('l', 'led-red-5mm', 'Lamp'), wire('l:A', 'GP2'), wire('l:K', 'ground'));

function Here() {
  return <Calculators plan={useOpenPlan()} />;
}
const field = (label: RegExp) => screen.getByRole('textbox', { name: label });
const calculate = () => screen.getByRole('button', { name: 'Calculate' });

test('an LED at 5 V: the value of the series, its working, and the value put at a terminal as one step', async () => {
  const mounted = mount(<Here />, plan, sheets);
  const { user } = mounted;
  await user.type(field(/^Supply$/), '5');
  await user.type(field(/^Forward voltage$/), '2');
  await user.type(field(/^LED current$/), '10m');
  await user.click(calculate());
  // (5 V − 2 V) / 10 mA = 300 Ω: the next value up in E12 is 330 Ω.
  await waitFor(() => expect(screen.getAllByText('330 Ω').length).toBeGreaterThan(0));
  const use = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Add to the plan' });
  expect(use().disabled).toBe(true);
  await user.selectOptions(screen.getByRole('combobox', { name: 'Terminal for this value' }), 'l:A');
  await user.click(use());
  expect(mounted.plan().series).toEqual({ 'l:A': 330 });
  expect(mounted.steps()).toHaveLength(1);
});

test('the result follows what is typed, without the button; the field in focus is explained', async () => {
  const { user } = mount(<Here />, plan, sheets);
  await user.type(field(/^Supply$/), '5');
  expect(screen.getByText('Supply, in V.')).toBeTruthy();
  await waitFor(() => expect(screen.getByRole('table')).toBeTruthy(), { timeout: 5000 });
});

test('what is no number is told in a sentence, without a result; another calculation has fields of its own', async () => {
  const { user } = mount(<Here />, plan, sheets);
  await user.type(field(/^Supply$/), 'five');
  await user.click(calculate());
  await waitFor(() => expect(screen.getByRole('alert').textContent).toContain('five'));
  expect(screen.queryByRole('table')).toBeNull();
  const before = screen.getAllByRole('textbox').length;
  await user.selectOptions(screen.getByRole('combobox', { name: 'Calculation' }), 'debounce');
  expect(screen.queryByRole('alert')).toBeNull();
  await user.selectOptions(screen.getByRole('combobox', { name: 'Calculation' }), 'led');
  expect([screen.getAllByRole('textbox').length, screen.getByRole('alert').textContent]).toEqual([before, expect.stringContaining('five')]);
  expect((field(/^Supply$/) as HTMLInputElement).value).toBe('five');
});
