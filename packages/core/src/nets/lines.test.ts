import { shippedSheets } from '../../tests/catalogue';
import { add, edited, stick, wire } from '../../tests/makePlan';
import type { Plan } from '../plan/plan';
import { addressesOf, addressesUnder } from './addresses';
import { chainsOf, fromBoard, isReadChain } from './chains';
import { otherEnds } from './otherEnds';
import { planTerminals } from './terminals';

const sheets = shippedSheets();
const part = (id: string) => sheets.parts.get(id)!.sheet;
const terminal = (plan: Plan, key: string) => planTerminals(plan, sheets).find((t) => t.key === key)!;

test('input registers are read at the last of a chain, output registers are fed at the first', () => {
  expect(['shift-in-74hc165', 'shift-out-74hc595', 'matrix-8x8-max7219', 'led-red-5mm'].map((id) => isReadChain(part(id)))).toEqual([
    true,
    false,
    false,
    false,
  ]);
  const chained = (id: string, out: string, into: string) => {
    const plan = edited(
      stick(),
      sheets,
      add('a', id),
      add('b', id),
      add('c', id),
      wire(`b:${into}`, `a:${out}`),
      wire(`c:${into}`, `b:${out}`),
    );
    return chainsOf(plan, sheets).map((chain) => fromBoard(chain, sheets).map((placement) => placement.id));
  };
  const names = (id: string) =>
    (['out', 'in'] as const).map((end) => part(id).terminals.list.find(({ chain }) => chain === end)!.id) as [string, string];
  expect(chained('shift-out-74hc595', ...names('shift-out-74hc595'))).toEqual([['a', 'b', 'c']]);
  expect(chained('shift-in-74hc165', ...names('shift-in-74hc165'))).toEqual([['c', 'b', 'a']]);
});

test('a part without a sheet or without devices has no address', () => {
  const plan = edited(stick(), sheets, add('s', 'humidity-sht31'), add('l', 'led-red-5mm'));
  const [sensor, led] = plan.placements;
  expect(addressesOf(plan, sensor!, sheets).map(({ placement, address }) => [placement, address])).toEqual([['s', 0x44]]);
  expect(addressesOf(plan, led!, sheets)).toEqual([]);
  expect(addressesOf(plan, { ...sensor!, sheet: { id: 'gone', version: 1 } }, sheets)).toEqual([]);
  expect(addressesUnder(part('led-red-5mm'), {})).toEqual([]);
  // A state that no row of the sheet lists is no address.
  expect(addressesUnder(part('humidity-sht31'), { AD: 'strange' })).toEqual([]);
});

test('an address strap may be tied to a line of its own bus, where its sheet has it, and to that one alone', () => {
  const [tied] = [...sheets.parts.values()].flatMap(({ sheet }) => {
    const strap = sheet.terminals.list.find(({ ties }) => ties?.includes('sda'));
    const sda = sheet.terminals.list.find(({ role }) => role === 'i2c.sda');
    return strap && sda ? [{ id: sheet.id, strap: strap.id, sda: sda.id, ties: strap.ties! }] : [];
  });
  const plan = edited(stick(), sheets, add('s', tied!.id), add('o', 'humidity-sht31'));
  const ends = otherEnds(plan, sheets, terminal(plan, `s:${tied!.strap}`)).filter(({ reason }) => reason === 'strap');
  expect(ends).toContainEqual({ key: `s:${tied!.sda}`, placement: 's', terminal: tied!.sda, reason: 'strap' });
  expect(ends.every(({ placement }) => placement === 's')).toBe(true);
  expect(ends).toHaveLength(tied!.ties.filter((tie) => tie === 'sda' || tie === 'scl').length);
});

test('the board’s side of a level shifter is what it carries: a servo keeps its pulses through a buffer', () => {
  const plan = edited(stick(), sheets, add('b', 'buffer-74ahct125'), add('m', 'servo-micro'));
  const signal = part('servo-micro').terminals.list.find(({ pwmHz }) => pwmHz)!;
  const { low, high } = part('buffer-74ahct125').levelShifter!.channels[0]!;
  const wired = edited(plan, sheets, wire(`m:${signal.id}`, `b:${high}`));
  const carrier = terminal(wired, `b:${low}`);
  expect([carrier.carries, carrier.terminal.role, carrier.terminal.need]).toEqual([[`m:${signal.id}`], signal.role, 'needed']);
  expect([carrier.terminal.pwmHz, carrier.terminal.requires, carrier.terminal.idle]).toEqual([signal.pwmHz, signal.requires, signal.idle]);
});
