import fc from 'fast-check';
import { shippedSheets } from '../../tests/catalogue';
import { add, edited, shield, stick } from '../../tests/makePlan';
import { cases, runs } from '../../tests/runs';
import { boardOf } from '../plan/edit';
import { newPlan, type Plan } from '../plan/plan';
import { buildInstance } from './model/buildInstance';
import { alternativesOf, conflictOf } from './explain';
import type { Instance } from './model/instance';
import { costText } from '../text/costText';
import { assignPins } from './assignPins';
import { solve } from './solve/solve';

const sheets = shippedSheets();
const partIds = [...sheets.parts.keys()];
const instanceOf = (plan: Plan): Instance => buildInstance(plan, sheets, boardOf(plan, sheets)!);
const withParts = (plan: Plan, ids: readonly string[]): Plan => edited(plan, sheets, ...ids.map((id, at) => add(`p${at}`, id)));

test('more analog signals than pins: the signals and the pins they compete for', () => {
  const conflict = conflictOf(
    instanceOf(
      withParts(
        stick(),
        Array.from({ length: 4 }, () => 'potentiometer'),
      ),
    ),
  )!;
  expect(conflict.terminals).toHaveLength(4);
  expect([...conflict.pins].sort()).toEqual(['GP26', 'GP27', 'GP28']);
  expect(conflict.minimal).toBe(true);
});

test('more parts of one address than buses', () => {
  const conflict = conflictOf(instanceOf(withParts(shield(), ['oled-096-ssd1306-i2c', 'clock-ds3231-eeprom', 'clock-ds3231-eeprom'])))!;
  expect(conflict.terminals).toEqual([]);
  expect(conflict.members.map((m) => m.placement)).toEqual(['p1', 'p2']);
  expect(conflict.members[0]).toMatchObject({ kind: 'i2c', controllers: ['i2c0'] });
});

test('a search that is stopped at once calls nothing impossible', () => {
  const servable = instanceOf(withParts(stick(), ['oled-096-ssd1306-i2c', 'sd-card-3v3', 'led-red-5mm']));
  expect(conflictOf(servable, { nodes: 0 })).toBeUndefined();
});

test('a conflict is a conflict, and with any one demand less it is none', () => {
  let seen = 0;
  fc.assert(
    fc.property(fc.array(fc.constantFrom(...partIds), { minLength: 6, maxLength: 14 }), (ids) => {
      const instance = instanceOf(withParts(shield(), ids));
      const conflict = conflictOf(instance, { nodes: 400 });
      const open = solve(instance, { nodes: 2000 });
      // Without a conflict all is served, or the search was stopped before it could tell.
      if (!conflict) return void (open.proved && open.nodes < 400 && expect(open.costs.unwired).toBe(0));
      seen += 1;
      if (!conflict.minimal) return;
      const only = (leftOut?: string): Instance => ({
        ...instance,
        // Several terminals of one signal are one demand: they go together.
        items: instance.items.filter(
          (i) => i.terminals.some((t) => conflict.terminals.includes(t)) && !i.terminals.includes(leftOut ?? ''),
        ),
        members: instance.members.filter((m) =>
          m.placements.some((p) => p !== leftOut && conflict.members.some((c) => c.placement === p && c.kind === m.kind)),
        ),
        clashes: [],
        resources: [],
      });
      // Clashes and shared means are left out here, so that only what conflicts without them must stay a conflict.
      const bare = conflictOf(only());
      if (!bare) return;
      for (const out of [...bare.terminals, ...bare.members.map((m) => m.placement)]) expect(solve(only(out)).costs.unwired).toBe(0);
    }),
    { numRuns: runs(25) },
  );
  expect(seen).toBeGreaterThan(cases(3));
});

test('why a wire is where it is: nothing costs less than the settled pin, and a taken analog pin costs its scarcity', () => {
  const plan = assignPins(withParts(shield(), ['led-red-5mm', 'potentiometer', 'motion-mpu6050']), sheets)!.plan;
  const list = alternativesOf(plan, sheets, 'p0:A')!;
  const here = plan.wires['p0:A']!.end as { pin: string };
  expect([list[0]!.pin, costText(list[0]!.more!)]).toEqual([here.pin, 'no compromises']);
  for (const { more } of list) expect(more === null || more.unwired >= 0).toBe(true);
  const analog = list.find((a) => a.pin === 'A3')!.more!;
  expect(analog.moved).toBe(1);
  expect(alternativesOf(plan, sheets, 'p0:K')).toBeUndefined();
});

test('a conflict that was not searched to the end is told, and is none that is proved smallest', () => {
  const plan = edited(
    newPlan('p', 'P', { id: 'rp2040-stamp-14', version: 1 }),
    sheets,
    ...Array.from({ length: 14 }, (_, n) => add(`led${n}`, 'led-red-5mm')),
  );
  const instance = buildInstance(plan, sheets, boardOf(plan, sheets)!);
  const whole = conflictOf(instance)!;
  let asked = 0;
  // Stopped between searches only: each of them is short.
  const some = conflictOf(instance, { stop: () => (asked += 1) > 3 });
  expect(whole.minimal).toBe(true);
  expect([some?.minimal, (some?.terminals.length ?? 0) >= whole.terminals.length]).toEqual([false, true]);
});
