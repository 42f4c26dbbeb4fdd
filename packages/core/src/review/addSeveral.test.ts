import { shippedSheets } from '../../tests/catalogue';
import { findingsOf } from '../../tests/checkHarness';
import { add, edited, shield, stick, wire } from '../../tests/makePlan';
import { addressesOf } from '../nets/addresses';
import { applyEdits } from '../plan/applyEdits';
import type { Edit } from '../plan/edit';
import type { Plan } from '../plan/plan';
import { countedQuery, MOST_AT_ONCE } from '../sheets/countedQuery';
import { additionOf } from './addition';
import { addSeveral } from './addSeveral';
import { duplicateOf } from './duplicate';

const sheets = shippedSheets();
const part = (id: string) => sheets.parts.get(id)!.sheet;
const grave = (plan: Plan) => findingsOf(plan, sheets).filter(({ level }) => level !== 'hint');
const endOf = (plan: Plan, key: string) => plan.wires[key]?.end;

test('a number before a part is how many; another number is part of its name', () => {
  expect(countedQuery('8 × red led')).toEqual({ count: 8, rest: 'red led' });
  expect(countedQuery('3x button')).toEqual({ count: 3, rest: 'button' });
  expect(countedQuery('12 * ds18b20')).toEqual({ count: 12, rest: 'ds18b20' });
  expect(countedQuery('99 x led')).toEqual({ count: MOST_AT_ONCE, rest: 'led' });
  for (const text of ['8x8 matrix', '16x2', '74hc595', 'led', '', '0 x led']) expect(countedQuery(text)).toEqual({ count: 1, rest: text });
});

test('eight LEDs at once: named by number, each on a pin of its own with its resistor', () => {
  const several = addSeveral(stick(), sheets, part('led-red-5mm'), 8);
  expect([several.count, several.fit]).toEqual([8, 8]);
  const { plan } = several;
  expect(plan.placements.map(({ name }) => name)).toEqual([1, 2, 3, 4, 5, 6, 7, 8].map((n) => `${part('led-red-5mm').short} ${n}`));
  const pins = plan.placements.map(({ id }) => JSON.stringify(endOf(plan, `${id}:A`)));
  expect(new Set(pins).size).toBe(8);
  expect(Object.keys(plan.series)).toHaveLength(8);
  expect(grave(plan)).toEqual([]);
  // One batch that goes as it came.
  const applied = applyEdits(stick(), several.edits, sheets);
  expect(applied).toMatchObject({ ok: true, plan });
});

test('several that need something come with it, and share what has room', () => {
  const { plan, fit } = addSeveral(stick(), sheets, part('relay-active-low'), 3);
  expect(fit).toBe(3);
  expect(plan.placements.filter(({ sheet }) => sheet.id === 'buffer-74ahct125')).toHaveLength(1);
  expect(grave(plan)).toEqual([]);
});

test('more than fit are added all the same, and the findings say so; a full plan takes fewer', () => {
  const many = addSeveral(shield(), sheets, part('rgb-led-cc'), 8);
  expect(many.count).toBe(8);
  expect(many.fit).toBeLessThan(8);
  expect(grave(many.plan).length).toBeGreaterThan(0);
  const leds = Array.from({ length: 198 }, (_, n) => add(`l${n}`, 'led-red-5mm'));
  expect(addSeveral(edited(stick(), sheets, ...leds), sheets, part('led-red-5mm'), 8).count).toBe(2);
});

test('a duplicate has the buses, ties, resistors and colours of the first, and pins and an address of its own', () => {
  const first = additionOf(stick(), sheets, part('expander-mcp23017'))!.plan;
  const [id] = first.placements.map((p) => p.id) as [string];
  const marked = edited(
    first,
    sheets,
    { kind: 'rename-placement', placement: id, name: 'Front panel' },
    { kind: 'colour', placement: id, terminal: 'SDA', colour: 'violet' },
    wire(`${id}:INTA`, 'GP22'),
    { kind: 'rate', placement: id, perSecond: 7 },
  );
  const { placement, plan } = duplicateOf(marked, sheets, id)!;
  expect(plan.placements.at(-1)).toMatchObject({ id: placement, name: 'Front panel 2' });
  for (const terminal of ['SDA', 'SCL', 'VDD', 'VSS'])
    expect(endOf(plan, `${placement}:${terminal}`)).toEqual(endOf(plan, `${id}:${terminal}`));
  expect(plan.wires[`${placement}:SDA`]!.colour).toBe('violet');
  expect(endOf(plan, `${placement}:INTA`)).toMatchObject({ to: 'pin' });
  expect(endOf(plan, `${placement}:INTA`)).not.toEqual(endOf(plan, `${id}:INTA`));
  expect(plan.rates[placement]).toBe(7);
  const addresses = plan.placements.map((p) =>
    addressesOf(plan, p, sheets)
      .map(({ address }) => address)
      .join(),
  );
  expect(new Set(addresses).size).toBe(2);
  // A bare chip has no pull-ups, one as little as two.
  expect(grave(plan).map(({ id: finding }) => finding)).toEqual(grave(marked).map(({ id: finding }) => finding));
  const again = duplicateOf(plan, sheets, placement)!;
  expect(again.plan.placements.at(-1)!.name).toBe('Front panel 3');
});

test('a resistor that was chosen is the duplicate’s too; what is on the board, or unknown, has none', () => {
  const lit = additionOf(stick(), sheets, part('led-red-5mm'))!.plan;
  const dim = edited(lit, sheets, { kind: 'series', placement: 'light-1', terminal: 'A', ohms: 4700 });
  const { placement, plan } = duplicateOf(dim, sheets, 'light-1')!;
  expect(plan.series[`${placement}:A`]).toBe(4700);
  expect(duplicateOf(dim, sheets, 'no-such-part')).toBeUndefined();
});

test.each<[string, string, Edit, keyof Plan]>([
  ['a resistor in the wire', 'led-red-5mm', { kind: 'series', placement: 'x', terminal: 'A', ohms: 4700 }, 'series'],
  ['a pull resistor', 'button-push', { kind: 'pull', placement: 'x', terminal: 'C1', pull: { ohms: 22_000, to: 'supply' } }, 'pulls'],
  ['a transistor', 'relay-coil-5v', { kind: 'driver', placement: 'x', terminal: 'A1', driver: { kind: 'npn', ohms: 1500 } }, 'drivers'],
  ['the resistors of a ladder', 'keypad-ladder', { kind: 'ladder', placement: 'x', ladder: { pull: 2200, row: [330, 620] } }, 'ladders'],
  ['capacitors', 'climate-bme280', { kind: 'capacitors', placement: 'x', there: true }, 'capacitors'],
  ['a load', 'strip-ws2812b', { kind: 'load', placement: 'x', load: { units: 12, share: 0.3 } }, 'loads'],
  ['a rate', 'climate-bme280', { kind: 'rate', placement: 'x', perSecond: 3 }, 'rates'],
  ['PWM by software', 'rgb-led-cc', { kind: 'software-pwm', placement: 'x', terminal: 'R', on: true }, 'softwarePwm'],
])('a duplicate has what the first one has: %s', (_, sheet, edit, map) => {
  const start = additionOf(stick(), sheets, part(sheet))!;
  const first = edited(start.plan, sheets, { ...edit, placement: start.placement } as Edit);
  const { placement, plan } = duplicateOf(first, sheets, start.placement)!;
  const of = (id: string) =>
    Object.entries(plan[map] as object).flatMap(([key, value]) => (key.split(':')[0] === id ? [[key.slice(id.length), value]] : []));
  expect(of(placement)).toEqual(of(start.placement));
  expect(of(placement).length).toBeGreaterThan(0);
});

test('what was said or done of one part alone is not the duplicate’s', () => {
  const { plan: first, placement: id } = additionOf(stick(), sheets, part('climate-bme280'))!;
  const at = { placement: id, terminal: 'SDA' };
  const marked = edited(
    first,
    sheets,
    { kind: 'wish', ...at, wish: { pin: 'GP4' } },
    { kind: 'wire-note', ...at, note: { end: { to: 'pin', pin: 'GP4' }, words: 'tested', date: '2026-11-30' } },
    { kind: 'tick', ...at, end: { to: 'pin', pin: 'GP4' } },
  );
  const { placement, plan } = duplicateOf(marked, sheets, id)!;
  for (const map of [plan.wishes, plan.wireNotes, plan.ticks])
    expect(Object.keys(map).filter((key) => key.startsWith(`${placement}:`))).toEqual([]);
});
