import fc from 'fast-check';
import { shippedSheets } from '../../tests/catalogue';
import { add, edited } from '../../tests/makePlan';
import { runs } from '../../tests/runs';
import { startPlan } from '../plan/startPlan';
import { type BusLines, shareControllers } from './busControllers';
import { findBuses } from './buses';
import { legalControllers } from './controllers';
import { connectedComponents } from './connectedComponents';

const sheets = shippedSheets();
const board = (id: string) => sheets.boards.get(id)!;
const bus = (kind: BusLines['kind'], pins: BusLines['pins'], ...wished: string[]): BusLines => ({ kind, pins, wished: new Set(wished) });

test('the listed pins of a controller get it, a wish comes first, and a bus makes room for one that has no other choice', () => {
  const esp = board('esp32-stick-38');
  const free = bus('i2c', { sda: 'IO32', scl: 'IO33' });
  const listed = bus('i2c', { sda: 'IO21', scl: 'IO22' });
  expect(shareControllers(esp, [free, listed])).toEqual(['i2c1', 'i2c0']);
  expect(shareControllers(esp, [bus('i2c', listed.pins, 'i2c1')])).toEqual(['i2c1']);
});

test('serial parts share a controller where one only sends and the other only receives', () => {
  const avr = board('atmega328p-5v-shield');
  expect(shareControllers(avr, [bus('uart', { tx: 'D1' }), bus('uart', { rx: 'D0' })])).toEqual(['uart0', 'uart0']);
  // Two that send to one pin meet there: that is another check's.
  expect(shareControllers(avr, [bus('uart', { tx: 'D1', rx: 'D0' }), bus('uart', { rx: 'D0' })])).toEqual(['uart0', 'uart0']);
});

test('a part that is half wired shares the controller of the bus that it is on; two buses that cross have one controller', () => {
  const stm = board('stm32f401-stick-40');
  const [half, whole] = [bus('i2c', { sda: 'B7' }), bus('i2c', { sda: 'B7', scl: 'B6' })];
  expect(shareControllers(stm, [half, whole])).toEqual(['i2c1', 'i2c1']);
  const esp = board('esp32-stick-38');
  expect(shareControllers(esp, [bus('i2c', { sda: 'IO21', scl: 'IO22' }), bus('i2c', { sda: 'IO25', scl: 'IO22' })])).toEqual([
    'i2c0',
    undefined,
  ]);
  expect(shareControllers(esp, [bus('i2c', { sda: 'IO21', scl: 'IO22' }), bus('i2c', { sda: 'IO22' })])).toEqual(['i2c0', undefined]);
});

/** The most buses that can have a controller of their own, by trying every way. */
function most(choices: readonly (readonly string[])[], taken: ReadonlySet<string> = new Set()): number {
  const [own, ...rest] = choices;
  if (!own) return 0;
  return Math.max(most(rest, taken), ...own.filter((id) => !taken.has(id)).map((id) => 1 + most(rest, new Set([...taken, id]))));
}

test('no controller is given twice, each is legal, and no other way serves more buses', () => {
  for (const id of ['rp2040-stick-40', 'stm32f446-shield-64', 'esp32-stick-38']) {
    const here = board(id);
    const pairs = here.ioPins.flatMap((a) =>
      here.ioPins.flatMap((b) => (legalControllers(here, 'i2c', { sda: a.id, scl: b.id }).length > 0 ? [{ sda: a.id, scl: b.id }] : [])),
    );
    fc.assert(
      fc.property(fc.uniqueArray(fc.constantFrom(...pairs), { maxLength: 5, selector: (pins) => pins.scl }), (chosen) => {
        fc.pre(new Set(chosen.flatMap((pins) => Object.values(pins))).size === 2 * chosen.length);
        const buses = chosen.map((pins) => bus('i2c', pins));
        const given = shareControllers(here, buses);
        const had = given.filter((one) => one !== undefined);
        expect(new Set(had).size).toBe(had.length);
        const choices = buses.map(({ pins }) => legalControllers(here, 'i2c', pins).map((c) => c.id));
        given.forEach((one, at) => expect(one === undefined || choices[at]!.includes(one)).toBe(true));
        expect(had).toHaveLength(most(choices));
      }),
      { numRuns: runs(60) },
    );
  }
});

test('a piece of a plan keeps the controllers of the whole', () => {
  const plan = edited(
    startPlan('a', 'Test', 'esp32-stick-38', sheets),
    sheets,
    ...['a', 'b'].map((id) => add(id, 'humidity-aht20')),
    ...[
      ['a', 'IO21', 'IO22'],
      ['b', 'IO32', 'IO33'],
    ].flatMap(([placement, sda, scl]) => [
      { kind: 'wire' as const, placement: placement!, terminal: 'SDA', end: { to: 'pin' as const, pin: sda! } },
      { kind: 'wire' as const, placement: placement!, terminal: 'SCL', end: { to: 'pin' as const, pin: scl! } },
    ]),
  );
  expect(connectedComponents(plan, sheets).map((component) => findBuses(component, sheets).map((one) => one.controller))).toEqual([
    ['i2c0'],
    ['i2c1'],
  ]);
});
