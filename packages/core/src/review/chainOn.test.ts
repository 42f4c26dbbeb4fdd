import { shippedSheets } from '../../tests/catalogue';
import { findingsOf } from '../../tests/checkHarness';
import { edited, shield } from '../../tests/makePlan';
import { chainsOf, fromBoard } from '../nets/chains';
import type { Plan } from '../plan/plan';
import { additionOf } from './addition';

const sheets = shippedSheets();
const several = (part: string, count: number, isApart = false): Plan => {
  let plan = shield();
  for (let n = 0; n < count; n += 1) plan = additionOf(plan, sheets, sheets.parts.get(part)!.sheet, isApart)!.plan;
  return plan;
};
const endOf = (plan: Plan, key: string) => plan.wires[key]?.end;
const terminal = (placement: string, id: string) => ({ to: 'terminal', placement, terminal: id });

test('LED strips follow one another: a strip with a clock by both lines, one without by its data line', () => {
  const clocked = several('strip-apa102', 3);
  const [first, second, third] = clocked.placements.map(({ id }) => id) as [string, string, string];
  expect([endOf(clocked, `${second}:CI`), endOf(clocked, `${second}:DI`)]).toEqual([terminal(first, 'CO'), terminal(first, 'DO')]);
  expect([endOf(clocked, `${third}:CI`), endOf(clocked, `${third}:DI`)]).toEqual([terminal(second, 'CO'), terminal(second, 'DO')]);
  expect(findingsOf(clocked, sheets).filter(({ level }) => level !== 'hint')).toEqual([]);
  const plain = several('strip-ws2812b', 2);
  expect(endOf(plain, `${plain.placements[1]!.id}:DIN`)).toEqual(terminal(plain.placements[0]!.id, 'DOUT'));
});

test('input registers are read through one another: the first added stays at the data pin, load and clock are shared', () => {
  const plan = several('shift-in-74hc165', 3);
  const [first, second, third] = plan.placements.map(({ id }) => id) as [string, string, string];
  expect(endOf(plan, `${first}:QH`)).toMatchObject({ to: 'pin' });
  expect([endOf(plan, `${second}:QH`), endOf(plan, `${third}:QH`)]).toEqual([undefined, undefined]);
  expect([endOf(plan, `${first}:SER`), endOf(plan, `${second}:SER`)]).toEqual([terminal(second, 'QH'), terminal(third, 'QH')]);
  for (const line of ['PL', 'CLK']) expect(endOf(plan, `${third}:${line}`)).toEqual(endOf(plan, `${first}:${line}`));
  const [chain] = chainsOf(plan, sheets);
  expect(fromBoard(chain!, sheets).map(({ id }) => id)).toEqual([first, second, third]);
  // The list is in the order in which the bits arrive: nothing to say. Another order is said, and put right.
  expect(findingsOf(plan, sheets)).toEqual([]);
  const turned = edited(plan, sheets, { kind: 'move-placement', placement: first, at: 2 });
  const [told] = findingsOf(turned, sheets);
  expect(told).toMatchObject({ code: 'chain-order', message: 'read', data: { first: { id: first } } });
  const mended = edited(turned, sheets, ...told!.remedies[0]!.edits);
  expect(mended.placements.map(({ id }) => id)).toEqual([first, second, third]);
});

test('a register on pins of its own joins no chain', () => {
  const plan = several('shift-in-74hc165', 2, true);
  expect(chainsOf(plan, sheets).map(({ members }) => members.length)).toEqual([1, 1]);
});
