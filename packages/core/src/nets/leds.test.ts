import { shippedSheets } from '../../tests/catalogue';
import type { PartSheet, PartTerminal } from '../sheets/partSheet';
import { asActiveLow, cathodeOf, hasDigits, singleLed } from './leds';

const sheets = shippedSheets();
const part = (id: string): PartSheet => sheets.parts.get(id)!.sheet;
const red = part('led-red-5mm');
const [anode, cathode] = red.terminals.list as [PartTerminal, PartTerminal];
/** The red LED with other terminals. */
const other = (list: readonly PartTerminal[]): PartSheet => ({ ...red, terminals: { ...red.terminals, list } });

test('one LED has an anode that is its signal and a cathode at ground', () => {
  expect([cathodeOf(red), singleLed(red)]).toEqual(['K', { anode: 'A', cathode: 'K', signal: anode }]);
});

test('turned to active low the cathode is the signal and the anode takes any supply', () => {
  const low = asActiveLow(red);
  expect([cathodeOf(low), low.polarity!.common]).toEqual([null, 'anode']);
  expect(singleLed(low)).toMatchObject({ anode: 'A', cathode: 'K', signal: { id: 'K', role: anode.role, direction: anode.direction } });
  expect(low.terminals.list[0]).toMatchObject({ id: 'A', role: 'supply.vcc', volts: { min: 0, max: Infinity } });
  expect(low.firstLight!.see).toContain('low');
  // What the sheet says of the anode beside its role stays with it.
  expect(low.terminals.list[0]!.label).toBe(anode.label);
  expect(asActiveLow(red)).toBe(low);
});

test('what has a third terminal, none, no LED or no facts of a polarity is not one LED', () => {
  const { led: _, ...plain } = anode;
  for (const list of [
    [anode, cathode, { ...cathode, id: 'K2' }],
    [anode],
    [],
    [plain, cathode],
    [anode, { ...cathode, role: 'gpio.in' as const }],
  ])
    expect([list.map(({ id }) => id), cathodeOf(other(list))]).toEqual([list.map(({ id }) => id), null]);
  for (const list of [[anode, cathode, { ...cathode, id: 'K2' }], [anode], []]) expect(singleLed(other(list))).toBeNull();
  const { polarity: __, ...rest } = red;
  expect([cathodeOf(rest), singleLed(rest)]).toEqual([null, null]);
});

test('between a supply and an end without an LED there is none', () => {
  const supplied: PartTerminal = { ...anode, role: 'supply.vcc', volts: { min: 0, max: 5 } };
  const { led: _, ...dark } = cathode;
  expect(singleLed(other([supplied, { ...dark, role: 'gpio.in' }]))).toBeNull();
  expect(singleLed(other([supplied, { ...cathode, role: 'gpio.in', led: anode.led! }]))).toMatchObject({ signal: { id: 'K' } });
  expect(
    singleLed(
      other([
        { ...supplied, role: 'gpio.out' },
        { ...cathode, role: 'gpio.in', led: anode.led! },
      ]),
    ),
  ).toBeNull();
});

test('of the catalogue only LEDs with two legs are single; displays of several digits take turns', () => {
  const single = [...sheets.parts.values()].flatMap(({ sheet }) => (singleLed(sheet) ? [sheet] : []));
  expect(single.length).toBeGreaterThan(3);
  for (const one of single) expect([one.id, one.terminals.list.length, one.family]).toEqual([one.id, 2, one.family]);
  expect([hasDigits(part('seven-segment-4-ca')), hasDigits(part('seven-segment-1-ca')), hasDigits(red)]).toEqual([true, false, false]);
});
