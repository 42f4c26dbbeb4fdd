import fc from 'fast-check';
import { shippedSheets } from '../../../tests/catalogue';
import { findingsOf } from '../../../tests/checkHarness';
import { add, edited } from '../../../tests/makePlan';
import { runs } from '../../../tests/runs';
import { findBuses } from '../../nets/buses';
import { applyEdits } from '../../plan/applyEdits';
import type { Edit } from '../../plan/edit';
import { newPlan, type Plan, splitKey } from '../../plan/plan';
import { assignPins } from '../assignPins';
import { TIERS } from './weights';
import { preferenceCosts } from '../preferenceCost';
import { portOf } from './wishes';

const sheets = shippedSheets();
const ids = [...sheets.parts.keys()].filter((id) => !id.startsWith('seven-segment-4'));
const limit = { nodes: 800 };
const bare = (board: string, parts: readonly string[]): Plan =>
  edited(newPlan('plan-1', 'Test', { id: board, version: 1 }), sheets, ...parts.map((id, at) => add(`p${at}`, id)));

/** A plan with these wishes, as far as they can be wished. */
function wishing(plan: Plan, wishes: readonly Edit[]): Plan {
  return wishes.reduce((now, wish) => {
    const result = applyEdits(now, [wish], sheets);
    return result.ok ? result.plan : now;
  }, plan);
}

const boards = fc.constantFrom('rp2040-stick-40', 'atmega328p-5v-shield', 'stm32f103-stick-40');
const parts = fc.array(fc.constantFrom(...ids), { minLength: 1, maxLength: 5 });

test('with any wishes no hard rule is broken, the prices are never below nothing, and without them nothing is dearer', () => {
  fc.assert(
    fc.property(boards, parts, fc.array(fc.tuple(fc.nat(), fc.nat(), fc.nat(2)), { maxLength: 5 }), (board, list, draws) => {
      const plan = bare(board, list);
      const free = assignPins(plan, sheets, limit)!;
      const pins = sheets.boards.get(board)!.ioPins.map((pin) => pin.id);
      const keys = Object.keys(free.plan.wires);
      if (keys.length === 0) return;
      const wishes = draws.map(([k, p, kind]): Edit => {
        const pin = pins[p % pins.length]!;
        const place = splitKey(keys[k % keys.length]!);
        if (kind === 2) return { kind: 'together', placement: place.placement, how: 'adjacent' };
        return { kind: 'wish', ...place, wish: kind === 0 ? { pin } : { not: [pin] } };
      });
      const wished = wishing(plan, wishes);
      const settled = assignPins(wished, sheets, limit)!;
      const hard = findingsOf(settled.plan, sheets).filter((f) => /^(pin-shared|pin-cannot|pin-reserved|bus-pair-illegal)$/.test(f.code));
      expect(hard.map((f) => f.id)).toEqual([]);
      if (!settled.proved || !free.proved) return;
      const worth = (costs: typeof free.costs) => TIERS.map((tier) => costs[tier]);
      const order = (a: readonly number[], b: readonly number[]) => a.reduce((sum, v, at) => sum || v - b[at]!, 0);
      expect(order(worth(settled.costs), worth(free.costs))).toBeGreaterThanOrEqual(0);
      const prices = preferenceCosts(wished, settled.plan, sheets, limit);
      // Of wishes that contradict each other one is left out, and to take the other away makes it count.
      if (prices.some(({ met }) => !met)) return;
      for (const { more, proved } of prices)
        if (proved)
          expect(
            order(
              worth(more),
              TIERS.map(() => 0),
            ),
          ).toBeGreaterThanOrEqual(0);
    }),
    { numRuns: runs(40) },
  );
});

test('a single wish for a pin that can serve is met where nothing is locked, and its terminal is not left open for it', () => {
  fc.assert(
    fc.property(boards, fc.constantFrom('led-red-5mm', 'button-push', 'servo-micro', 'potentiometer'), fc.nat(), (board, id, n) => {
      const plan = bare(board, [id]);
      const instance = assignPins(plan, sheets)!.instance;
      const item = instance.items[0]!;
      const { pin } = item.candidates[n % item.candidates.length]!;
      const wished = edited(plan, sheets, { kind: 'wish', ...splitKey(item.terminals[0]!), wish: { pin } });
      const settled = assignPins(wished, sheets)!;
      expect(settled.plan.wires[item.terminals[0]!]!.end).toEqual({ to: 'pin', pin });
      expect(preferenceCosts(wished, settled.plan, sheets)).toMatchObject([{ met: true }]);
    }),
  );
});

test('a wish for a bus takes the whole part there', () => {
  const plan = edited(bare('rp2040-stick-40', ['oled-096-ssd1306-i2c', 'humidity-sht31']), sheets, {
    kind: 'wish',
    placement: 'p1',
    terminal: 'SDA',
    wish: { controller: 'i2c1' },
  });
  const { plan: settled } = assignPins(plan, sheets)!;
  const bus = findBuses(settled, sheets).find((b) => b.members.some((m) => m.id === 'p1'));
  expect(bus?.controller).toBe('i2c1');
  expect(preferenceCosts(plan, settled, sheets)).toMatchObject([{ met: true }]);
});

test('signals on one port of the chip', () => {
  const plan = edited(bare('atmega328p-5v-shield', ['keypad-1x4']), sheets, { kind: 'together', placement: 'p0', how: 'port' });
  const { plan: settled } = assignPins(plan, sheets)!;
  const board = sheets.boards.get('atmega328p-5v-shield')!;
  const ports = Object.values(settled.wires).flatMap(({ end }) => (end.to === 'pin' ? [portOf(board.pins.get(end.pin)!)] : []));
  expect([ports.length, new Set(ports).size]).toEqual([4, 1]);
});

test('signals side by side: on neighbouring positions of one header, where the wish is possible at all', () => {
  for (const id of ['rp2040-stick-40', 'atmega328p-5v-shield', 'stm32f103-stick-40']) {
    const board = sheets.boards.get(id)!;
    const plan = edited(bare(id, ['keypad-1x4', 'servo-micro', 'potentiometer']), sheets, {
      kind: 'together',
      placement: 'p0',
      how: 'adjacent',
    });
    const { plan: settled, instance } = assignPins(plan, sheets)!;
    const at = Object.entries(settled.wires).flatMap(([key, { end }]) =>
      key.startsWith('p0:') && end.to === 'pin' ? [board.pins.get(end.pin)!] : [],
    );
    const positions = at.map((pin) => pin.position!).sort((a, b) => a - b);
    expect([id, new Set(at.map((pin) => pin.header)).size, positions.length]).toEqual([id, 1, 4]);
    expect(positions.at(-1)! - positions[0]!).toBe(3);
    // Every run of four pins that all of the signals can have is an alternative, and no shorter one at the end of a header.
    for (const { alternatives } of instance.groups!)
      for (const pins of alternatives.flatMap((one) => Object.values(one))) expect(pins).toHaveLength(4);
  }
});

test('what cannot lie together, and what is one signal alone, asks for nothing', () => {
  const alone = edited(bare('rp2040-stick-40', ['button-push']), sheets, { kind: 'together', placement: 'p0', how: 'adjacent' });
  expect(assignPins(alone, sheets)!.instance).not.toHaveProperty('groups');
  // Twelve signals: no port of this chip has so many.
  const wide = edited(bare('atmega328p-5v-shield', ['seven-segment-4-cc']), sheets, { kind: 'together', placement: 'p0', how: 'port' });
  expect(assignPins(wide, sheets, limit)!.instance).not.toHaveProperty('groups');
});
