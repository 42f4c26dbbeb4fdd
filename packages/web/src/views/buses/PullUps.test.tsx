/** @jest-environment jsdom */
import { screen } from '@testing-library/react';
import { shippedSheets } from '../../../../core/tests/catalogue';
import { add, edited, stick, wire } from '../../../../core/tests/makePlan';
import { i2cReport } from '@roof-chart/core/review/i2cReport';
import { findBuses } from '@roof-chart/core/nets/buses';
import { mount } from '../../../tests/mount';
import { useOpenPlan } from '../../state/store';
import { PullUps } from './PullUps';

const sheets = shippedSheets();
const member = (id: string, sheet: string, name: string) => [add(id, sheet, name), wire(`${id}:SDA`, 'GP4'), wire(`${id}:SCL`, 'GP5')];
const plan = edited(stick(), sheets, ...member('o', 'oled-096-ssd1306-i2c', 'Screen'), ...member('l', 'lcd-2004-pcf8574', 'Text'));

function Bus() {
  const now = useOpenPlan();
  const [first] = i2cReport(now, sheets, findBuses(now, sheets)[0]!)!.segments;
  return <PullUps plan={now} sheet={first!} connected />;
}
const settings = (mounted: ReturnType<typeof mount>) => mounted.plan().busSettings['i2c0'];

test('by keyboard the added resistor goes through the values on hand, from 4.7 kΩ, and stops at the ends', async () => {
  const mounted = mount(<Bus />, plan, sheets);
  const { user } = mounted;
  const slider = screen.getByRole('slider', { name: 'Pull-up added to each line' });
  expect(slider.getAttribute('aria-valuetext')).toBe('none');
  slider.focus();
  await user.keyboard('{ArrowRight}');
  expect(settings(mounted)).toEqual({ addedOhms: 4700 });
  await user.keyboard('{ArrowUp}');
  expect(settings(mounted)).toEqual({ addedOhms: 5600 });
  await user.keyboard('{ArrowLeft}{ArrowDown}');
  expect(settings(mounted)).toEqual({ addedOhms: 3900 });
  expect(slider.getAttribute('aria-valuetext')).toBe('3.9 kΩ');
  await user.keyboard('x');
  expect(mounted.steps()).toHaveLength(4);
  await user.click(screen.getByRole('button', { name: 'Take 3.9 kΩ away' }));
  expect(settings(mounted)).toBeUndefined();
});

test('stepping down from none begins at 4.7 kΩ, too, and takes only what is on hand', async () => {
  const own = edited(plan, sheets, { kind: 'values-on-hand', valuesOnHand: { series: 'own', own: [1000, 10_000] } });
  const mounted = mount(<Bus />, own, sheets);
  screen.getByRole('slider').focus();
  await mounted.user.keyboard('{ArrowLeft}');
  expect(settings(mounted)).toEqual({ addedOhms: 1000 });
  await mounted.user.keyboard('{ArrowLeft}');
  expect(settings(mounted)).toEqual({ addedOhms: 1000 });
  await mounted.user.keyboard('{ArrowRight}{ArrowRight}');
  expect(settings(mounted)).toEqual({ addedOhms: 10_000 });
});

test('the pull-ups of a module are disconnected and restored, in the plan and in the calculation', async () => {
  const mounted = mount(<Bus />, plan, sheets);
  const { user } = mounted;
  const cut = (name: string, isCut: boolean) =>
    screen.getByRole('button', { name: `${isCut ? 'restore' : 'remove'} the pull-ups of ${name}` });
  const total = () => screen.getByText(/^effective /).textContent;
  const before = total();
  await user.click(cut('Screen', false));
  expect(mounted.plan().placements.map(({ pullUpsCut }) => pullUpsCut)).toEqual([true, undefined]);
  expect(total()).not.toBe(before);
  await user.click(cut('Screen', true));
  expect([total(), mounted.steps()]).toEqual([before, ['pull-ups of Screen disconnected', 'pull-ups of Screen connected']]);
});

test('wire length and capacitance are taken on leaving their field; what is empty is removed, what did not change is no step', async () => {
  const mounted = mount(<Bus />, plan, sheets);
  const { user } = mounted;
  const field = screen.getByRole('textbox', { name: 'Measured capacitance, pF' });
  await user.type(field, '120');
  expect(settings(mounted)).toBeUndefined();
  await user.tab();
  expect(settings(mounted)).toEqual({ picofarads: 120 });
  await user.click(field);
  await user.tab();
  expect(mounted.steps()).toEqual(['I2C0: bus capacitance 120 pF (measured)']);
  const length = screen.getByRole('textbox', { name: 'Wire length per line, cm' });
  await user.type(length, '30');
  await user.tab();
  expect(settings(mounted)).toEqual({ picofarads: 120, wireCm: 30 });
  await user.clear(field);
  await user.tab();
  expect(settings(mounted)).toEqual({ wireCm: 30 });
});

test('the clock is chosen and given back; a bus without a controller has no settings', async () => {
  const mounted = mount(<Bus />, plan, sheets);
  const { user } = mounted;
  await user.selectOptions(screen.getByRole('combobox', { name: 'Clock' }), '100000');
  expect(settings(mounted)).toEqual({ hz: 100_000 });
  await user.selectOptions(screen.getByRole('combobox', { name: 'Clock' }), '');
  expect(settings(mounted)).toBeUndefined();
  expect(mounted.steps()).toEqual(['I2C0: clock 100 kHz', 'I2C0: fastest common clock']);
});
