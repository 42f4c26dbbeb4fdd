import fc from 'fast-check';
import { shippedSheets } from '../../tests/catalogue';
import { add } from '../../tests/makePlan';
import { settledPlan } from '../../tests/corruptedPlan';
import { cases, runs } from '../../tests/runs';
import { applyEdits } from '../plan/applyEdits';
import type { Edit } from '../plan/edit';
import { incrementOf } from '../plan/increment';
import { newPlacement } from '../plan/newPlacement';
import { newPlan, type Plan } from '../plan/plan';
import { additionOf } from '../review/addition';
import { planFindingsOf } from '../review/review';
import { findBuses } from './buses';
import { incrementalSplit } from './incrementalSplit';
import { connectedComponents } from './connectedComponents';
import { findNets } from './nets';
import { planTerminals } from './terminals';

const sheets = shippedSheets();
const partIds = [...sheets.parts.keys()];

const known = (plan: Plan) => {
  const { list, byPin, byTerminal } = findNets(plan, sheets);
  return JSON.stringify({
    terminals: planTerminals(plan, sheets),
    list,
    byPin: [...byPin].map(([pin, net]) => [pin, list.indexOf(net)]).sort(),
    byTerminal: [...byTerminal].map(([key, net]) => [key, list.indexOf(net)]).sort(),
    buses: findBuses(plan, sheets),
    components: connectedComponents(plan, sheets),
    findings: planFindingsOf(plan, sheets).map(({ id, data }) => [id, data]),
  });
};

/** A part more, and wires of it to anything: free pins and taken ones, rails, ground, other parts. */
const grown = fc
  .record({
    boardId: fc.constantFrom(...sheets.boards.keys()),
    parts: fc.array(fc.constantFrom(...partIds), { minLength: 0, maxLength: 6 }),
    last: fc.constantFrom(...partIds),
    dice: fc.infiniteStream(fc.nat(0xffff)),
  })
  .map(({ boardId, parts, last, dice }) => {
    const pick = <T>(list: readonly T[]): T => list[(dice.next().value as number) % list.length]!;
    const board = sheets.boards.get(boardId)!.sheet;
    const plan = settledPlan(sheets, boardId, parts, 300);
    const part = sheets.parts.get(last)!.sheet;
    const placement = newPlacement(plan, part);
    const pins = board.pins.list.flatMap((p) => (p.kind === 'io' && !p.sameAs && p.header ? [p.id] : []));
    const edits = part.terminals.list.flatMap(({ id }): Edit[] => {
      const roll = (dice.next().value as number) % 20;
      const at = { placement: placement.id, terminal: id };
      if (roll === 0 && plan.placements.length > 0) {
        const other = pick(plan.placements);
        return [
          {
            kind: 'wire',
            ...at,
            end: { to: 'terminal', placement: other.id, terminal: pick(sheets.parts.get(other.sheet.id)!.sheet.terminals.list).id },
          },
        ];
      }
      if (roll < 4) return [{ kind: 'wire', ...at, end: { to: 'ground' } }];
      if (roll < 6) return [{ kind: 'wire', ...at, end: { to: 'rail', rail: pick(board.rails.list).id } }];
      return roll < 16 ? [{ kind: 'wire', ...at, end: { to: 'pin', pin: pick(pins) } }] : [];
    });
    return { plan, part, placement, edits };
  });

test('of a plan that has grown by a part the same is known as of one that was made anew, after every edit', () => {
  let [apart, several] = [0, 0];
  fc.assert(
    fc.property(grown, ({ plan, placement, edits }) => {
      let now = plan;
      for (const edit of [{ kind: 'add-placement', placement } as const, ...edits]) {
        const result = applyEdits(now, [edit], sheets);
        if (!result.ok) continue;
        now = result.plan;
        if (edit.kind === 'wire' && edit.end.to !== 'terminal' && edit !== edits.at(-1)) continue;
        expect(known(now)).toBe(known(structuredClone(now)));
      }
      if (incrementalSplit(now, sheets)) apart += 1;
      if (connectedComponents(now, sheets).length < connectedComponents(plan, sheets).length) several += 1;
    }),
    { numRuns: runs(60) },
  );
  // Of both kinds there were some: those worked out from what was known, and those that bring components together.
  expect(apart).toBeGreaterThan(cases(8));
  expect(several).toBeGreaterThan(cases(1));
}, 60_000);

test('what adding a part does is the same whether or not anything is known of the plan', () => {
  fc.assert(
    fc.property(grown, ({ plan, part }) => {
      const [one, other] = [plan, structuredClone(plan)].map((p) => additionOf(p, sheets, part)!);
      expect(JSON.stringify(other)).toBe(JSON.stringify(one));
      expect(known(one!.plan)).toBe(known(structuredClone(one!.plan)));
    }),
    { numRuns: runs(40) },
  );
}, 60_000);

test('growth is known step by step for the last part alone, and for edits of that part alone', () => {
  const empty = newPlan('plan-1', 'Test', { id: 'rp2040-stick-40', version: sheets.boards.get('rp2040-stick-40')!.sheet.version });
  const after = (plan: Plan, edit: Edit) => {
    const result = applyEdits(plan, [edit], sheets);
    if (!result.ok) throw new Error(JSON.stringify(result.problem));
    return result.plan;
  };
  const first = after(empty, add('screen', 'oled-096-ssd1306-i2c'));
  expect(incrementOf(first)?.base).toBe(empty);
  const second = after(first, add('light', 'light-bh1750'));
  expect([incrementOf(first), incrementOf(second)?.base]).toEqual([undefined, first]);
  const wired = after(second, { kind: 'wire', placement: 'light', terminal: 'SDA', end: { to: 'pin', pin: 'GP4' } });
  expect(incrementOf(wired)?.base).toBe(first);
  expect(incrementOf(after(wired, { kind: 'wire', placement: 'screen', terminal: 'SDA', end: { to: 'pin', pin: 'GP4' } }))).toBeUndefined();
  expect(incrementOf(after(wired, { kind: 'rename-plan', name: 'Other' }))).toBeUndefined();
  expect(incrementOf(after(wired, { kind: 'move-placement', placement: 'light', at: 0 }))).toBeUndefined();
  expect(incrementOf(after(first, { kind: 'add-placement', placement: { ...second.placements[1]!, id: 'front' }, at: 0 }))).toBeUndefined();
});
